package quill.core.issued;

import java.util.List;
import java.util.Objects;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.document.Extent;
import quill.core.document.ExtraTotal;

/**
 * A discount on the whole, or a charge.
 *
 * @param base the sum of the lines
 * @param amount what it lowers or raises the document by
 * @param parts how it falls on the sets of taxes
 */
public record IssuedExtra(String description, Extent extent, Money base, Money amount, List<Part> parts, Why why) {
    /** What of it falls on one set of taxes. @param group from 0 */
    public record Part(int group, Money amount) {}

    /** One as it was reckoned. */
    static IssuedExtra of(ExtraTotal e) {
        return new IssuedExtra(
                e.description(),
                e.extent(),
                e.base(),
                e.amount(),
                e.parts().stream().map(p -> new Part(p.group(), p.amount())).toList(),
                e.why());
    }

    /** @throws IllegalArgumentException where its parts do not sum to it */
    public IssuedExtra {
        Objects.requireNonNull(description);
        Objects.requireNonNull(extent);
        Objects.requireNonNull(base);
        Objects.requireNonNull(why);
        parts = List.copyOf(parts);
        Money sum = parts.stream().map(Part::amount).reduce(Money.zero(amount.getCurrencyUnit()), Money::plus);
        if (!sum.isEqual(amount)) {
            throw new IllegalArgumentException("the parts of " + description + " sum to " + sum + ", not " + amount);
        }
    }
}
