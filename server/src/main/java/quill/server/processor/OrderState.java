package quill.server.processor;

import java.util.Locale;
import java.util.Set;

/** How an order at the card processor stands, as we know it. Stored as its name in small letters. */
enum OrderState {
    /** Written here; the processor has not answered yet. */
    WANTED,
    /** Somebody may be paying it. */
    OPEN,
    /** To be withdrawn: for another sum, too old, or one too many. */
    WITHDRAWING,
    /** Ended without money, as far as anybody knows. */
    WITHDRAWN,
    /** The money was taken. */
    PAID;

    /** Those that can still be paid. */
    static final Set<OrderState> LIVE = Set.of(WANTED, OPEN);
    /** Those whose end is not known. */
    static final Set<OrderState> UNENDED = Set.of(WANTED, OPEN, WITHDRAWING);

    String stored() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** @throws IllegalArgumentException for a word that is no state */
    static OrderState of(String stored) {
        return valueOf(stored.toUpperCase(Locale.ROOT));
    }
}
