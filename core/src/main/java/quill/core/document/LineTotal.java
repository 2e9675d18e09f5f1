package quill.core.document;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.money.Amounts;

/** A line reckoned: gross = round(quantity x unit price); net = gross - discount, and it is what is printed. */
public record LineTotal(Line line, Money gross, Money discount, Money net) {
    /** How the net was reached. Written only when somebody asks: the words cost more than the sum. */
    public Why why() {
        List<String> steps = new ArrayList<>();
        steps.add(line.quantity().toPlainString() + " × " + line.unitPrice().toPlainString() + " = "
                + Amounts.grouped(gross));
        if (line.discount() instanceof Discount.OfPercent percent) {
            steps.add(percent.percent() + " of " + Amounts.grouped(gross) + " = " + Amounts.grouped(discount));
        }
        if (!discount.isZero()) {
            steps.add(Amounts.grouped(gross) + " − " + Amounts.grouped(discount) + " = " + Amounts.grouped(net));
        }
        return new Why(discount.isZero() ? "quantity × unit price" : "quantity × unit price, less the discount", steps);
    }
}
