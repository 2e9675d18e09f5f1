package quill.core.acts;

import java.time.LocalDate;

/** What holds up to and with a day. */
final class Until {
    private Until() {}

    /** @param last null where it does not hold at all */
    static boolean holds(LocalDate last, LocalDate day) {
        return last != null && !day.isAfter(last);
    }
}
