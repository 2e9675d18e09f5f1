package quill.core.ledger;

import org.joda.money.CurrencyUnit;
import org.joda.money.Money;

/**
 * What a payer gives on top of what it pays: a tip, and what is asked of it for paying by card. Neither settles anything.
 *
 * @param tip outside tax (common practice: it is given of one's own will)
 * @param surcharge net
 * @param tax on the surcharge
 * @param taxId which tax that is; empty for none
 */
public record OnTop(Money tip, Money surcharge, Money tax, String taxId) {
    /** @throws IllegalArgumentException for what is below zero, in two currencies, or taxed by no tax */
    public OnTop {
        boolean fits = tip.isSameCurrency(surcharge) && tip.isSameCurrency(tax);
        boolean below = tip.isNegative() || surcharge.isNegative() || tax.isNegative();
        if (!fits || below || tax.isPositive() && taxId.isEmpty()) {
            throw new IllegalArgumentException(tip + ", " + surcharge + ", " + tax + " of " + taxId);
        }
    }

    /** Nothing. */
    public static OnTop nothing(CurrencyUnit currency) {
        Money zero = Money.zero(currency);
        return new OnTop(zero, zero, zero, "");
    }

    /** With a tip. */
    public OnTop withTip(Money given) {
        return new OnTop(given, surcharge, tax, taxId);
    }

    /** The surcharge with its tax. */
    public Money charged() {
        return surcharge.plus(tax);
    }

    /** All of it. */
    public Money sum() {
        return tip.plus(charged());
    }

    /** Whether there is anything. */
    public boolean isAny() {
        return sum().isPositive();
    }
}
