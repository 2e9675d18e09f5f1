package quill.core.document;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.latefee.FeeTax;
import quill.core.money.Amounts;
import quill.core.tax.TaxTotal;

/**
 * A document reckoned: total = net + tax; due = total - prepaid + rounding; each of them already rounded and shown.
 *
 * @param groups the document by sets of taxes; their totals sum to the total
 * @param taxInside whether the lines, as they stand here, contain the tax
 * @param rounding what cash rounding adds; zero unless the client pays in cash
 * @param due what is asked for in the end
 */
public record Totals(
        List<LineTotal> lines,
        List<ExtraTotal> discounts,
        List<ExtraTotal> charges,
        List<TaxTotal> taxes,
        List<TaxGroup> groups,
        boolean taxInside,
        Money net,
        Money tax,
        Money total,
        Money prepaid,
        Money rounding,
        Money due) {
    private static final int SHOWN = 12;

    /** The taxes that a late fee on this invoice bears, where fees do: by the sets with a positive sum. */
    public FeeTax feeTax() {
        return new FeeTax(
                true,
                taxInside,
                groups.stream()
                        .filter(g -> g.sum().isPositive())
                        .map(g -> new FeeTax.Share(g.taxes(), g.sum().getAmount()))
                        .toList());
    }

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
        StringBuilder step = new StringBuilder(sum + rest);
        discounts.forEach(d -> step.append(" − ").append(Amounts.grouped(d.amount())));
        charges.forEach(c -> step.append(" + ").append(Amounts.grouped(c.amount())));
        boolean extras = !discounts.isEmpty() || !charges.isEmpty();
        return Why.of(
                extras ? "the sum of the lines, less discounts, plus charges" : "the sum of the lines",
                step + " = " + Amounts.grouped(net));
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

    /** How the rounding was reached. */
    public Why roundingWhy() {
        Money exact = total.minus(prepaid);
        return Why.of(
                "paid in cash, rounded to the smallest coin",
                Amounts.grouped(due) + " − " + Amounts.grouped(exact) + " = " + Amounts.grouped(rounding));
    }

    /** How what is due was reached. */
    public Why dueWhy() {
        List<String> steps = new ArrayList<>();
        steps.add(Amounts.grouped(total) + " − " + Amounts.grouped(prepaid) + " + " + Amounts.grouped(rounding) + " = "
                + Amounts.grouped(due));
        return new Why("total − prepaid + rounding", steps);
    }
}
