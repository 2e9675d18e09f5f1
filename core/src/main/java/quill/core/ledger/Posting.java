package quill.core.ledger;

import java.util.Objects;
import org.joda.money.Money;

/**
 * One side of an entry.
 *
 * @param detail what divides the account: a category of income, a tax; empty where nothing does
 * @param document key of the invoice that it belongs to, or null
 * @param amount a debit above zero, a credit below it; never zero
 */
public record Posting(Account account, String detail, Long document, Money amount) {
    /** @throws IllegalArgumentException for an amount of zero */
    public Posting {
        Objects.requireNonNull(account, "account");
        detail = detail == null ? "" : detail;
        if (amount.isZero()) {
            throw new IllegalArgumentException("posting to " + account + " (0) must not be zero");
        }
    }

    /** The same, on the other side. */
    public Posting reversed() {
        return new Posting(account, detail, document, amount.negated());
    }
}
