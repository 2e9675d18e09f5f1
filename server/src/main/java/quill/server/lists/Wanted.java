package quill.server.lists;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.common.Texts;

/**
 * What a list is to show, as its address says it.
 *
 * @param filter a part of what a row says, or empty
 * @param which a word for a kind of rows
 * @param from first day, or null; {@code to} the last one
 * @param sort the column by which it is ordered, {@code down} whether largest or latest first
 */
public record Wanted(String filter, String which, LocalDate from, LocalDate to, String sort, boolean down) {
    private static final LocalDate LONG_AGO = LocalDate.of(1900, 1, 1);
    private static final LocalDate FAR = LocalDate.of(9999, 12, 31);

    /** The words as they came in the address. */
    public record Typed(String filter, String which, String from, String to, String sort, Boolean down) {}

    /**
     * Reads them.
     *
     * @param kinds what {@code which} may be, the usual one first
     * @param sorts the columns by which it may be ordered, the usual one first, which comes latest first
     * @throws RefusedException naming each field, with what would be allowed
     */
    public static Wanted of(Typed typed, List<String> kinds, List<String> sorts, LocalDate today) {
        List<Problem> problems = new ArrayList<>();
        LocalDate from = day("from", typed.from(), today, problems);
        LocalDate to = day("to", typed.to(), today, problems);
        if (from != null && to != null && to.isBefore(from)) {
            problems.add(new Problem("to", typed.to(), "must not be before the first day, " + from));
        }
        String which = oneOf("which", typed.which(), kinds, problems);
        String sort = oneOf("sort", typed.sort(), sorts, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        String filter = typed.filter() == null ? "" : typed.filter().strip().toLowerCase(Locale.ROOT);
        return new Wanted(filter, which, from, to, sort, typed.down() == null || typed.down());
    }

    private static LocalDate day(String field, String text, LocalDate today, List<Problem> problems) {
        return text == null || text.isBlank()
                ? null
                : LooseDate.read(field, text, today, LooseDate.Lean.PAST, problems);
    }

    private static String oneOf(String field, String text, List<String> words, List<Problem> problems) {
        if (text == null || text.isEmpty()) {
            return words.get(0);
        }
        if (!words.contains(text)) {
            problems.add(new Problem(field, text, "must be one of " + String.join(", ", words)));
        }
        return text;
    }

    /** Whether only some days are wanted. */
    public boolean hasPeriod() {
        return from != null || to != null;
    }

    /** What its SQL is given. */
    public Map<String, Object> parameters(LocalDate today, String own) {
        return Map.of(
                "part",
                "%" + Texts.inLike(filter) + "%",
                "from",
                from == null ? LONG_AGO : from,
                "to",
                to == null ? FAR : to,
                "today",
                today,
                "own",
                own);
    }
}
