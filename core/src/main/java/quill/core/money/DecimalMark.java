package quill.core.money;

import java.util.Collection;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a person writes between the whole and the decimals. It decides only what could mean two numbers: {@code 1,234}
 * and {@code 1.234}. All else is understood with either, and programs and pages send plain decimals with a point.
 */
public enum DecimalMark {
    /** {@code 1,234.50}, and {@code 1.234} is less than two. */
    POINT("."),
    /** {@code 1.234,50}, and {@code 1,234} is less than two. */
    COMMA(",");

    /** Neither within a longer number nor after digits that blanks or strokes set apart. */
    private static final String ALONE = "(?<![\\d.,]|\\d[\\h'’])";

    private static final String NO_MORE = "(?![\\d.,])";
    private static final Pattern TWOFOLD = Pattern.compile(ALONE + "([1-9]\\d{0,2})([.,])(\\d{3})" + NO_MORE);
    private static final Pattern LONG_COMMA = Pattern.compile(ALONE + "(\\d{4,15}),(\\d{3})" + NO_MORE);

    private static final Pattern THOUSANDS = Pattern.compile("(\\d{1,3}),?(\\d{3})(?!\\d)");

    private static final Pattern ONLY_COMMA = Pattern.compile("\\D*[\\d.]*\\d,\\d{1,2}\\D*");
    private static final Pattern ONLY_POINT = Pattern.compile("\\D*[\\d,]*\\d\\.\\d{1,2}\\D*");

    private final String sign;

    DecimalMark(String sign) {
        this.sign = sign;
    }

    /** The mark itself. */
    public String sign() {
        return sign;
    }

    /** The mark that is written so; a point for anything else. */
    public static DecimalMark of(String sign) {
        return COMMA.sign.equals(sign) ? COMMA : POINT;
    }

    /**
     * The mark that somebody's column of numbers is written with, where any of them can be read with one only.
     *
     * @param usual where none of them says, or some say one and some the other
     */
    public static DecimalMark likely(Collection<String> texts, DecimalMark usual) {
        boolean comma = texts.stream().anyMatch(t -> ONLY_COMMA.matcher(t).matches());
        boolean point = texts.stream().anyMatch(t -> ONLY_POINT.matcher(t).matches());
        return comma == point ? usual : comma ? COMMA : POINT;
    }

    /**
     * The text with its numbers as programs write them, as far as they could mean something else; {@link TypedNumber}
     * reads it then.
     *
     * @param typed a number, alone or with a unit, a percent or a currency's sign; null stays null
     */
    public String plain(String typed) {
        if (typed == null || this == POINT) {
            return typed;
        }
        String twofold = TWOFOLD.matcher(typed)
                .replaceAll(m -> m.group(1) + (COMMA.sign.equals(m.group(2)) ? "." : "") + m.group(3));
        return LONG_COMMA.matcher(twofold).replaceAll("$1.$2");
    }

    /** A number as programs write it, as somebody with this mark types it. */
    public String typed(String plain) {
        return plain == null || this == POINT ? plain : plain.replace(POINT.sign, sign);
    }

    /**
     * Which number a text was understood as that could mean two, in words that no mark can change: {@code 1 thousand 234}
     * or {@code 1 and 234 thousandths}.
     *
     * @param plain the number as programs write it, from a text that {@link #isTwofold}
     */
    public static String inWords(String plain) {
        Matcher number = TWOFOLD.matcher(plain);
        if (number.find() && ".".equals(number.group(2))) {
            return number.group(1) + " and " + number.group(3) + " thousandths";
        }
        Matcher thousands = THOUSANDS.matcher(plain);
        return thousands.find() ? thousands.group(1) + " thousand " + thousands.group(2) : plain;
    }

    /** Whether a text could mean two numbers, so that a person should see at once which one was understood. */
    public static boolean isTwofold(String typed) {
        return typed != null && TWOFOLD.matcher(typed).find();
    }
}
