package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Currency;

/** What the counting house keeps of a payment: 2.9 % + 0.30 (common practice), never more than the payment. */
final class Fee {
    private static final BigDecimal RATE = new BigDecimal("0.029");
    private static final BigDecimal FIXED = new BigDecimal("0.30");

    private Fee() {}

    /** Rounded half up to the currency's minor unit: 100.00 gives 3.20. */
    static BigDecimal of(BigDecimal amount, String currency) {
        int decimals = Currency.getInstance(currency).getDefaultFractionDigits();
        return amount.multiply(RATE)
                .setScale(decimals, RoundingMode.HALF_UP)
                .add(FIXED.setScale(decimals, RoundingMode.HALF_UP))
                .min(amount);
    }
}
