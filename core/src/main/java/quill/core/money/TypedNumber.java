package quill.core.money;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.List;
import java.util.function.Function;
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

    private static final String BELOW_LIMIT = "must be below 1,000,000,000";
    /** A number with more digits than are read: too large, and no other mistake. */
    private static final Pattern TOO_LONG = Pattern.compile("[-−]?[1-9]\\d{15,}([.,]\\d*)?");

    private static final Pattern NUMBER = Pattern.compile("[-−]?\\d{1,15}(\\.\\d{1,15})?|[-−]?\\.\\d{1,15}");
    private static final String SIGN = "[-−]?";
    private static final String END = "(\\.\\d{1,15})?";
    private static final Pattern GROUPED = Pattern.compile(SIGN + "[1-9]\\d{0,2}(,\\d{3})+" + END);
    private static final Pattern BLANKS_OR_STROKES =
            Pattern.compile(SIGN + "[1-9]\\d{0,2}([\\h'’]\\d{3})+([.,]\\d{1,15})?");
    private static final Pattern POINTS_BETWEEN = Pattern.compile(SIGN + "[1-9]\\d{0,2}(\\.\\d{3})+(,\\d{1,15})");
    private static final Pattern ONLY_POINTS_BETWEEN = Pattern.compile(SIGN + "[1-9]\\d{0,2}(\\.\\d{3}){2,}");
    /** One comma that no thousands can follow: not three digits after it, or a nought before it. */
    private static final Pattern DECIMAL_COMMA =
            Pattern.compile(SIGN + "(\\d{1,15},(\\d{1,2}|\\d{4,15})|0,\\d{1,15}|,\\d{1,15})");

    private static final Pattern UNIT_BEHIND = Pattern.compile("(?<=[\\d)])\\s*(?!h\\s*\\d)" + TypedNumber.UNIT + "$");
    private static final Pattern CURRENCY_SIGN = Pattern.compile("^(" + SIGN + ")\\p{Sc}\\h*|\\h*\\p{Sc}$");

    /**
     * A unit behind a quantity, as a pattern. It has no digits but those of m2 and m3: 1e3 is no quantity of a unit e3.
     */
    public static final String UNIT = "(?:[cdk]?m[23]|\\p{L}[\\p{L}²³./ ]{0,29})";

    private TypedNumber() {}

    /**
     * Reads a decimal. Marks between thousands (commas, points, blanks, strokes), a decimal comma and a currency's sign are
     * understood where they can mean one thing only; {@code 1,234} is 1234 and {@code 1.234} less than two, as programs
     * write them. What a person typed is made so by {@link DecimalMark#plain} first.
     *
     * <p>A sum ({@code 3*45}, {@code 2h30}) is reckoned, and rounded half up to the decimals allowed.
     *
     * @param decimals the most decimals allowed
     * @param negative whether a number below zero is allowed
     * @return the number, or null where a problem was added
     */
    public static BigDecimal read(String field, String text, int decimals, boolean negative, List<Problem> problems) {
        String given = text == null ? "" : text.strip();
        if (given.isEmpty()) {
            problems.add(new Problem(field, "", "write a number"));
            return null;
        }
        boolean sum = TypedSum.is(given);
        BigDecimal value = sum ? TypedSum.read(given, TypedNumber::number) : number(given);
        if (value == null) {
            problems.add(new Problem(field, given, wanted(given, sum)));
            return null;
        }
        if (sum) {
            // As a person would write what it comes to: 2h30 is 2.5, not 2.500000.
            value = plain(value.setScale(Math.min(decimals, Math.max(0, value.scale())), RoundingMode.HALF_UP));
        }
        String refusal = refusal(value, decimals, negative);
        if (refusal != null) {
            problems.add(new Problem(field, given, refusal));
            return null;
        }
        return value;
    }

    private static String wanted(String given, boolean sum) {
        if (TOO_LONG.matcher(given).matches()) {
            return BELOW_LIMIT;
        }
        return sum ? "this sum cannot be reckoned; write one such as 3*45" : "write a number such as 14.5 or 14,5";
    }

    /** One number, or null where the text is none. */
    private static BigDecimal number(String text) {
        String plain = withPoint(CURRENCY_SIGN.matcher(text).replaceAll("$1"));
        return NUMBER.matcher(plain).matches() ? new BigDecimal(plain.replace('−', '-')) : null;
    }

    /** Whether a text is a time in hours and minutes, such as {@code 2h30}, which is 2.5 hours. */
    public static boolean isHours(String text) {
        return text != null && TypedSum.isHours(text.strip());
    }

    /**
     * What was understood of a text that a person should see reckoned: a sum, or what could mean two numbers.
     *
     * @param plain the text as programs write numbers, with its unit
     * @return the number in words or digits; empty where the text can only mean what it says
     */
    public static String understood(String typed, String plain) {
        if (DecimalMark.isTwofold(typed) && !TypedSum.is(plain.strip())) {
            return DecimalMark.inWords(plain);
        }
        String sum = plain == null ? "" : UNIT_BEHIND.matcher(plain.strip()).replaceFirst("");
        if (!TypedSum.is(sum)) {
            return "";
        }
        BigDecimal value = TypedSum.read(sum, TypedNumber::number);
        return value == null
                ? ""
                : plain(value.setScale(Math.min(6, Math.max(0, value.scale())), RoundingMode.HALF_UP))
                        .toPlainString();
    }

    private static BigDecimal plain(BigDecimal value) {
        return new BigDecimal(value.stripTrailingZeros().toPlainString());
    }

    /** The same with a point for the decimals and nothing between thousands, where that can be told; else as it is. */
    private static String withPoint(String typed) {
        if (GROUPED.matcher(typed).matches()) {
            return typed.replace(",", "");
        }
        if (BLANKS_OR_STROKES.matcher(typed).matches()) {
            return typed.replaceAll("[\\h'’]", "").replace(',', '.');
        }
        if (POINTS_BETWEEN.matcher(typed).matches()
                || ONLY_POINTS_BETWEEN.matcher(typed).matches()) {
            return typed.replace(".", "").replace(',', '.');
        }
        return DECIMAL_COMMA.matcher(typed).matches() ? typed.replace(',', '.') : typed;
    }

    private static String refusal(BigDecimal value, int decimals, boolean negative) {
        if (Math.max(0, value.stripTrailingZeros().scale()) > decimals) {
            return decimals == 0 ? "no decimals are allowed here" : "at most " + decimals + " decimals are allowed";
        }
        if (value.abs().compareTo(LIMIT) >= 0) {
            return BELOW_LIMIT;
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

    /** Whether it was typed as a percentage. */
    public static boolean isPercent(String text) {
        return text != null && text.strip().endsWith("%");
    }

    /** A percentage as it was typed, without its sign at the end; one elsewhere stays, for no number has it. */
    public static String withoutSign(String percent) {
        String plain = percent == null ? "" : percent.strip();
        return isPercent(plain) ? plain.substring(0, plain.length() - 1).strip() : plain;
    }

    /** Reads {@code 40%} as a percentage and all else as an amount; null where a problem was added. */
    public static <T> T percentOrAmount(
            String field,
            String text,
            CurrencyUnit currency,
            List<Problem> problems,
            Function<Percent, T> ofPercent,
            Function<Money, T> ofAmount) {
        if (isPercent(text)) {
            Percent percent = percent(field, text, problems);
            return percent == null ? null : ofPercent.apply(percent);
        }
        Money amount = amount(field, text, currency, problems);
        return amount == null ? null : ofAmount.apply(amount);
    }

    /** Reads a percentage such as {@code 10%} or {@code 10}; null where a problem was added. */
    public static Percent percent(String field, String text, List<Problem> problems) {
        BigDecimal value = read(field, withoutSign(text), 4, false, problems);
        if (value == null) {
            return null;
        }
        if (value.compareTo(BigDecimal.valueOf(100)) > 0) {
            problems.add(new Problem(field, text.strip(), "must be from 0% to 100%"));
            return null;
        }
        return new Percent(value);
    }

    /** Reads an ISO 4217 code of money that people pay with; null where a problem was added. */
    public static CurrencyUnit currency(String field, String code, List<Problem> problems) {
        try {
            CurrencyUnit currency = CurrencyUnit.of(code == null ? "" : code.strip());
            // Gold, funds, tests and "no currency" have codes of their own there, and no minor unit.
            if (!currency.isPseudoCurrency()) {
                return currency;
            }
        } catch (IllegalCurrencyException e) {
            // Told below: what is no code and what is no money are refused alike.
        }
        problems.add(new Problem(field, code, "write the three letters of an ISO 4217 currency, such as EUR"));
        return null;
    }
}
