package quill.server.debts;

import java.time.LocalDate;
import org.joda.money.Money;
import quill.core.id.DocumentId;

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
        LocalDate settledOn,
        String note,
        String whyJson) {
    /** Whether it is asked for whole, before the work begins. */
    public boolean deposit() {
        return kind == DebtKind.DEPOSIT;
    }

    /** Whether it is a late fee. */
    public boolean fee() {
        return kind == DebtKind.LATE_FEE;
    }
}
