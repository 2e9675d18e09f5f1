package quill.core.ledger;

import org.joda.money.Money;

/**
 * What a client owes by its debts and credit, and by the postings alone: always the same.
 *
 * @param open what is open of its debts
 * @param credit what is left of its credit, what waits for a draft included
 * @param deposits what is held for work to come
 * @param byPostings the balance of its postings
 */
public record Agreement(Money open, Money credit, Money deposits, Money byPostings) {
    /** The balance by what is open, less what the client has here. */
    public Money byDebts() {
        return open.minus(credit).minus(deposits);
    }

    /** Whether both are the same. */
    public boolean holds() {
        return byDebts().isEqual(byPostings);
    }
}
