package quill.core.document;

import java.math.BigDecimal;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;

/**
 * An issued invoice, as far as taking it back needs it.
 *
 * @param taxInside whether lines and charges contain the tax
 * @param groups its sets of taxes, with the final figures of each
 * @param rounding what cash rounding added; it goes back with the last of the invoice
 */
public record Creditable(
        CurrencyUnit currency,
        boolean taxInside,
        List<Item> lines,
        List<Item> charges,
        List<TaxGroup> groups,
        Money rounding) {
    /**
     * A line or a charge.
     *
     * @param quantity 1 for a charge
     * @param net as printed
     * @param group its set of taxes, from 0
     */
    public record Item(BigDecimal quantity, Money net, int group) {}

    /** Copies the lists. */
    public Creditable {
        lines = List.copyOf(lines);
        charges = List.copyOf(charges);
        groups = List.copyOf(groups);
    }

    /** From the totals it was issued with. */
    public static Creditable of(Totals t) {
        return new Creditable(
                t.total().getCurrencyUnit(),
                t.taxInside(),
                t.lines().stream()
                        .map(l -> new Item(l.line().quantity(), l.net(), l.group()))
                        .toList(),
                t.charges().stream()
                        .map(c -> new Item(
                                BigDecimal.ONE, c.amount(), c.parts().get(0).group()))
                        .toList(),
                t.groups(),
                t.rounding());
    }

    /** Net and tax of all groups. */
    public Money total() {
        return groups.stream().map(TaxGroup::total).reduce(Money.zero(currency), Money::plus);
    }
}
