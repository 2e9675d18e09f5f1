package quill.core.pay;

import java.time.LocalDate;
import quill.core.RefusedException;
import quill.core.TypedDate;

/**
 * The days on which a client may have an open sum taken from what is kept of it, instead of paying now: from tomorrow until so
 * many days after it is due, or after today where it was due before. Until the day before it can be taken back.
 *
 * @param due when the last of what is paid falls due; null where that is not known yet
 * @param days so many, from 1
 */
public record PayingLater(LocalDate today, LocalDate due, int days) {
    /** The longest that a business can allow. */
    public static final int MOST_DAYS = 60;

    /** The first day. */
    public LocalDate first() {
        return today.plusDays(1);
    }

    /** The last day. */
    public LocalDate last() {
        return (due == null || due.isBefore(today) ? today : due).plusDays(days);
    }

    /** @throws RefusedException naming {@code on}, with what is allowed */
    public LocalDate check(LocalDate on) {
        if (on.isBefore(first()) || on.isAfter(last())) {
            throw new RefusedException(
                    "on", on, "must be from " + TypedDate.inWords(first()) + " to " + TypedDate.inWords(last()));
        }
        return on;
    }

    /** Whether what is planned for a day can still be taken back. */
    public static boolean canBeTakenBack(LocalDate on, LocalDate today) {
        return today.isBefore(on);
    }
}
