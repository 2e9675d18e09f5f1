package quill.server.common;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.TypedDate;

/** Checks of plain text fields, all told at once. */
public final class Texts {
    private static final int LONGEST_REASON = 300;
    private static final Pattern EMAIL = Pattern.compile(
            "[^@\\s,;<>\".\\p{Cntrl}]+(\\.[^@\\s,;<>\".\\p{Cntrl}]+)*@[\\p{L}\\p{N}-]+(\\.[\\p{L}\\p{N}-]+)+");

    private static final Set<String> COUNTRIES = Set.of(Locale.getISOCountries());

    /** Control characters but line break and tab, and what else XML 1.0 (2.2) has no place for. */
    private static final Pattern UNPRINTABLE =
            Pattern.compile("[\\p{Cntrl}&&[^\\n\\t]]|[^\\x{0}-\\x{D7FF}\\x{E000}-\\x{FFFD}\\x{10000}-\\x{10FFFF}]");

    private Texts() {}

    /** The text with a blank for every character that neither paper nor XML can carry, as pasting may bring along. */
    public static String printable(String text) {
        return UNPRINTABLE.matcher(text).replaceAll(" ");
    }

    /** Adds a problem that names the characters which no font can print, instead of printing others in silence. */
    public static void printable(String field, String text, List<Problem> problems) {
        String missing = text == null ? "" : Fonts.missingFor(printable(text));
        if (!missing.isEmpty()) {
            problems.add(new Problem(field, fit(missing, 30), "cannot be printed: no font here has it"));
        }
    }

    /** @throws RefusedException naming each of these fields that has characters which no font can print */
    public static void refuseUnprintable(Map<String, String> fields) {
        List<Problem> problems = new ArrayList<>();
        fields.forEach((field, text) -> printable(field, text, problems));
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }

    /** A date as people write it: {@code 9 March 2027}. */
    public static String day(LocalDate date) {
        return TypedDate.inWords(date);
    }

    /** The text, cut with an ellipsis where it is longer than its column. */
    public static String fit(String text, int most) {
        if (text == null || text.length() <= most) {
            return text;
        }
        int end = Character.isHighSurrogate(text.charAt(most - 2)) ? most - 2 : most - 1;
        return text.substring(0, end) + "…";
    }

    /** As {@link #text}, on one line: names go into the heads of letters and the names of files. */
    public static String name(String field, String value, int most, boolean needed, List<Problem> problems) {
        String plain = text(field, value, most, needed, problems);
        if (plain.codePoints().anyMatch(Texts::breaksALine)) {
            problems.add(new Problem(field, fit(printable(plain), 30), "must be one line, without control characters"));
        }
        return plain;
    }

    /** A control character, the end of a line, or what turns the words after it around (Unicode UAX 9). */
    private static boolean breaksALine(int c) {
        return Character.isISOControl(c)
                || c == 0x2028
                || c == 0x2029
                || c >= 0x202A && c <= 0x202E
                || c >= 0x2066 && c <= 0x2069;
    }

    /** Without blanks around it; empty where nothing of it would be seen. */
    private static String stripped(String value) {
        boolean seen = value != null
                && value.codePoints()
                        .anyMatch(c -> !Character.isWhitespace(c)
                                && !Character.isSpaceChar(c)
                                && Character.getType(c) != Character.FORMAT);
        return seen ? value.strip() : "";
    }

    /** The text without blanks around it; a problem where it is too long, or empty though it is needed. */
    public static String text(String field, String value, int most, boolean needed, List<Problem> problems) {
        String plain = stripped(value);
        if (needed && plain.isEmpty()) {
            problems.add(new Problem(field, "", "must not be empty"));
        }
        if (plain.length() > most) {
            problems.add(new Problem(field, fit(plain, 20), "at most " + most + " characters"));
        }
        printable(field, plain, problems);
        return plain;
    }

    /**
     * Why something is taken back: without blanks around it.
     *
     * @throws RefusedException where it is empty, over 300 characters, or cannot be printed
     */
    public static String reason(String field, String typed) {
        String plain = stripped(typed);
        if (plain.isEmpty() || plain.length() > LONGEST_REASON) {
            throw new RefusedException(field, typed, "say why, in up to " + LONGEST_REASON + " characters");
        }
        List<Problem> problems = new ArrayList<>();
        printable(field, plain, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return plain;
    }

    /** A key by which a request is known when it is sent again. @param each what it has to be new for */
    public static void key(String value, String each, List<Problem> problems) {
        if (value == null || !value.matches("[A-Za-z0-9-]{8,60}")) {
            problems.add(
                    new Problem("key", value, "must be 8 to 60 letters, digits and hyphens, new for each " + each));
        }
    }

    /** The same. @throws RefusedException naming {@code key} */
    public static void key(String value, String each) {
        List<Problem> problems = new ArrayList<>();
        key(value, each, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }

    /** An e-mail address, or empty where it is not needed. */
    public static String email(String field, String value, boolean needed, List<Problem> problems) {
        String plain = text(field, value, 200, needed, problems);
        if (!plain.isEmpty() && !EMAIL.matcher(plain).matches()) {
            problems.add(new Problem(field, plain, "must be an address such as name@place.example"));
        }
        return plain;
    }

    /** Whether this is the ISO 3166-1 code of a country, in capitals. */
    public static boolean isCountry(String code) {
        return COUNTRIES.contains(code);
    }

    /** A country's ISO 3166-1 code, or empty. */
    public static String country(String field, String value, List<Problem> problems) {
        String plain = value == null ? "" : value.strip().toUpperCase(Locale.ROOT);
        if (!plain.isEmpty() && !isCountry(plain)) {
            problems.add(new Problem(field, plain, "must be the two letters of a country, such as BE"));
        }
        return plain;
    }

    /** A text as it stands in a pattern of SQL's LIKE with {@code ESCAPE '!'}: it means only itself. */
    public static String inLike(String text) {
        return text.replace("!", "!!").replace("%", "!%").replace("_", "!_");
    }
}
