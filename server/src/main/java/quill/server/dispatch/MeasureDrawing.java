package quill.server.dispatch;

import java.util.List;
import quill.core.ledger.Standing;
import quill.server.invoices.Measure;

/** The Measure as static SVG, from the same figures as the one on screen: ink is paid, outline to come, torn is late. */
final class MeasureDrawing {
    private static final String INK = "#232a3d";
    private static final String LATE = "#8c2323";
    private static final int GAP = 3;
    /** A fee's tick with the room before it. */
    private static final int TICK = 5;

    private MeasureDrawing() {}

    /** Parts as wide as their amounts, in a box of the given size in pixels. */
    static String svg(List<Measure.Part> parts, int width, int height) {
        StringBuilder out = new StringBuilder("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"" + width
                + "\" height=\"" + height + "\" viewBox=\"0 0 " + width + " " + height + "\">");
        List<Measure.Part> shown = parts.stream().filter(p -> !p.fee()).toList();
        long fees = parts.size() - shown.size();
        int all = shown.stream().mapToInt(Measure.Part::weight).sum();
        int room = (int) (width - GAP * (shown.size() - 1) - TICK * fees);
        int x = 0;
        int before = 0;
        int place = 0;
        for (Measure.Part part : shown) {
            // From one division to the next, so that nothing is lost by rounding and the last ends at the edge.
            before += part.weight();
            int end = room * before / Math.max(1, all) + GAP * place++;
            int w = Math.max(4, end - x);
            boolean late = part.standing() == Standing.LATE;
            String line = late ? LATE : INK;
            out.append(rect(x, w, height, late ? "#f6dedb" : "#ffffff", line));
            if (part.filled() > 0) {
                out.append(rect(x, Math.max(2, w * part.filled() / 1000), height, INK, INK));
            }
            if (part.standing() == Standing.CREDITED || part.standing() == Standing.WRITTEN_OFF) {
                out.append("<line x1=\"" + x + "\" y1=\"" + height / 2 + "\" x2=\"" + (x + w) + "\" y2=\"" + height / 2
                        + "\" stroke=\"" + INK + "\"/>");
            }
            x += w + GAP;
        }
        for (Measure.Part fee : parts) {
            if (fee.fee()) {
                boolean settled = !fee.open().money().isPositive();
                out.append("<rect x=\"" + (x - GAP + 2) + "\" y=\"0\" width=\"2\" height=\"" + height + "\" fill=\""
                        + (settled ? INK : LATE) + "\"/>");
                x += TICK;
            }
        }
        return out.append("</svg>").toString();
    }

    /** A pixel is left free below: a paper's own rounding would cut a line that lies on the edge. */
    private static String rect(int x, int w, int h, String fill, String line) {
        return "<rect x=\"" + (x + 0.5) + "\" y=\"0.5\" width=\"" + (w - 1) + "\" height=\"" + (h - 2) + "\" fill=\""
                + fill + "\" stroke=\"" + line + "\"/>";
    }
}
