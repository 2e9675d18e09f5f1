package quill.core.money;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Collection;
import org.joda.money.CurrencyMismatchException;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;

/** What joda-money leaves to the caller: this project's one way of rounding, sums, and plain text. */
public final class Amounts {
    private Amounts() {}

    /**
     * Rounds half up on the absolute value (0.005 is 0.01, -0.005 is -0.01) to the currency's ISO 4217 minor unit.
     */
    public static Money round(CurrencyUnit currency, BigDecimal exact) {
        return Money.of(currency, exact, RoundingMode.HALF_UP);
    }

    /** Adds up; an empty collection is zero. @throws org.joda.money.CurrencyMismatchException naming both currencies */
    public static Money sum(CurrencyUnit currency, Collection<Money> amounts) {
        long units = 0;
        for (Money amount : amounts) {
            if (!amount.getCurrencyUnit().equals(currency)) {
                throw new CurrencyMismatchException(currency, amount.getCurrencyUnit());
            }
            units = Math.addExact(units, amount.getAmountMinorLong());
        }
        return Money.ofMinor(currency, units);
    }

    /** round(whole x part / of): a share of an amount. @throws ArithmeticException where {@code of} is zero */
    public static Money share(Money whole, BigDecimal part, BigDecimal of) {
        // 34 digits are far more than the largest sum has, so the one rounding that counts is the last.
        return round(whole.getCurrencyUnit(), whole.getAmount().multiply(part).divide(of, 34, RoundingMode.HALF_UP));
    }

    /** The smaller of two amounts in one currency. */
    public static Money min(Money a, Money b) {
        return a.isLessThan(b) ? a : b;
    }

    /** Plain decimal text with the currency's decimals and no separators: {@code 1234.50}. */
    public static String plain(Money amount) {
        return amount.getAmount().toPlainString();
    }

    /** Text for people, grouped in thousands: {@code 1,234.50}; a minus sign stands before a negative amount. */
    public static String grouped(Money amount) {
        return grouped(amount.getAmount());
    }

    /**
     * A unit price with the decimals of its currency at least: in euro 68 is {@code 68.00}, and 0.625 stays {@code 0.625}.
     */
    public static String price(BigDecimal price, CurrencyUnit currency) {
        return priced(price, currency).toPlainString();
    }

    /** The same as a number. */
    public static BigDecimal priced(BigDecimal price, CurrencyUnit currency) {
        BigDecimal plain = price.stripTrailingZeros();
        return plain.setScale(Math.max(plain.scale(), currency.getDecimalPlaces()));
    }

    /** The same for a number that is no amount, such as a unit price: its decimals stay as they are. */
    public static String grouped(BigDecimal value) {
        String text = value.abs().toPlainString();
        int point = text.indexOf('.');
        String whole = point < 0 ? text : text.substring(0, point);
        StringBuilder out = new StringBuilder(whole);
        for (int i = whole.length() - 3; i > 0; i -= 3) {
            out.insert(i, ',');
        }
        return (value.signum() < 0 ? "−" : "") + out + (point < 0 ? "" : text.substring(point));
    }
}
