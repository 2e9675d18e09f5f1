package quill.core.document;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.money.Amounts;

/**
 * A line reckoned: gross = round(quantity x unit price); net = gross - discount, and it is what is printed.
 *
 * @param relief the tax inside the price that an exempt client does not pay; zero for everybody else
 * @param group which of the document's tax groups it belongs to, from 0
 */
public record LineTotal(Line line, Money gross, Money discount, Money relief, Money net, int group) {
    /** How the net was reached. Written only when somebody asks: the words cost more than the sum. */
    public Why why() {
        List<String> steps = new ArrayList<>();
        steps.add(line.quantity().toPlainString() + " × " + line.unitPrice().toPlainString() + " = "
                + Amounts.grouped(gross));
        Money left = gross.minus(discount);
        if (line.discount() instanceof Extent.OfPercent percent) {
            steps.add(percent.percent() + " of " + Amounts.grouped(gross) + " = " + Amounts.grouped(discount));
        }
        if (!discount.isZero()) {
            steps.add(Amounts.grouped(gross) + " − " + Amounts.grouped(discount) + " = " + Amounts.grouped(left));
        }
        if (!relief.isZero()) {
            steps.add("the tax inside it, " + Amounts.grouped(relief) + ", is not charged: " + Amounts.grouped(left)
                    + " − " + Amounts.grouped(relief) + " = " + Amounts.grouped(net));
        }
        return new Why(discount.isZero() ? "quantity × unit price" : "quantity × unit price, less the discount", steps);
    }
}
