package quill.server.cardorders;

import java.util.Set;
import quill.server.common.StoredWord;

/** How an order at the card processor stands, as we know it. */
public enum OrderState implements StoredWord {
    /** Written here; the processor has not answered yet. */
    WANTED,
    /** Somebody may be paying it. */
    OPEN,
    /** To be withdrawn: for another sum, too old, or one too many. */
    WITHDRAWING,
    /** Ended without money, as far as anybody knows. */
    WITHDRAWN,
    /** A bank debit brings its money, and is not certain yet. */
    UNDERWAY,
    /** A card's money is held. */
    HELD,
    /** What is held is to be taken, or less of it. */
    TAKING,
    /** What is held is to be let go. */
    RELEASING,
    /** The money was taken. */
    PAID;

    /** Those that can still be paid. */
    static final Set<OrderState> LIVE = Set.of(WANTED, OPEN);
    /** Those whose end is not known. */
    static final Set<OrderState> UNENDED = Set.of(WANTED, OPEN, WITHDRAWING, UNDERWAY, HELD, TAKING, RELEASING);
}
