package quill.core.document;

import java.math.BigDecimal;
import java.math.RoundingMode;
import org.joda.money.Money;
import quill.core.RefusedException;
import quill.core.money.Amounts;

/**
 * Rounding of what is paid in cash, where a currency's smallest coin is larger than its minor unit (0.05 for the
 * euro in several countries, by their own rules). It touches only what is due, never net or tax.
 *
 * @param step the smallest coin, above zero and in whole minor units
 */
public record CashRounding(Money step) {
    /** @throws RefusedException for a step of zero or less */
    public CashRounding {
        if (!step.isPositive()) {
            throw new RefusedException("cashRounding", Amounts.plain(step), "must be above zero");
        }
    }

    /** What has to be added to reach a multiple of the step; half a step goes away from zero. 5.01 to 0.05: -0.01. */
    public Money of(Money amount) {
        BigDecimal steps = amount.getAmount().divide(step.getAmount(), 0, RoundingMode.HALF_UP);
        return step.multipliedBy(steps, RoundingMode.UNNECESSARY).minus(amount);
    }
}
