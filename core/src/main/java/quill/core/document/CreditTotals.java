package quill.core.document;

import java.math.BigDecimal;
import java.util.List;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.money.Amounts;
import quill.core.tax.TaxTotal;

/**
 * A credit note reckoned: what it takes back, above zero where the invoice's figures are.
 *
 * @param lines what it takes back of the invoice's lines; empty where an amount was taken
 * @param charges what it takes back of the invoice's charges
 * @param groups this note's share of each set of taxes
 * @param income what it takes back, without tax, by category
 * @param rounding the invoice's cash rounding, where this note takes the last of it; else zero
 * @param whole whether nothing of the invoice is left after it
 * @param after all that was taken, this note's included
 */
public record CreditTotals(
        List<Part> lines,
        List<Part> charges,
        List<TaxGroup> groups,
        List<TaxTotal> taxes,
        List<Income> income,
        boolean taxInside,
        Money net,
        Money tax,
        Money total,
        Money rounding,
        boolean whole,
        Taken after) {
    /** A line or charge taken back. @param item its place on the invoice, from 0 */
    public record Part(int item, BigDecimal quantity, Money net, Why why) {}

    /** How the total was reached. */
    public Why totalWhy() {
        return Why.of(
                "net + tax", Amounts.grouped(net) + " + " + Amounts.grouped(tax) + " = " + Amounts.grouped(total));
    }
}
