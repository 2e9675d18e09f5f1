package quill.core.finding;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import quill.core.money.DecimalMark;
import quill.core.money.TypedNumber;

/** The words by which something is found: in small letters, without accents; and those that are a slip away from them. */
public final class Words {
    /** A word is looked for by so many of its letters; no longer one is kept. */
    public static final int LONGEST = 40;

    private static final int SHORTEST_WITH_A_SLIP = 4;
    private static final Pattern BETWEEN = Pattern.compile("[^\\p{L}\\p{N}]+");
    private static final Pattern MARKS = Pattern.compile("\\p{M}+");
    /** A sum as it is printed: it is a word too, without the marks between its thousands. */
    private static final Pattern SUM = Pattern.compile("\\d[\\d,]*\\.\\d{1,6}");

    private static final Pattern NUMBER = Pattern.compile("[\\d.,'’\\h]*\\d[.,]\\d{1,3}");

    private Words() {}

    /** The words of a text, each once. */
    public static Set<String> of(String text) {
        Set<String> words = new LinkedHashSet<>();
        if (text == null) {
            return words;
        }
        String plain = plain(text);
        for (String word : BETWEEN.split(plain)) {
            if (!word.isEmpty()) {
                words.add(cut(word));
            }
        }
        Matcher sums = SUM.matcher(plain);
        while (sums.find()) {
            words.add(cut(sums.group().replace(",", "")));
        }
        return words;
    }

    /** A text in small letters, without accents. */
    public static String plain(String text) {
        return MARKS.matcher(Normalizer.normalize(text, Normalizer.Form.NFKD))
                .replaceAll("")
                .toLowerCase(Locale.ROOT);
    }

    /**
     * What somebody types to find something: its words, of which the last may be only begun. A number with decimals stays
     * one, whatever its marks.
     */
    public static List<String> asked(String typed, DecimalMark mark) {
        List<String> asked = new ArrayList<>();
        for (String part : typed.strip().split("\\h+")) {
            String number = NUMBER.matcher(part).matches() ? number(part, mark) : null;
            if (number != null) {
                asked.add(number);
            } else {
                asked.addAll(of(part));
            }
        }
        return asked;
    }

    private static String number(String part, DecimalMark mark) {
        var read = TypedNumber.read("", mark.plain(part), 3, false, new ArrayList<>());
        return read == null ? null : read.toPlainString();
    }

    private static String cut(String word) {
        return word.length() <= LONGEST ? word : word.substring(0, LONGEST);
    }

    /**
     * The word, and what is left of it without any one letter: two words that share one of these are a slip apart (one
     * letter too many, too few, another one, or two exchanged). Words of fewer than four letters and numbers have none.
     */
    public static Set<String> slips(String word) {
        Set<String> slips = new LinkedHashSet<>();
        if (word.length() < SHORTEST_WITH_A_SLIP || word.chars().anyMatch(Character::isDigit)) {
            return slips;
        }
        slips.add(word);
        for (int i = 0; i < word.length(); i++) {
            slips.add(word.substring(0, i) + word.substring(i + 1));
        }
        return slips;
    }
}
