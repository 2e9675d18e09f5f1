package quill.server.lists;

import java.util.List;
import quill.core.RefusedException;

/** A list is read a page at a time, with one row more than is shown: whether there are more. */
public final class Pages {
    /** Rows of a page. */
    public static final int PAGE = 50;

    /** As many as a table of everything may have. */
    public static final int ALL = 1_000_000;

    private Pages() {}

    /** Where a page begins. @throws RefusedException below 0 */
    public static int checked(int start) {
        if (start < 0) {
            throw new RefusedException("start", String.valueOf(start), "must be 0 or more");
        }
        return start;
    }

    /** What of the rows found is shown. */
    public static <T> List<T> first(List<T> found) {
        return found.subList(0, Math.min(PAGE, found.size()));
    }

    /** Where the next page begins; null after the last one. */
    public static Integer more(int found, int start) {
        return found > PAGE ? Integer.valueOf(start + PAGE) : null;
    }
}
