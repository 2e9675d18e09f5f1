package quill.server.common;

import java.math.BigDecimal;
import java.math.RoundingMode;
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

    /** For drawing only: a share in thousandths, at least 1 where there is any. */
    public static int thousandths(Money part, Money whole) {
        if (part.isZero()) {
            return 0;
        }
        BigDecimal share = part.getAmount().movePointRight(3).divide(whole.getAmount(), 0, RoundingMode.HALF_UP);
        return Math.max(1, share.intValue());
    }
}
