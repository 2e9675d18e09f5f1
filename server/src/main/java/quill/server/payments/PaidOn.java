package quill.server.payments;

import java.time.LocalDate;
import java.util.List;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.server.common.Texts;

/** The day on which money went back, as typed. */
final class PaidOn {
    private PaidOn() {}

    /** Today where nothing is typed; null where a problem was added. */
    static LocalDate read(String typed, LocalDate today, List<Problem> problems) {
        return read(typed, today.minusYears(1), today, problems);
    }

    /** The same. @param came when the money came: it does not go back before that */
    static LocalDate read(String typed, LocalDate came, LocalDate today, List<Problem> problems) {
        LocalDate day = typed == null || typed.isBlank()
                ? today
                : LooseDate.read("paidOn", typed, today, LooseDate.Lean.PAST, problems);
        // A processor's clock may be a day ahead of ours: today always is a day on which it can go back.
        LocalDate first = came.isAfter(today) ? today : came;
        if (day != null && (day.isAfter(today) || day.isBefore(first))) {
            problems.add(new Problem(
                    "paidOn", typed, "must be a day from " + Texts.day(first) + " up to today, " + Texts.day(today)));
        }
        return day;
    }
}
