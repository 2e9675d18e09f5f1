package quill.core.document;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.money.Amounts;
import quill.core.tax.Tax;

/**
 * What one document has billed of a job, less what credit notes took back of it. A job is what was agreed once and is
 * billed by several documents: deposit invoices, invoices in stages, a final one.
 *
 * @param taxInside whether what stands in the groups, as priced, contains the tax
 * @param groups by sets of taxes; as priced all of it counts as lines
 */
public record Billed(boolean taxInside, List<TaxGroup> groups) {
    /** Copies the groups. */
    public Billed {
        groups = List.copyOf(groups);
    }

    /** What is left of an issued document. @param takenBack by its credit notes */
    public static Billed of(Creditable document, Taken takenBack) {
        CurrencyUnit currency = document.currency();
        Money zero = Money.zero(currency);
        List<TaxGroup> left = new ArrayList<>();
        for (int g = 0; g < document.groups().size(); g++) {
            TaxGroup group = document.groups().get(g);
            Taken.Group taken = takenBack.groups().get(g);
            Money sum = group.sum().minus(Money.ofMinor(currency, taken.sum()));
            List<Money> amounts = new ArrayList<>();
            for (int i = 0; i < group.amounts().size(); i++) {
                amounts.add(group.amounts()
                        .get(i)
                        .minus(Money.ofMinor(currency, taken.taxes().get(i))));
            }
            Money tax = Amounts.sum(currency, amounts);
            left.add(
                    new TaxGroup(group.taxes(), sum, zero, zero, document.taxInside() ? sum.minus(tax) : sum, amounts));
        }
        return new Billed(document.taxInside(), left);
    }

    /** What it comes to, tax included. */
    public Money total(CurrencyUnit currency) {
        return Amounts.sum(currency, groups.stream().map(TaxGroup::total).toList());
    }

    /** Whether nothing of it is left. */
    public boolean isNothing() {
        return groups.stream().allMatch(g -> g.sum().isZero() && g.tax().isZero());
    }

    /** What several have billed under a set of taxes, as priced. */
    static Money sum(List<Billed> before, boolean taxInside, List<Tax> taxes, CurrencyUnit currency) {
        return Amounts.sum(
                currency,
                under(before, taxInside, taxes).stream().map(TaxGroup::sum).toList());
    }

    /** What several have billed of each tax of a set. */
    static List<Money> taxes(List<Billed> before, boolean taxInside, List<Tax> taxes, CurrencyUnit currency) {
        List<Money> sums = new ArrayList<>();
        for (int i = 0; i < taxes.size(); i++) {
            int place = i;
            sums.add(Amounts.sum(
                    currency,
                    under(before, taxInside, taxes).stream()
                            .map(g -> g.amounts().get(place))
                            .toList()));
        }
        return sums;
    }

    /** A set is the same only at the same rates: what was billed before a rate changed stays as it was. */
    private static List<TaxGroup> under(List<Billed> before, boolean taxInside, List<Tax> taxes) {
        return before.stream()
                .filter(b -> b.taxInside() == taxInside)
                .flatMap(b -> b.groups().stream())
                .filter(g -> g.taxes().equals(taxes))
                .toList();
    }
}
