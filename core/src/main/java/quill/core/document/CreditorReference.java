package quill.core.document;

import java.math.BigInteger;
import java.util.Locale;

/**
 * The reference that a payer writes on a bank transfer (ISO 11649), and the check digits of an IBAN (ISO 13616):
 * both are ISO 7064 MOD 97-10.
 */
public final class CreditorReference {
    private static final BigInteger NINETY_SEVEN = BigInteger.valueOf(97);
    private static final int MAX_BODY = 21;

    private CreditorReference() {}

    /** RF, two check digits, then the letters and digits of the document's number: 2027-0031 is RF93 2027 0031. */
    public static String of(String documentNumber) {
        String body = documentNumber.replaceAll("[^A-Za-z0-9]", "").toUpperCase(Locale.ROOT);
        if (body.length() > MAX_BODY) {
            body = body.substring(body.length() - MAX_BODY);
        }
        int check = 98 - remainder(body + "RF00");
        return "RF" + String.format("%02d", check) + body;
    }

    /** Whether the check digits of an IBAN (or of an RF reference) are right; blanks do not matter. */
    public static boolean isValid(String text) {
        String plain = text.replace(" ", "").toUpperCase(Locale.ROOT);
        return plain.matches("[A-Z]{2}\\d{2}[A-Z0-9]{1,30}")
                && remainder(plain.substring(4) + plain.substring(0, 4)) == 1;
    }

    /** In groups of four, as it is printed. */
    public static String grouped(String text) {
        return text.replace(" ", "").replaceAll("(.{4})(?=.)", "$1 ");
    }

    private static int remainder(String text) {
        StringBuilder digits = new StringBuilder();
        text.chars().forEach(c -> digits.append(Character.getNumericValue(c)));
        return new BigInteger(digits.toString()).mod(NINETY_SEVEN).intValue();
    }
}
