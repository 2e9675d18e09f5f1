package quill.server.business;

import java.util.List;
import java.util.Locale;
import quill.core.Problem;

/** A colour that may be printed on white paper: its contrast is at least 4.5, as WCAG 2.2, criterion 1.4.3, asks of text. */
final class Accent {
    private static final double LEAST = 4.5;
    private static final int[] PLACES = {1, 3, 5};
    private static final double[] WEIGHTS = {0.2126, 0.7152, 0.0722};

    private Accent() {}

    /** Adds a problem for what is no colour, or too pale to be read. Empty is none. */
    static void check(String field, String accent, List<Problem> problems) {
        if (accent.isEmpty()) {
            return;
        }
        if (!accent.matches("#[0-9a-f]{6}")) {
            problems.add(new Problem(field, accent, "write a colour such as #1f665c"));
        } else if (onWhite(accent) < LEAST) {
            problems.add(new Problem(
                    field,
                    accent,
                    String.format(
                            Locale.ROOT,
                            "is too pale to be read on white: a contrast of %.1f, and 4.5 is needed",
                            onWhite(accent))));
        }
    }

    /** Its contrast with white, from 1 to 21, by the formula of WCAG 2.2. */
    static double onWhite(String accent) {
        double luminance = 0;
        for (int i = 0; i < PLACES.length; i++) {
            double part = Integer.parseInt(accent.substring(PLACES[i], PLACES[i] + 2), 16) / 255.0;
            luminance += WEIGHTS[i] * (part <= 0.04045 ? part / 12.92 : Math.pow((part + 0.055) / 1.055, 2.4));
        }
        return 1.05 / (luminance + 0.05);
    }
}
