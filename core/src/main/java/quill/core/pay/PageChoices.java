package quill.core.pay;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import quill.core.ledger.Standing;

/**
 * What may be paid on a client's page: what has fallen due (or, where nothing has, the first that will), and all that is
 * open where that is more.
 *
 * @param what {@code due} or {@code all}
 */
public record PageChoices<T>(String what, List<T> parts) {
    /** Copies the parts. */
    public PageChoices {
        parts = List.copyOf(parts);
    }

    /**
     * The choices, smallest first; none where nothing is open.
     *
     * @param open parts with anything open, in their order
     * @param dueOn the due date of a part; null where it has none yet
     */
    public static <T> List<PageChoices<T>> of(List<T> open, Function<T, LocalDate> dueOn, LocalDate today) {
        if (open.isEmpty()) {
            return List.of();
        }
        List<T> due =
                open.stream().filter(p -> Standing.isDue(dueOn.apply(p), today)).toList();
        List<T> now = due.isEmpty() ? open.subList(0, 1) : due;
        List<PageChoices<T>> choices = new ArrayList<>();
        choices.add(new PageChoices<>("due", now));
        if (now.size() < open.size()) {
            choices.add(new PageChoices<>("all", open));
        }
        return choices;
    }
}
