package quill.server.debts;

import java.time.LocalDate;
import org.joda.money.Money;
import quill.core.id.DocumentId;
import quill.core.ledger.DebtKind;

/** An installment, or a late fee, as stored. @param note printed beside it: the tax in a fee */
public record StoredInstallment(
        long id,
        DocumentId invoiceId,
        int position,
        DebtKind kind,
        Money amount,
        Money settled,
        Money credited,
        Money open,
        LocalDate dueOn,
        LocalDate orderOn,
        LocalDate settledOn,
        String note) {
    /** Whether it is asked for whole, before the work begins. */
    public boolean deposit() {
        return kind == DebtKind.DEPOSIT;
    }

    /** What of it was given up. */
    public Money writtenOff() {
        return amount.minus(settled).minus(credited).minus(open);
    }

    /** Whether lateness added it. */
    public boolean fee() {
        return kind.isAdded();
    }
}
