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
        LocalDate day = typed == null || typed.isBlank()
                ? today
                : LooseDate.read("paidOn", typed, today, LooseDate.Lean.PAST, problems);
        if (day != null && (day.isAfter(today) || day.isBefore(today.minusYears(1)))) {
            problems.add(new Problem("paidOn", typed, "must be a day up to today, " + Texts.day(today)));
        }
        return day;
    }
}
