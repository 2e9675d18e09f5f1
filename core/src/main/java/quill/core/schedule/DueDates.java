package quill.core.schedule;

import java.time.LocalDate;
import java.time.YearMonth;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Makes days of what was agreed, in the order of a schedule. A day that a month lacks is its last one (RFC 7529,
 * SKIP=BACKWARD).
 */
public final class DueDates {
    private final LocalDate issuedOn;
    /** From which monthly ones count, and how many have been counted. */
    private LocalDate first;

    private int months;
    private LocalDate latest;

    private DueDates(LocalDate issuedOn) {
        this.issuedOn = issuedOn;
    }

    /** The day of each; empty where it has none until a milestone is reached, or a day is set. */
    public static List<Optional<LocalDate>> of(List<Due> dues, LocalDate issuedOn) {
        DueDates dates = new DueDates(issuedOn);
        List<Optional<LocalDate>> days = new ArrayList<>(dues.size());
        dues.forEach(due -> days.add(Optional.ofNullable(dates.next(due))));
        return days;
    }

    /** The day of one that stands alone. */
    public static Optional<LocalDate> of(Due due, LocalDate issuedOn) {
        return of(List.of(due), issuedOn).get(0);
    }

    private LocalDate next(Due due) {
        if (due instanceof Due.Monthly monthly) {
            latest = monthly(monthly);
            return latest;
        }
        LocalDate day = single(due);
        if (day != null) {
            first = day;
            months = 0;
            latest = day;
        }
        return day;
    }

    private LocalDate single(Due due) {
        if (due instanceof Due.AfterIssue after) {
            return issuedOn.plusDays(after.days());
        }
        if (due instanceof Due.AfterMonthEnd after) {
            return issuedOn.with(TemporalAdjusters.lastDayOfMonth()).plusDays(after.days());
        }
        if (due instanceof Due.On on) {
            return on.day();
        }
        return due instanceof Due.TwiceAMonth twice ? twiceAMonth(twice) : null;
    }

    private LocalDate monthly(Due.Monthly monthly) {
        if (monthly.from() != null || first == null) {
            first = monthly.from() == null ? issuedOn : monthly.from();
            months = 0;
            return first;
        }
        months++;
        return first.plusMonths(months);
    }

    private LocalDate twiceAMonth(Due.TwiceAMonth twice) {
        LocalDate from = twice.from();
        if (from == null) {
            from = latest == null ? issuedOn : latest.plusDays(1);
        }
        for (YearMonth month = YearMonth.from(from); ; month = month.plusMonths(1)) {
            LocalDate one = in(month, twice.one());
            LocalDate other = in(month, twice.other());
            if (!one.isBefore(from)) {
                return one;
            }
            if (!other.isBefore(from)) {
                return other;
            }
        }
    }

    private static LocalDate in(YearMonth month, int day) {
        return month.atDay(Math.min(day, month.lengthOfMonth()));
    }
}
