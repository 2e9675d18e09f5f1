package quill.core.money;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Sums that people type where a number is wanted: {@code 3*45}, {@code 12.50 + 3}, {@code (2+1.5)×68}, and hours with
 * minutes, {@code 2h30}. Exact but for a division, which is rounded half up to ten decimals.
 */
final class TypedSum {
    private static final int MOST = 200;
    private static final int DECIMALS = 10;
    /** An operator between two numbers; a day such as 2027-03-15 is none. */
    private static final Pattern SUM =
            Pattern.compile("(?!\\d{4}-\\d\\d?-\\d\\d?$)(?=[-−(\\d.,]).*[\\d)]\\h*[-−+*/×÷]\\h*[-−(\\d.,].*");

    private static final Pattern HOURS = Pattern.compile("(\\d{1,3})\\h*h\\h*(\\d{1,2})(?:\\h*(?:m|min))?");
    private static final BigDecimal SIXTY = BigDecimal.valueOf(60);

    private final String text;
    private final Function<String, BigDecimal> numbers;
    private int at;

    private TypedSum(String text, Function<String, BigDecimal> numbers) {
        this.text = text;
        this.numbers = numbers;
    }

    /** Whether it is one; a plain number is none, nor is one below zero. */
    static boolean is(String text) {
        return text.length() <= MOST
                && (HOURS.matcher(text).matches() || SUM.matcher(text).matches());
    }

    /** Whether it is a time in hours and minutes. */
    static boolean isHours(String text) {
        return HOURS.matcher(text).matches();
    }

    /**
     * What it comes to.
     *
     * @param numbers reads one number of it; null where it is none
     * @return null where it cannot be read, or divides by zero
     */
    static BigDecimal read(String text, Function<String, BigDecimal> numbers) {
        Matcher hours = HOURS.matcher(text);
        if (hours.matches()) {
            BigDecimal minutes = new BigDecimal(hours.group(2));
            return minutes.compareTo(SIXTY) >= 0
                    ? null
                    : new BigDecimal(hours.group(1)).add(minutes.divide(SIXTY, DECIMALS, RoundingMode.HALF_UP));
        }
        TypedSum sum = new TypedSum(text, numbers);
        try {
            BigDecimal value = sum.terms();
            return sum.peek() == 0 ? value : null;
        } catch (ArithmeticException e) {
            return null;
        }
    }

    private char peek() {
        while (at < text.length() && Character.isWhitespace(text.charAt(at))) {
            at++;
        }
        return at < text.length() ? text.charAt(at) : 0;
    }

    private boolean takes(char... signs) {
        char here = peek();
        for (char sign : signs) {
            if (here == sign) {
                at++;
                return true;
            }
        }
        return false;
    }

    private BigDecimal terms() {
        BigDecimal value = factors();
        while (true) {
            if (takes('+')) {
                value = value.add(factors());
            } else if (takes('-', '−')) {
                value = value.subtract(factors());
            } else {
                return value;
            }
        }
    }

    private BigDecimal factors() {
        BigDecimal value = factor();
        while (true) {
            if (takes('*', '×')) {
                value = value.multiply(factor());
            } else if (takes('/', '÷')) {
                value = value.divide(factor(), DECIMALS, RoundingMode.HALF_UP);
            } else {
                return value;
            }
        }
    }

    private BigDecimal factor() {
        if (takes('-', '−')) {
            return factor().negate();
        }
        if (takes('(')) {
            BigDecimal value = terms();
            if (!takes(')')) {
                throw new ArithmeticException("a bracket is not closed");
            }
            return value;
        }
        int from = at;
        while (at < text.length() && !isSign(text.charAt(at))) {
            at++;
        }
        BigDecimal number = numbers.apply(text.substring(from, at).strip());
        if (number == null) {
            throw new ArithmeticException("no number");
        }
        return number;
    }

    private static boolean isSign(char c) {
        return "+-−*×/÷()".indexOf(c) >= 0;
    }
}
