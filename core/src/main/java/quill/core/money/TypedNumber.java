package quill.core.money;

import java.math.BigDecimal;
import java.util.List;
import java.util.regex.Pattern;
import org.joda.money.CurrencyUnit;
import org.joda.money.IllegalCurrencyException;
import org.joda.money.Money;
import quill.core.Problem;

/** Reads numbers as people type them. A problem is added to the caller's list, so that all are told at once. */
public final class TypedNumber {
    /** Most that a quantity, a price or a sum may be: above it a slip of the keyboard is likelier than an invoice. */
    public static final BigDecimal LIMIT = new BigDecimal("1000000000");

    /** What no line, document or value in the books reaches. */
    public static final BigDecimal LARGEST = new BigDecimal("1000000000000");
    /** The same for a person. */
    public static final String LARGEST_IN_WORDS = "1,000,000,000,000";

    private static final Pattern NUMBER = Pattern.compile("[-−]?\\d{1,15}(\\.\\d{1,15})?|[-−]?\\.\\d{1,15}");
    private static final Pattern GROUPED = Pattern.compile("[-−]?\\d{1,3}(,\\d{3})+(\\.\\d{1,15})?");

    private TypedNumber() {}

    /**
     * Reads a decimal, with a point and perhaps commas between thousands.
     *
     * @param decimals the most decimals allowed
     * @param negative whether a number below zero is allowed
     * @return the number, or null where a problem was added
     */
    public static BigDecimal read(String field, String text, int decimals, boolean negative, List<Problem> problems) {
        String typed = text == null ? "" : text.strip();
        if (typed.isEmpty()) {
            problems.add(new Problem(field, "", "write a number"));
            return null;
        }
        boolean number =
                NUMBER.matcher(typed).matches() || GROUPED.matcher(typed).matches();
        if (!number) {
            problems.add(new Problem(field, typed, "write a number such as 14.5, with a point for the decimals"));
            return null;
        }
        BigDecimal value = new BigDecimal(typed.replace(",", "").replace('−', '-'));
        String refusal = refusal(value, decimals, negative);
        if (refusal != null) {
            problems.add(new Problem(field, typed, refusal));
            return null;
        }
        return value;
    }

    private static String refusal(BigDecimal value, int decimals, boolean negative) {
        if (Math.max(0, value.stripTrailingZeros().scale()) > decimals) {
            return decimals == 0 ? "no decimals are allowed here" : "at most " + decimals + " decimals are allowed";
        }
        if (value.abs().compareTo(LIMIT) >= 0) {
            return "must be below 1,000,000,000";
        }
        if (!negative && value.signum() < 0) {
            return "must not be below zero";
        }
        return null;
    }

    /** Reads an amount in the currency's own decimals, not below zero; null where a problem was added. */
    public static Money amount(String field, String text, CurrencyUnit currency, List<Problem> problems) {
        BigDecimal value = read(field, text, currency.getDecimalPlaces(), false, problems);
        return value == null ? null : Amounts.round(currency, value);
    }

    /** Reads a percentage such as {@code 10%} or {@code 10}; null where a problem was added. */
    public static Percent percent(String field, String text, List<Problem> problems) {
        BigDecimal value = read(field, text == null ? null : text.replace("%", ""), 4, false, problems);
        if (value == null) {
            return null;
        }
        if (value.compareTo(BigDecimal.valueOf(100)) > 0) {
            problems.add(new Problem(field, text.strip(), "must be from 0% to 100%"));
            return null;
        }
        return new Percent(value);
    }

    /** Reads an ISO 4217 code; null where a problem was added. */
    public static CurrencyUnit currency(String field, String code, List<Problem> problems) {
        try {
            return CurrencyUnit.of(code == null ? "" : code.strip());
        } catch (IllegalCurrencyException e) {
            problems.add(new Problem(field, code, "write the three letters of an ISO 4217 currency, such as EUR"));
            return null;
        }
    }
}
