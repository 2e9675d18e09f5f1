package quill.core;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** Reads one of a few words as it travels: the name of a constant, in letters of any size. */
public final class TypedWord {
    private TypedWord() {}

    /** The constant, or null where a problem was added, which names all that there are. */
    public static <E extends Enum<E>> E read(String field, String text, Class<E> words, List<Problem> problems) {
        try {
            return Enum.valueOf(words, text == null ? "" : text.strip().toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            problems.add(new Problem(field, text, "must be " + named(words)));
            return null;
        }
    }

    private static <E extends Enum<E>> String named(Class<E> words) {
        List<String> names =
                Arrays.stream(words.getEnumConstants()).map(Enum::name).toList();
        int last = names.size() - 1;
        return String.join(", ", names.subList(0, last)) + " or " + names.get(last);
    }
}
