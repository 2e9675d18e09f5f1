package quill.core.document;

import java.util.List;
import org.joda.money.Money;
import quill.core.tax.Tax;

/**
 * What bears one ordered set of taxes. Lines, discount and charges are as priced, with the tax inside where the
 * document's prices have it so; {@code net} is without it.
 *
 * @param discount this set's share of the document discounts
 * @param amounts what each tax of the set comes to on this group, in the set's order; over all groups they sum to the
 *     document's tax
 */
public record TaxGroup(List<Tax> taxes, Money lines, Money discount, Money charges, Money net, List<Money> amounts) {
    /** Copies the lists. */
    public TaxGroup {
        taxes = List.copyOf(taxes);
        amounts = List.copyOf(amounts);
    }

    /** Lines less discount plus charges, as priced. */
    public Money sum() {
        return lines.minus(discount).plus(charges);
    }

    /** All taxes of the group. */
    public Money tax() {
        return amounts.stream().reduce(Money.zero(net.getCurrencyUnit()), Money::plus);
    }

    /** Net and tax. */
    public Money total() {
        return net.plus(tax());
    }
}
