package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.math.RoundingMode;

/**
 * What the counting house keeps. Of a card payment 2.9 % + 0.30, of a bank debit 1 %, never more than the payment (common
 * practice); what goes back returns none of it.
 */
final class Fee {
    private static final BigDecimal CARD_RATE = new BigDecimal("0.029");
    private static final BigDecimal CARD_FIXED = new BigDecimal("0.30");
    private static final BigDecimal DEBIT_RATE = new BigDecimal("0.01");
    /** For a bank debit that came back (value from memory). */
    private static final BigDecimal RETURNED = new BigDecimal("3.50");
    /** For a payment that the payer's bank took back (value from memory). */
    private static final BigDecimal CONTESTED = new BigDecimal("15.00");

    private Fee() {}

    /** Rounded half up to the currency's minor unit: 100.00 by card gives 3.20. */
    static BigDecimal of(String way, BigDecimal amount, String currency) {
        int decimals = Sums.decimals(currency);
        BigDecimal fee = "debit".equals(way)
                ? rounded(amount.multiply(DEBIT_RATE), decimals)
                : rounded(amount.multiply(CARD_RATE), decimals).add(rounded(CARD_FIXED, decimals));
        return fee.min(amount);
    }

    static BigDecimal ofReturn(String currency) {
        return rounded(RETURNED, Sums.decimals(currency));
    }

    static BigDecimal ofContest(String currency) {
        return rounded(CONTESTED, Sums.decimals(currency));
    }

    private static BigDecimal rounded(BigDecimal sum, int decimals) {
        return sum.setScale(decimals, RoundingMode.HALF_UP);
    }
}
