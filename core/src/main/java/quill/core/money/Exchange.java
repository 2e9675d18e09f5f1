package quill.core.money;

import java.math.BigDecimal;
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
}
