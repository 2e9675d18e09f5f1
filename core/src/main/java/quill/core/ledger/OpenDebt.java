package quill.core.ledger;

import java.time.LocalDate;
import java.util.Comparator;
import org.joda.money.Money;
import quill.core.id.DocumentId;

/**
 * An installment or a late fee with money still open.
 *
 * @param id key of the debt
 * @param document key of its invoice
 * @param number its invoice's number
 * @param fee whether it is a late fee
 * @param dueOn for a late fee the day it was charged
 */
public record OpenDebt(
        long id, DocumentId document, String number, int position, boolean fee, LocalDate dueOn, Money open) {
    /** The order in which money settles debts: due date, installments before fees, document number, installment. */
    public static final Comparator<OpenDebt> ORDER = Comparator.comparing(OpenDebt::dueOn)
            .thenComparing(OpenDebt::fee)
            .thenComparing(OpenDebt::number)
            .thenComparingInt(OpenDebt::position)
            .thenComparingLong(OpenDebt::id);

    /**
     * The order of a business that chose fees first: every fee before every installment, as the United States rule
     * takes interest before principal (Story v. Livingston, 1839; value from memory).
     */
    public static final Comparator<OpenDebt> FEES_FIRST =
            Comparator.comparing(OpenDebt::fee).reversed().thenComparing(ORDER);

    /** The same with another sum open. */
    public OpenDebt withOpen(Money sum) {
        return new OpenDebt(id, document, number, position, fee, dueOn, sum);
    }
}
