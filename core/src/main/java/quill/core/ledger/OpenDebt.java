package quill.core.ledger;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.Objects;
import org.joda.money.Money;
import quill.core.id.DocumentId;

/**
 * An installment or a late fee with money still open.
 *
 * @param id key of the debt
 * @param document key of its invoice
 * @param number its invoice's number
 * @param fee whether it is a late fee
 * @param dueOn for a late fee the day it was charged; null where it has no date yet: it is not late then
 * @param orderOn the day that it stands at in the order of settling: its due date, or after all others while it has none
 */
public record OpenDebt(
        long id,
        DocumentId document,
        String number,
        int position,
        boolean fee,
        LocalDate dueOn,
        LocalDate orderOn,
        Money open) {
    /** Where one stands that has no date yet: money settles what has a day first. */
    public static final LocalDate AFTER_ALL = LocalDate.of(9999, 12, 31);

    /** The day at which one stands in the order of settling. @param dueOn null where it has none */
    public static LocalDate orderOf(LocalDate dueOn) {
        return dueOn == null ? AFTER_ALL : dueOn;
    }

    /** One with a due date. */
    public OpenDebt(
            long id, DocumentId document, String number, int position, boolean fee, LocalDate dueOn, Money open) {
        this(id, document, number, position, fee, dueOn, dueOn, open);
    }

    /** @throws NullPointerException without a day to order it by */
    public OpenDebt {
        Objects.requireNonNull(orderOn, "orderOn");
    }

    /** The order in which money settles debts: due date (without one, the day that stands for it), installments before fees, document number, installment. */
    public static final Comparator<OpenDebt> ORDER = Comparator.comparing(OpenDebt::orderOn)
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
        return new OpenDebt(id, document, number, position, fee, dueOn, orderOn, sum);
    }
}
