package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Currency;
import java.util.Locale;

/** Amounts as they are written. */
final class Sums {
    private Sums() {}

    /** For people: {@code EUR 1,234.50}. */
    static String shown(BigDecimal amount, String currency) {
        return currency + " " + String.format(Locale.ROOT, "%,." + decimals(currency) + "f", amount);
    }

    /** For programs, with the currency's decimals. */
    static String plain(BigDecimal amount, String currency) {
        return amount.setScale(decimals(currency), RoundingMode.UNNECESSARY).toPlainString();
    }

    static int decimals(String currency) {
        return Currency.getInstance(currency).getDefaultFractionDigits();
    }
}
