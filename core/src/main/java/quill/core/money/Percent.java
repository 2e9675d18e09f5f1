package quill.core.money;

import java.math.BigDecimal;
import org.joda.money.Money;
import quill.core.RefusedException;

/**
 * A rate in percent, from 0 to 100, with at most 4 decimals.
 *
 * @param rate the percentage itself: 21 for 21 %
 */
public record Percent(BigDecimal rate) {
    private static final int MAX_DECIMALS = 4;
    private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);

    /** @throws RefusedException outside 0 to 100, or with more than 4 decimals */
    public Percent {
        rate = rate.stripTrailingZeros();
        if (rate.scale() < 0) {
            rate = rate.setScale(0);
        }
        if (rate.signum() < 0 || rate.compareTo(HUNDRED) > 0 || rate.scale() > MAX_DECIMALS) {
            throw new RefusedException(
                    "percent", rate.toPlainString(), "must be from 0 to 100 with at most 4 decimals");
        }
    }

    /** From text such as {@code 9.975}. */
    public static Percent of(String text) {
        return new Percent(new BigDecimal(text));
    }

    /** The rate as a factor: 0.21 for 21 %. Exact. */
    public BigDecimal factor() {
        return rate.movePointLeft(2);
    }

    /** round(percent of amount), half up on the absolute value: 10 % of 986.00 is 98.60. */
    public Money of(Money amount) {
        return Amounts.round(amount.getCurrencyUnit(), amount.getAmount().multiply(factor()));
    }

    @Override
    public String toString() {
        return rate.toPlainString() + "%";
    }
}
