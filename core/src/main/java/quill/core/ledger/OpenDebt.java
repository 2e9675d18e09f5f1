package quill.core.ledger;

import java.time.LocalDate;
import java.util.Comparator;
import org.joda.money.Money;

/**
 * An installment with money still open.
 *
 * @param id key of the installment
 * @param document key of its invoice
 * @param number its invoice's number
 */
public record OpenDebt(long id, long document, String number, int position, LocalDate dueOn, Money open) {
    /** The order in which money settles debts: due date, document number, installment. */
    public static final Comparator<OpenDebt> ORDER = Comparator.comparing(OpenDebt::dueOn)
            .thenComparing(OpenDebt::number)
            .thenComparingInt(OpenDebt::position)
            .thenComparingLong(OpenDebt::id);
}
