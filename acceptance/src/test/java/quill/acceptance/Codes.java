package quill.acceptance;

import com.google.zxing.BinaryBitmap;
import com.google.zxing.ReaderException;
import com.google.zxing.client.j2se.BufferedImageLuminanceSource;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.qrcode.QRCodeReader;
import com.microsoft.playwright.Locator;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.ImageIO;

/** Square codes, read as a telephone reads them: from what is on screen. */
final class Codes {
    private Codes() {}

    static String read(Locator code) {
        try {
            var picture = ImageIO.read(new ByteArrayInputStream(code.screenshot()));
            return new QRCodeReader()
                    .decode(new BinaryBitmap(new HybridBinarizer(new BufferedImageLuminanceSource(picture))))
                    .getText();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (ReaderException e) {
            throw new AssertionError("no code can be read there", e);
        }
    }
}
