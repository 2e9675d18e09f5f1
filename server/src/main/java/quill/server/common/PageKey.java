package quill.server.common;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.TypedDate;

/** Where a page of a list ends: the day and the id of its last row, as they travel. */
public record PageKey(LocalDate on, long id) {
    private static final Pattern FORM = Pattern.compile("(\\d{4}-\\d{2}-\\d{2})_(\\d{1,18})");

    /** Read back. @throws RefusedException naming {@code after} for what no page said */
    public static PageKey of(String after) {
        Matcher form = FORM.matcher(after);
        List<Problem> problems = new ArrayList<>();
        LocalDate on = form.matches() ? TypedDate.read("after", form.group(1), problems) : null;
        if (on == null) {
            throw new RefusedException("after", after, "is no key of a page of this list");
        }
        return new PageKey(on, Long.parseLong(form.group(2)));
    }

    @Override
    public String toString() {
        return on + "_" + id;
    }
}
