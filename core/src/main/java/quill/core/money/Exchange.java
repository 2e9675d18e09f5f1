package quill.core.money;

import java.math.BigDecimal;
import java.math.MathContext;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.RefusedException;

/**
 * Amounts of another currency in the business's own.
 *
 * @param rate what 1 of the other currency is in the own one, above zero
 */
public record Exchange(CurrencyUnit own, BigDecimal rate) {
    private static final BigDecimal LEAST = new BigDecimal("0.000001");
    private static final BigDecimal MOST = new BigDecimal("1000000");

    /** @throws RefusedException for a rate that {@link #refusalOf} refuses */
    public Exchange {
        if (refusalOf(rate) != null) {
            throw new RefusedException("rate", rate.toPlainString(), refusalOf(rate));
        }
    }

    /** What would be allowed, where a rate is beyond what any two currencies have; else null. */
    public static String refusalOf(BigDecimal rate) {
        boolean within = rate.compareTo(LEAST) >= 0 && rate.compareTo(MOST) <= 0;
        return within ? null : rate.signum() <= 0 ? "must be above zero" : "must be from 0.000001 to 1,000,000";
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
     * A sum of the own currency in another: amount / rate, half up to the other's minor unit. What is not zero never
     * becomes zero: it is at least one of that unit.
     */
    public Money into(CurrencyUnit other, Money sum) {
        if (other.equals(own) || sum.isZero()) {
            return other.equals(own) ? sum : Money.zero(other);
        }
        Money there = Amounts.round(other, sum.getAmount().divide(rate, MathContext.DECIMAL128));
        return there.isZero() ? Money.ofMinor(other, sum.isNegative() ? -1 : 1) : there;
    }
}
