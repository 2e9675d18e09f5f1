package quill.core.ledger;

import java.util.Comparator;
import org.joda.money.Money;
import quill.core.id.DocumentId;

/**
 * Money that a client has with the business, and where it came from.
 *
 * @param id its key; below zero for one that a decision makes and that is not kept yet
 * @param from the lot that it was split from; 0 for none
 * @param reservedFor the draft that it waits for, and that nothing else takes it from; null for none
 * @param left what of it is there; zero or more
 */
public record Lot(long id, Kind kind, Source source, long from, DocumentId reservedFor, Money left) {
    /** The order in which lots are used: the oldest first, what a decision makes last. */
    static final Comparator<Lot> ORDER =
            Comparator.comparing((Lot l) -> l.id() < 0).thenComparing(l -> Math.abs(l.id()));

    /** What a lot is for. */
    public enum Kind {
        /** It settles whatever is open. */
        CREDIT,
        /** Held for work to come: an invoice deducts it as prepaid. */
        DEPOSIT
    }

    /** Whether it settles what is open by itself. */
    public boolean isFree() {
        return kind == Kind.CREDIT && reservedFor == null && left.isPositive();
    }

    /** The same with another sum left. @throws IllegalArgumentException for one below zero */
    Lot withLeft(Money sum) {
        if (sum.isNegative()) {
            throw new IllegalArgumentException("lot " + id + " (" + left + ") cannot be " + sum);
        }
        return new Lot(id, kind, source, from, reservedFor, sum);
    }
}
