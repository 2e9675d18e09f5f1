package quill.server.dispatch;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.EncodeHintType;
import com.google.zxing.WriterException;
import com.google.zxing.client.j2se.MatrixToImageWriter;
import com.google.zxing.qrcode.QRCodeWriter;
import com.google.zxing.qrcode.decoder.ErrorCorrectionLevel;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.Base64;
import java.util.Map;
import org.joda.money.Money;
import quill.core.document.CreditorReference;
import quill.server.business.Business;

/** The square code (QR) of a letter: a credit transfer by EPC069-12 where that can be, else the page's address. */
public final class SquareCode {
    /** How a credit transfer begins. */
    static final String TRANSFER = "BCD";

    private static final int PIXELS = 264;
    private static final BigDecimal MOST = new BigDecimal("999999999.99");

    private SquareCode() {}

    /**
     * What the code says.
     *
     * @param reference RF creditor reference (ISO 11649)
     * @param page where the code leads instead: another currency than the euro, no account, too large a sum
     */
    public static String payload(Business to, Money amount, String reference, String page) {
        return payload(to.name(), to.account().iban(), to.account().bic(), amount, reference, page);
    }

    /** The same, of the account that a paper names. */
    static String payload(String name, String iban, String bic, Money amount, String reference, String page) {
        boolean transferable = "EUR".equals(amount.getCurrencyUnit().getCode())
                && !iban.isBlank()
                && CreditorReference.isValid(iban)
                && amount.isPositive()
                && amount.getAmount().compareTo(MOST) <= 0;
        if (!transferable) {
            return page;
        }
        return String.join(
                "\n",
                TRANSFER,
                "002",
                "1",
                "SCT",
                bic.replace(" ", ""),
                name.length() > 70 ? name.substring(0, 70) : name,
                iban.replace(" ", ""),
                "EUR" + amount.getAmount().toPlainString(),
                "",
                reference,
                "");
    }

    /** The code as the address of an image that is its own content. */
    public static String inline(String payload) {
        return "data:image/png;base64," + Base64.getEncoder().encodeToString(png(payload));
    }

    /** A letter with its code within, to be shown where no mail program is. @param payload null where it has none */
    static String into(String html, String payload) {
        return payload == null ? html : html.replace("src=\"cid:code\"", "src=\"" + inline(payload) + "\"");
    }

    /** The code as a PNG, error correction level M as EPC069-12 asks. */
    static byte[] png(String payload) {
        return png(payload, PIXELS);
    }

    /** The same, so many pixels wide. */
    public static byte[] png(String payload, int pixels) {
        try {
            var matrix = new QRCodeWriter()
                    .encode(
                            payload,
                            BarcodeFormat.QR_CODE,
                            pixels,
                            pixels,
                            Map.of(
                                    EncodeHintType.ERROR_CORRECTION,
                                    ErrorCorrectionLevel.M,
                                    EncodeHintType.CHARACTER_SET,
                                    "UTF-8"));
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            MatrixToImageWriter.writeToStream(matrix, "PNG", out);
            return out.toByteArray();
        } catch (WriterException e) {
            throw new IllegalArgumentException("cannot be drawn: " + payload, e);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
