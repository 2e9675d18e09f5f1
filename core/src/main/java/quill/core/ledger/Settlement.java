package quill.core.ledger;

import java.util.Objects;
import org.joda.money.Money;

/**
 * A change of what is open of a debt: above zero lowers it, below zero opens it again. Nothing is ever changed in one; what
 * no longer holds is taken back by another, which names it.
 *
 * @param id its key; 0 for one that is not kept yet
 * @param lot the client credit that it came out of; 0 for none
 * @param amount of one that stands what of it was not taken back
 * @param reverses key of the one that it takes back; 0 for none
 */
public record Settlement(long id, Kind kind, OpenDebt debt, Source source, long lot, Money amount, long reverses) {
    /** The sums that are kept of a debt. */
    public enum Sum {
        /** Money, and credit that was money. */
        SETTLED,
        /** Taken off by a credit note, or waived. */
        CREDITED,
        /** Given up. */
        WRITTEN_OFF
    }

    /** Why what is open changes. */
    public enum Kind {
        PAID(Sum.SETTLED),
        COVERED(Sum.SETTLED),
        /** From one debt to another, or from a debt to client credit. */
        MOVED(Sum.SETTLED),
        UNDONE(Sum.SETTLED),
        REFUNDED(Sum.SETTLED),
        CHARGED_BACK(Sum.SETTLED),
        CREDITED(Sum.CREDITED),
        WAIVED(Sum.CREDITED),
        /** Let off for paying early. */
        LET_OFF(Sum.CREDITED),
        /** Asked for again, since what was paid early went back. */
        ASKED_AGAIN(Sum.CREDITED),
        WRITTEN_OFF(Sum.WRITTEN_OFF),
        /** Owed again after it had been given up. */
        OWED_AGAIN(Sum.WRITTEN_OFF);

        private final Sum sum;

        Kind(Sum sum) {
            this.sum = sum;
        }

        /** Which sum of the debt it changes. */
        public Sum sum() {
            return sum;
        }
    }

    /** @throws IllegalArgumentException for an amount of zero */
    public Settlement {
        Objects.requireNonNull(kind, "kind");
        if (amount.isZero()) {
            throw new IllegalArgumentException("a settlement of debt " + debt.id() + " must not be zero");
        }
    }

    /** One that takes another back, or a part of it. */
    static Settlement takingBack(Settlement stands, Kind why, Money part) {
        return new Settlement(0, why, stands.debt, stands.source, stands.lot, part.negated(), stands.id);
    }

    /** The same of less. */
    public Settlement withAmount(Money part) {
        return new Settlement(id, kind, debt, source, lot, part, reverses);
    }

    /** As a part of what an entry is about. */
    Appropriation.Part part() {
        return new Appropriation.Part(debt, amount.abs());
    }
}
