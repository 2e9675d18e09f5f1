package quill.server.paylinks;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.EncodeHintType;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import com.google.zxing.qrcode.decoder.ErrorCorrectionLevel;
import java.util.Map;
import org.springframework.web.util.HtmlUtils;
import quill.server.common.Shown;
import quill.server.dispatch.SquareCode;

/** A payment link as it is printed, or set into a page of one's own. */
final class LinkCodes {
    /** Sharp on a poster. */
    private static final int PIXELS = 1056;

    private LinkCodes() {}

    static String inline(String page) {
        return SquareCode.inline(page);
    }

    static byte[] png(String page) {
        return SquareCode.png(page, PIXELS);
    }

    /** The square code as a drawing of any size (SVG 1.1), one unit for each of its squares. */
    static String svg(String page) {
        BitMatrix squares = squares(page);
        StringBuilder path = new StringBuilder();
        for (int y = 0; y < squares.getHeight(); y++) {
            for (int x = 0; x < squares.getWidth(); x++) {
                if (squares.get(x, y)) {
                    path.append('M').append(x).append(' ').append(y).append("h1v1h-1z");
                }
            }
        }
        int size = squares.getWidth();
        return "<svg xmlns=\"http://www.w3.org/2000/svg\" version=\"1.1\" width=\"40mm\" height=\"40mm\" viewBox=\"0 0 "
                + size + " " + size + "\" shape-rendering=\"crispEdges\"><rect width=\"" + size + "\" height=\"" + size
                + "\" fill=\"#fff\"/><path d=\"" + path + "\"/></svg>\n";
    }

    private static BitMatrix squares(String page) {
        try {
            // Asked for nothing larger, the writer draws one pixel for each square.
            return new QRCodeWriter()
                    .encode(
                            page,
                            BarcodeFormat.QR_CODE,
                            1,
                            1,
                            Map.of(EncodeHintType.ERROR_CORRECTION, ErrorCorrectionLevel.M));
        } catch (WriterException e) {
            throw new IllegalArgumentException("cannot be drawn: " + page, e);
        }
    }

    /** A button for a page of one's own: a link that needs neither script nor style sheet. */
    static String button(PaymentLink link, String page) {
        PaymentLink.LinkAsks asks = link.asks();
        String sum = asks.amount().isFixed() ? " · " + Shown.money(asks.least().money()) : "";
        return "<a href=\"" + HtmlUtils.htmlEscape(page, "UTF-8") + "\" style=\"display:inline-block;padding:12px 20px;"
                + "border-radius:6px;background:#2f6b5e;color:#fff;font:600 16px sans-serif;text-decoration:none\">"
                + HtmlUtils.htmlEscape(link.title() + sum, "UTF-8") + "</a>";
    }
}
