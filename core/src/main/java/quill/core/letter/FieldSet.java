package quill.core.letter;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** The fields that one letter knows: its kind's, and those that the business has on its documents. */
public final class FieldSet {
    private final List<Offered> all;
    private final LetterKind kind;

    /** A field that can be picked. @param oftenEmpty whether it is meant to say nothing on most occasions */
    public record Offered(
            String title, LetterField.Group group, LetterField.Shape shape, String meaning, boolean oftenEmpty) {
        /** As it is written in a letter. */
        public String written() {
            return "{" + title + "}";
        }

        static Offered of(LetterField field) {
            return new Offered(field.title(), field.group(), field.shape(), field.meaning(), field.oftenEmpty());
        }
    }

    private FieldSet(List<Offered> all, LetterKind kind) {
        this.all = List.copyOf(all);
        this.kind = kind;
    }

    /** @param own labels of the business's own fields; one that is called as a field of ours gives way to it */
    public static FieldSet of(LetterKind kind, List<String> own) {
        List<Offered> all =
                new ArrayList<>(kind.fields().stream().map(Offered::of).toList());
        if (kind.fields().contains(LetterField.WHAT_FOR)) {
            for (String label : own) {
                String title = squeezed(label);
                if (Wording.isTitle(title) && all.stream().noneMatch(o -> matches(o, title))) {
                    all.add(new Offered(
                            title,
                            LetterField.Group.OWN,
                            LetterField.Shape.WORDS,
                            "your own field; where it is about one document",
                            false));
                }
            }
        }
        return new FieldSet(all, kind);
    }

    /** All, in the order in which they are offered. */
    public List<Offered> all() {
        return all;
    }

    /** Whether what they stand in has a subject. */
    boolean hasSubject() {
        return kind.hasSubject();
    }

    /** How long the text may be. */
    int longest() {
        return kind.isText() ? Wording.LONGEST_TEXT : Wording.LONGEST_BODY;
    }

    /** The field of a name, whatever its capitals and blanks. */
    Optional<Offered> find(String typed) {
        String title = squeezed(typed);
        return all.stream().filter(o -> matches(o, title)).findFirst();
    }

    /** A field that was there when something was worded, and is no more: it says nothing. */
    static Offered gone(String typed) {
        return new Offered(squeezed(typed), LetterField.Group.OWN, LetterField.Shape.WORDS, "", false);
    }

    private static boolean matches(Offered offered, String title) {
        return offered.title().equalsIgnoreCase(title);
    }

    /** A title as it is compared: blanks made one. */
    public static String squeezed(String typed) {
        return typed.strip().replaceAll("\\s+", " ");
    }

    /** The field whose name is the fewest slips away from what was typed. */
    Offered nearest(String typed) {
        String title = squeezed(typed).toLowerCase(Locale.ROOT);
        Offered best = all.get(0);
        int fewest = Integer.MAX_VALUE;
        for (Offered o : all) {
            int slips = slips(title, o.title().toLowerCase(Locale.ROOT));
            if (slips < fewest) {
                fewest = slips;
                best = o;
            }
        }
        return best;
    }

    /** How many letters must be put in, taken out or changed to make one text the other (V. I. Levenshtein, 1965). */
    private static int slips(String a, String b) {
        int[] before = new int[b.length() + 1];
        for (int j = 0; j <= b.length(); j++) {
            before[j] = j;
        }
        for (int i = 1; i <= a.length(); i++) {
            int[] now = new int[b.length() + 1];
            now[0] = i;
            for (int j = 1; j <= b.length(); j++) {
                int other = before[j - 1] + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
                now[j] = Math.min(other, Math.min(before[j], now[j - 1]) + 1);
            }
            before = now;
        }
        return before[b.length()];
    }
}
