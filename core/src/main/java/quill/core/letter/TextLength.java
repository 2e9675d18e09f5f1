package quill.core.letter;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Map;
import java.util.stream.Collectors;
import org.joda.money.BigMoney;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;

/**
 * How long a text message is, and in how many parts it goes: 3GPP TS 23.038 (the alphabet) and 23.040, 9.2.3.24.1 (parts
 * of one message). One part holds 160 characters of the alphabet, each of several 153; with any other character in it 70
 * and 67 units of UTF-16. A character that takes two places is never divided between two parts.
 *
 * @param plain whether all of it is in the alphabet
 * @param characters places that it takes
 * @param parts each paid for on its own; at least one
 */
public record TextLength(boolean plain, int characters, int parts) {
    /** More parts than these are not sent as one text. */
    public static final int MOST_PARTS = 6;

    private static final int ONE = 160;
    private static final int EACH = 153;
    private static final int ONE_WIDE = 70;
    private static final int EACH_WIDE = 67;
    private static final String ALPHABET = "@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞÆæßÉ !\"#¤%&'()*+,-./0123456789:;<=>?"
            + "¡ABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§¿abcdefghijklmnopqrstuvwxyzäöñüà";
    private static final String IN_TWO_PLACES = "\f^{}\\[~]|€";

    /** What print sets, and a telephone has a plain character for. */
    private static final Map<Integer, String> PLAINER = Map.ofEntries(
            Map.entry(0x2018, "'"),
            Map.entry(0x2019, "'"),
            Map.entry(0x201C, "\""),
            Map.entry(0x201D, "\""),
            Map.entry(0x201E, "\""),
            Map.entry(0x2013, "-"),
            Map.entry(0x2014, "-"),
            Map.entry(0x2026, "..."),
            Map.entry(0x00A0, " "),
            Map.entry(0x202F, " "),
            Map.entry(0x00B7, "-"),
            Map.entry(0x0009, " "));

    /** Measures a text as it goes. */
    public static TextLength of(String text) {
        boolean plain = text.codePoints().allMatch(c -> places(c, true) > 0);
        int all = text.codePoints().map(c -> places(c, plain)).sum();
        if (all <= (plain ? ONE : ONE_WIDE)) {
            return new TextLength(plain, all, 1);
        }
        int each = plain ? EACH : EACH_WIDE;
        int parts = 1;
        int used = 0;
        for (int c : text.codePoints().toArray()) {
            int places = places(c, plain);
            if (used + places > each) {
                parts++;
                used = 0;
            }
            used += places;
        }
        return new TextLength(plain, all, parts);
    }

    /** What all parts cost, rounded up to what the currency has. @param price of one part */
    public Money cost(BigDecimal price, CurrencyUnit currency) {
        return BigMoney.of(currency, price.multiply(BigDecimal.valueOf(parts))).toMoney(RoundingMode.UP);
    }

    /** The same words with the characters of print made plain ones, so that they do not halve what a part holds. */
    public static String plainer(String text) {
        return text.codePoints()
                .mapToObj(c -> PLAINER.getOrDefault(c, Character.toString(c)))
                .collect(Collectors.joining());
    }

    /** Places of a character; of one that is not in the alphabet 0, where that is asked for. */
    private static int places(int character, boolean inAlphabet) {
        if (!inAlphabet) {
            return Character.charCount(character);
        }
        return ALPHABET.indexOf(character) >= 0 ? 1 : IN_TWO_PLACES.indexOf(character) >= 0 ? 2 : 0;
    }
}
