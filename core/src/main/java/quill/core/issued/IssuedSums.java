package quill.core.issued;

import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.document.TaxGroup;
import quill.core.document.Totals;
import quill.core.tax.TaxTotal;

/**
 * What an issued document comes to: total = net + tax; due = total - prepaid + rounding.
 *
 * @param groups the document by sets of taxes
 * @param taxInside whether the lines contain the tax
 * @param rounding what cash rounding adds
 */
public record IssuedSums(
        List<TaxTotal> taxes,
        List<TaxGroup> groups,
        boolean taxInside,
        Reckoned net,
        Reckoned tax,
        Reckoned total,
        Reckoned prepaid,
        Reckoned rounding,
        Reckoned due) {
    /** @throws IllegalArgumentException where a sum is not what its parts come to */
    public IssuedSums {
        taxes = List.copyOf(taxes);
        groups = List.copyOf(groups);
        Money zero = Money.zero(total.amount().getCurrencyUnit());
        same("the nets of the sets of taxes", groups.stream().map(TaxGroup::net).reduce(zero, Money::plus), net);
        same("the taxes of the sets", groups.stream().map(TaxGroup::tax).reduce(zero, Money::plus), tax);
        same("the taxes", taxes.stream().map(TaxTotal::amount).reduce(zero, Money::plus), tax);
        same("net and tax", net.amount().plus(tax.amount()), total);
        same(
                "total, less prepaid, and rounding",
                total.amount().minus(prepaid.amount()).plus(rounding.amount()),
                due);
    }

    /** What a reckoned draft comes to. */
    public static IssuedSums of(Totals t) {
        return new IssuedSums(
                t.taxes(),
                t.groups(),
                t.taxInside(),
                new Reckoned(t.net(), t.netWhy()),
                new Reckoned(t.tax(), t.taxWhy()),
                new Reckoned(t.total(), t.totalWhy()),
                new Reckoned(t.prepaid(), Why.of("deposits held before, deducted here")),
                new Reckoned(t.rounding(), t.roundingWhy()),
                new Reckoned(t.due(), t.dueWhy()));
    }

    private static void same(String what, Money sum, Reckoned said) {
        if (!sum.isEqual(said.amount())) {
            throw new IllegalArgumentException(what + " come to " + sum + ", not " + said.amount());
        }
    }

    /** The document's. */
    public CurrencyUnit currency() {
        return total.amount().getCurrencyUnit();
    }
}
