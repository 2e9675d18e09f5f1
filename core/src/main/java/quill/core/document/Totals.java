package quill.core.document;

import java.util.List;
import java.util.stream.Collectors;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.money.Amounts;
import quill.core.tax.TaxTotal;

/**
 * A document reckoned; total = net + tax, each of them already rounded and shown.
 *
 * @param taxInside whether the lines contain the tax
 */
public record Totals(
        List<LineTotal> lines, List<TaxTotal> taxes, boolean taxInside, Money net, Money tax, Money total) {
    private static final int SHOWN = 12;

    /** How the net was reached. */
    public Why netWhy() {
        if (taxInside) {
            return Why.of(
                    "the lines, less the tax inside them",
                    Amounts.grouped(total) + " − " + Amounts.grouped(tax) + " = " + Amounts.grouped(net));
        }
        String sum =
                lines.stream().limit(SHOWN).map(l -> Amounts.grouped(l.net())).collect(Collectors.joining(" + "));
        String rest = lines.size() > SHOWN ? " + … (" + lines.size() + " lines)" : "";
        return Why.of("the sum of the lines", sum + rest + " = " + Amounts.grouped(net));
    }

    /** How the tax was reached. */
    public Why taxWhy() {
        return Why.of(
                "the sum of the taxes, each as shown",
                taxes.stream()
                                .map(t -> t.tax().name() + " " + Amounts.grouped(t.amount()))
                                .collect(Collectors.joining(" + "))
                        + " = " + Amounts.grouped(tax));
    }

    /** How the total was reached. */
    public Why totalWhy() {
        return Why.of(
                "net + tax", Amounts.grouped(net) + " + " + Amounts.grouped(tax) + " = " + Amounts.grouped(total));
    }
}
