package quill.core.ledger;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import org.joda.money.Money;

/** How one installment stands on a day. Days late = the day less the due date; on the due date nothing is late. */
public enum Standing {
    SETTLED,
    CREDITED,
    WRITTEN_OFF,
    LATE,
    COMING;

    /** @param settled how much of it money settled @param credited how much of it a credit note took back */
    public static Standing of(
            Money amount, Money settled, Money credited, Money open, LocalDate dueOn, LocalDate today) {
        if (open.isZero()) {
            return credited.isEqual(amount)
                    ? CREDITED
                    : settled.plus(credited).isLessThan(amount) ? WRITTEN_OFF : SETTLED;
        }
        return daysLate(dueOn, today) > 0 ? LATE : COMING;
    }

    /** Whether it fell due before a day. @param dueOn null where there is no date yet */
    public static boolean isLate(LocalDate dueOn, LocalDate day) {
        return dueOn != null && dueOn.isBefore(day);
    }

    /** Whether it has fallen due by a day, that day included. @param dueOn null where there is no date yet */
    public static boolean isDue(LocalDate dueOn, LocalDate day) {
        return dueOn != null && !dueOn.isAfter(day);
    }

    /** Zero or less where it is not late. @param dueOn null where there is no date yet: nothing is late then */
    public static long daysLate(LocalDate dueOn, LocalDate today) {
        return dueOn == null ? 0 : ChronoUnit.DAYS.between(dueOn, today);
    }
}
