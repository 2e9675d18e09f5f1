package quill.standins.countinghouse;

import java.time.DayOfWeek;
import java.time.LocalDate;

/** Days on which banks work: all but Saturdays and Sundays. */
final class WorkingDays {
    private WorkingDays() {}

    static boolean is(LocalDate day) {
        return day.getDayOfWeek() != DayOfWeek.SATURDAY && day.getDayOfWeek() != DayOfWeek.SUNDAY;
    }

    /** So many working days later. */
    static LocalDate after(LocalDate day, int days) {
        LocalDate later = day;
        for (int left = days; left > 0; ) {
            later = later.plusDays(1);
            if (is(later)) {
                left--;
            }
        }
        return later;
    }
}
