package quill.core.document;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.money.Amounts;
import quill.core.tax.Tax;

/**
 * A document discount or a charge reckoned.
 *
 * @param base the sum of the lines
 * @param relief the tax inside it that an exempt client does not pay; zero for everybody else
 * @param amount what it lowers or raises the document by, after any relief
 * @param parts how it falls on the sets of taxes; a charge has one
 */
public record ExtraTotal(String description, Extent extent, Money base, Money relief, Money amount, List<Part> parts) {
    /** What falls on one set of taxes. @param group which of the document's tax groups, from 0 */
    public record Part(int group, List<Tax> taxes, Money amount) {}

    /** Copies the parts. */
    public ExtraTotal {
        parts = List.copyOf(parts);
    }

    /** How the amount was reached. */
    public Why why() {
        Money full = amount.plus(relief);
        boolean percentage = extent instanceof Extent.OfPercent;
        List<String> steps = new ArrayList<>();
        if (extent instanceof Extent.OfPercent p) {
            steps.add(p.percent() + " of " + Amounts.grouped(base) + " = " + Amounts.grouped(full));
        } else {
            steps.add(Amounts.grouped(full));
        }
        if (!relief.isZero()) {
            steps.add("the tax inside it is not charged: " + Amounts.grouped(full) + " − " + Amounts.grouped(relief)
                    + " = " + Amounts.grouped(amount));
        }
        if (parts.size() > 1) {
            parts.forEach(p -> steps.add("of which on "
                    + p.taxes().stream().map(Tax::name).collect(Collectors.joining(" and ")) + ": "
                    + Amounts.grouped(p.amount())));
        }
        return new Why(percentage ? "a percentage of the lines" : "a fixed sum", steps);
    }
}
