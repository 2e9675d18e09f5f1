package quill.server.chasing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.common.Texts;

/** Until when something is kept back: a day, or until a person lets it go. */
final class KeptUntil {
    /** A day that never comes. */
    private static final LocalDate FOR_GOOD = LocalDate.of(9999, 12, 31);

    private KeptUntil() {}

    /** The last day as typed, with no end where it is empty. @throws RefusedException for a day that is over, or far off */
    static LocalDate read(String text, LocalDate today) {
        LocalDate day = lastDay(text, today);
        return day == null ? FOR_GOOD : day;
    }

    /** The last day as typed; null where it is empty. @throws RefusedException for a day that is over, or far off */
    static LocalDate lastDay(String text, LocalDate today) {
        if (text == null || text.isBlank()) {
            return null;
        }
        List<Problem> problems = new ArrayList<>();
        LocalDate day = LooseDate.read("until", text, today, LooseDate.Lean.COMING, problems);
        if (day != null && (day.isBefore(today) || day.isAfter(today.plusYears(2)))) {
            problems.add(new Problem(
                    "until", text, "must be a day from today, " + Texts.day(today) + ", to two years from now"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return day;
    }

    /** Whether it holds on a day. @param until null where nothing is kept back */
    static boolean isOn(LocalDate until, LocalDate day) {
        return until != null && !day.isAfter(until);
    }

    /** As it is shown; null where it has no end, or is not. */
    static LocalDate shown(LocalDate until) {
        return FOR_GOOD.equals(until) ? null : until;
    }

    /** For the record. */
    static String words(LocalDate until) {
        if (until == null) {
            return "Nothing is kept back any more";
        }
        return "Everything is kept back" + (shown(until) == null ? "" : " until " + Texts.day(until));
    }
}
