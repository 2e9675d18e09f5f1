package quill.core.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.finding.Words;

/** Which column of a table is which, by its heads. A head that is known already is passed over, and a person may say otherwise. */
public final class Columns {
    /** What a column is called that is passed over. */
    public static final String NONE = "";

    private Columns() {}

    /**
     * The name of each column's kind, in the order of the heads; {@link #NONE} for one that is not known, or known
     * already from a head before it.
     */
    public static List<String> recognise(List<String> heads, List<ColumnKind> kinds) {
        Map<String, String> byHead = new HashMap<>();
        for (ColumnKind kind : kinds) {
            byHead.put(plain(kind.name()), kind.name());
            byHead.put(plain(kind.words()), kind.name());
            kind.others().forEach(o -> byHead.put(plain(o), kind.name()));
        }
        List<String> found = new ArrayList<>();
        for (String head : heads) {
            String name = byHead.getOrDefault(plain(head), NONE);
            found.add(found.contains(name) ? NONE : name);
        }
        return found;
    }

    /**
     * Checks what a person chose.
     *
     * @throws RefusedException where a name is none of these kinds or stands twice, or a needed one is missing
     */
    public static void check(List<String> chosen, List<ColumnKind> kinds) {
        List<Problem> problems = new ArrayList<>();
        List<String> names = kinds.stream().map(ColumnKind::name).toList();
        for (int i = 0; i < chosen.size(); i++) {
            String name = Objects.requireNonNullElse(chosen.get(i), NONE);
            if (!name.equals(NONE) && !names.contains(name)) {
                problems.add(new Problem("columns[" + i + "]", name, "must be one of " + names));
            } else if (!name.equals(NONE) && chosen.indexOf(name) < i) {
                problems.add(new Problem("columns[" + i + "]", name, "is taken from another column already"));
            }
        }
        missing(chosen, kinds)
                .ifPresent(k -> problems.add(new Problem("columns", "", "say which column is “" + k.words() + "”")));
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }

    /** The first needed kind that no column is. */
    public static Optional<ColumnKind> missing(List<String> chosen, List<ColumnKind> kinds) {
        return kinds.stream()
                .filter(k -> k.needed() && !chosen.contains(k.name()))
                .findFirst();
    }

    /** Without accents, signs and capitals: {@code Désignation} and {@code designation} are one head. */
    static String plain(String head) {
        return Words.plain(head).replaceAll("[^\\p{L}\\p{N}]+", " ").strip();
    }
}
