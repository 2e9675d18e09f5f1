package quill.server.people;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import me.gosimple.nbvcxz.Nbvcxz;
import me.gosimple.nbvcxz.matching.match.Match;
import me.gosimple.nbvcxz.resources.Configuration;
import me.gosimple.nbvcxz.resources.ConfigurationBuilder;
import me.gosimple.nbvcxz.resources.Dictionary;
import me.gosimple.nbvcxz.resources.DictionaryBuilder;
import me.gosimple.nbvcxz.scoring.Result;
import quill.core.Problem;

/**
 * What a passphrase has to be: 12 to 200 characters that a library would not guess soon, and not one's own address or
 * name. OWASP ASVS 5, 6.2.1 (length) and 6.2.4, 6.2.12 (common ones).
 */
final class PassphraseRules {
    static final int SHORTEST = 12;
    private static final int LONGEST = 200;
    /** Bits that guessing has to take: about thirty thousand million tries, the library's own least. */
    private static final double LEAST_ENTROPY = 35;

    private PassphraseRules() {}

    /** Notes what is wrong with a passphrase. @param own words that are the person's: address, name, business */
    static void check(String field, String passphrase, List<String> own, List<Problem> problems) {
        String text = passphrase == null ? "" : passphrase;
        if (text.length() < SHORTEST || text.length() > LONGEST) {
            problems.add(new Problem(
                    field,
                    "",
                    "must have from " + SHORTEST + " to " + LONGEST + " characters; four or five words are good"));
            return;
        }
        if (text.isBlank()) {
            problems.add(new Problem(field, "", "must not be all blanks; four or five words are good"));
            return;
        }
        Result result = new Nbvcxz(configuration(own)).estimate(text.substring(0, Math.min(text.length(), 60)));
        if (result.getEntropy() < LEAST_ENTROPY) {
            problems.add(
                    new Problem(field, "", "is too easy to guess" + why(result) + "; four or five words are good"));
        }
    }

    private static Configuration configuration(List<String> own) {
        DictionaryBuilder words =
                new DictionaryBuilder().setDictionaryName("own").setExclusion(true);
        for (String text : own) {
            if (text != null && !text.isBlank()) {
                words.addWord(text.toLowerCase(Locale.ROOT), 0);
                for (String part : text.toLowerCase(Locale.ROOT).split("[^\\p{L}\\p{N}]+")) {
                    if (part.length() > 2) {
                        words.addWord(part, 0);
                    }
                }
            }
        }
        List<Dictionary> dictionaries = new ArrayList<>(ConfigurationBuilder.getDefaultDictionaries());
        dictionaries.add(words.createDictionary());
        return new ConfigurationBuilder()
                .setDictionaries(dictionaries)
                .setLocale(Locale.ENGLISH)
                .createConfiguration();
    }

    private static String why(Result result) {
        for (Match match : result.getMatches()) {
            String kind = match.getClass().getSimpleName();
            if (match.getToken().length() * 2 >= result.getPassword().length()) {
                return switch (kind) {
                    case "SequenceMatch" -> ": it runs in sequence";
                    case "RepeatMatch" -> ": it repeats itself";
                    case "SpacialMatch" -> ": its keys lie side by side";
                    case "DateMatch", "YearMatch" -> ": it is a date";
                    case "DictionaryMatch" -> ": it is a common word, or your own name or address";
                    default -> "";
                };
            }
        }
        return "";
    }
}
