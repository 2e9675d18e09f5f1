package quill.server.common;

import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.money.Amounts;

/** Money as it travels: decimal text with the currency's own decimals, and the ISO 4217 code. Never a JSON number. */
public record Amount(String amount, String currency) {
    /** From money. */
    public static Amount of(Money money) {
        return new Amount(Amounts.plain(money), money.getCurrencyUnit().getCode());
    }

    /** From stored minor units. */
    public static Amount ofMinor(String currency, long minor) {
        return of(Money.ofMinor(CurrencyUnit.of(currency), minor));
    }

    /** Back to money. */
    public Money money() {
        return Money.of(CurrencyUnit.of(currency), new java.math.BigDecimal(amount));
    }
}
