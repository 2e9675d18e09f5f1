package quill.core.document;

import java.math.BigDecimal;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.money.Amounts;

/**
 * An issued invoice, as far as taking it back needs it.
 *
 * @param taxInside whether lines and charges contain the tax
 * @param groups its sets of taxes, with the final figures of each
 * @param rounding what cash rounding added; it goes back with the last of the invoice
 * @param deducted what it takes off for deposit invoices, without tax, for each set of taxes; empty for nothing
 */
public record Creditable(
        CurrencyUnit currency,
        boolean taxInside,
        List<Item> lines,
        List<Item> charges,
        List<TaxGroup> groups,
        Money rounding,
        List<Money> deducted) {
    /** One that deducts nothing. */
    public Creditable(
            CurrencyUnit currency,
            boolean taxInside,
            List<Item> lines,
            List<Item> charges,
            List<TaxGroup> groups,
            Money rounding) {
        this(currency, taxInside, lines, charges, groups, rounding, List.of());
    }

    /**
     * A line or a charge.
     *
     * @param quantity 1 for a charge
     * @param net as printed
     * @param group its set of taxes, from 0
     * @param category of income, of the business's own; empty for none
     */
    public record Item(BigDecimal quantity, Money net, int group, String category) {
        /** No category is an empty one. */
        public Item {
            category = category == null ? "" : category;
        }

        /** Whether it bills a deposit, or takes one off. */
        boolean isDeposit() {
            return category.equals(Income.DEPOSITS);
        }

        /** One of no category. */
        public Item(BigDecimal quantity, Money net, int group) {
            this(quantity, net, group, "");
        }

        /** What so much of it comes to: round(net x quantity taken / quantity). */
        Money taken(BigDecimal quantityTaken) {
            if (quantity.signum() == 0 || quantityTaken.compareTo(quantity) == 0) {
                return quantityTaken.signum() == 0 ? Money.zero(net.getCurrencyUnit()) : net;
            }
            return Amounts.share(net, quantityTaken, quantity);
        }
    }

    /** Copies the lists. */
    public Creditable {
        lines = List.copyOf(lines);
        charges = List.copyOf(charges);
        groups = List.copyOf(groups);
        deducted = List.copyOf(deducted);
    }

    /** From the totals it was issued with. */
    public static Creditable of(Totals t) {
        return of(t, List.of());
    }

    /** The same of one that deducts deposit invoices. */
    public static Creditable of(Totals t, List<Money> deducted) {
        return new Creditable(
                t.total().getCurrencyUnit(),
                t.taxInside(),
                t.lines().stream()
                        .map(l -> new Item(
                                l.line().quantity(),
                                l.net(),
                                l.group(),
                                l.line().category()))
                        .toList(),
                t.charges().stream()
                        .map(c -> new Item(
                                BigDecimal.ONE, c.amount(), c.parts().get(0).group()))
                        .toList(),
                t.groups(),
                t.rounding(),
                deducted);
    }

    /** What is left of a line, as printed. */
    public Money left(int line, Taken takenBack) {
        Item item = lines.get(line);
        return item.net().minus(item.taken(takenBack.lines().get(line)));
    }

    /** What is taken off for deposit invoices in a set of taxes, without tax. */
    Money deducted(int group) {
        return group < deducted.size() ? deducted.get(group) : Money.zero(currency);
    }

    /** Net and tax of all groups. */
    public Money total() {
        return groups.stream().map(TaxGroup::total).reduce(Money.zero(currency), Money::plus);
    }
}
