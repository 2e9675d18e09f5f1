package quill.core.money;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.RefusedException;

/**
 * Amounts of another currency in the business's own.
 *
 * @param rate what 1 of the other currency is in the own one, above zero
 */
public record Exchange(CurrencyUnit own, BigDecimal rate) {
    /** @throws RefusedException for a rate of zero or less */
    public Exchange {
        if (rate.signum() <= 0) {
            throw new RefusedException("rate", rate.toPlainString(), "must be above zero");
        }
    }

    /** Within the own currency. */
    public static Exchange none(CurrencyUnit own) {
        return new Exchange(own, BigDecimal.ONE);
    }

    /** round(amount x rate), half up to the own minor unit; an amount in the own currency stays as it is. */
    public Money of(Money amount) {
        return amount.getCurrencyUnit().equals(own)
                ? amount
                : Amounts.round(own, amount.getAmount().multiply(rate));
    }

    /**
     * The sides of one entry. Where they sum to zero, what they are in the own currency does so too: the cent that
     * rounding leaves over goes to the largest side, the earliest of equal ones.
     */
    public List<Money> sides(List<Money> amounts) {
        List<Money> sides = new ArrayList<>(amounts.stream().map(this::of).toList());
        Money over = Amounts.sum(own, sides);
        if (over.isZero()) {
            return sides;
        }
        int largest = 0;
        for (int i = 1; i < sides.size(); i++) {
            if (sides.get(i).abs().isGreaterThan(sides.get(largest).abs())) {
                largest = i;
            }
        }
        sides.set(largest, sides.get(largest).minus(over));
        return sides;
    }
}
