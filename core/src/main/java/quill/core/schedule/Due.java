package quill.core.schedule;

import java.time.LocalDate;
import quill.core.TypedDate;

/** When an installment falls due, as it is agreed; {@link DueDates} makes days of it. */
public sealed interface Due {
    /** The largest day of a month: it stands for the last one, however long the month is. */
    int LAST = 31;

    /** So many days after the day of issue; 0 is on issue. */
    record AfterIssue(int days) implements Due {
        @Override
        public String words() {
            return days == 0 ? "on issue" : count(days) + " after issue";
        }

        @Override
        public String typed() {
            return String.valueOf(days);
        }
    }

    /** So many days after the last day of the month of issue. */
    record AfterMonthEnd(int days) implements Due {
        @Override
        public String words() {
            return days == 0 ? "at the end of the month" : count(days) + " after the end of the month";
        }

        @Override
        public String typed() {
            return days == 0 ? "month end" : "month end + " + days;
        }
    }

    /** On a day. */
    record On(LocalDate day) implements Due {
        @Override
        public String words() {
            return TypedDate.inWords(day);
        }

        @Override
        public String typed() {
            return day.toString();
        }
    }

    /**
     * A month after the installment above it, counted from the first of them, so that the last days of months do not
     * creep: 31 January, 28 February, 31 March.
     *
     * @param from the first day; null where it goes on from the dated installment above, or begins on issue
     */
    record Monthly(LocalDate from) implements Due {
        @Override
        public String words() {
            return from == null ? "monthly" : "monthly from " + TypedDate.inWords(from);
        }

        @Override
        public String typed() {
            return from == null ? "monthly" : "monthly from " + from;
        }
    }

    /**
     * The next of two days of each month after the installment above it.
     *
     * @param one from 1 to 31, before the other; 31 is the last day of any month
     * @param from the day from which they count; null where it goes on from the one above, or begins on issue
     */
    record TwiceAMonth(int one, int other, LocalDate from) implements Due {
        @Override
        public String words() {
            return "the " + one + " and " + day(other) + " of each month"
                    + (from == null ? "" : " from " + TypedDate.inWords(from));
        }

        @Override
        public String typed() {
            return one + " and " + day(other) + (from == null ? "" : " from " + from);
        }

        private static String day(int day) {
            return day == LAST ? "last" : String.valueOf(day);
        }
    }

    /** So many days after the work has reached a named point. */
    record AtMilestone(String name, int days) implements Due {
        @Override
        public String words() {
            return (days == 0 ? "at" : count(days) + " after") + " the milestone “" + name + "”";
        }

        @Override
        public String typed() {
            return "at " + name + (days == 0 ? "" : " + " + days);
        }
    }

    /** Owed, without a day so far; it is never late. */
    record NoDateYet() implements Due {
        @Override
        public String words() {
            return "no date yet";
        }

        @Override
        public String typed() {
            return "no date yet";
        }
    }

    /** As it is said to a person. */
    String words();

    /** As a person would type it; {@link DueReading} reads it back. */
    String typed();

    private static String count(int days) {
        return days + (days == 1 ? " day" : " days");
    }
}
