package quill.core.table;

import java.util.List;

/**
 * A column that is looked for in somebody's table.
 *
 * @param name what it is called here, and the field that a slip in it names
 * @param words how it is shown, and the first of the heads by which it is known
 * @param others further heads by which it is known, in small letters
 * @param needed whether a table without it says nothing
 */
public record ColumnKind(String name, String words, List<String> others, boolean needed) {
    /** Copies the heads. */
    public ColumnKind {
        others = List.copyOf(others);
    }
}
