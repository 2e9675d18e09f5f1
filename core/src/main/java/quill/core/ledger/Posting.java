package quill.core.ledger;

import java.util.Objects;
import org.joda.money.Money;
import quill.core.id.DocumentId;

/**
 * One side of an entry.
 *
 * @param detail what divides the account: of income what the tax says of it, a tax; empty where nothing does
 * @param category of income, of the business's own; empty for none
 * @param document key of the invoice that it belongs to, or null
 * @param amount a debit above zero, a credit below it; never zero
 */
public record Posting(Account account, String detail, String category, DocumentId document, Money amount) {
    /** One of no category. */
    public Posting(Account account, String detail, DocumentId document, Money amount) {
        this(account, detail, "", document, amount);
    }

    /** @throws IllegalArgumentException for an amount of zero */
    public Posting {
        Objects.requireNonNull(account, "account");
        detail = detail == null ? "" : detail;
        category = category == null ? "" : category;
        if (amount.isZero()) {
            throw new IllegalArgumentException("posting to " + account + " (0) must not be zero");
        }
    }

    /** The same, on the other side. */
    public Posting reversed() {
        return new Posting(account, detail, category, document, amount.negated());
    }
}
