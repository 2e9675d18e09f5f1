package quill.core.pay;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;

/**
 * Which tips a payer is offered.
 *
 * @param given percentages of what is paid, such as {@code 5%}, and amounts in the business's own currency, in their order
 * @param free whether another amount can be typed; never more than what is paid, so that a slip of the finger shows
 */
public record Tips(List<String> given, boolean free, CurrencyUnit own) {
    private static final int MOST = 6;

    /** Copies what is given. */
    public Tips {
        given = List.copyOf(given);
    }

    /**
     * Reads what was typed.
     *
     * @param typed percentages and amounts with commas or blanks between
     * @param problems gets those of {@code tips}
     * @return null where there is a problem
     */
    public static Tips read(String typed, boolean free, CurrencyUnit own, List<Problem> problems) {
        int before = problems.size();
        List<String> all = new ArrayList<>();
        for (String one :
                typed == null ? List.<String>of() : Arrays.asList(typed.strip().split("[\\s;]+|,\\s+|(?<=%),"))) {
            if (one.isEmpty()) {
                continue;
            }
            Boolean above = TypedNumber.percentOrAmount(
                    "tips", one, own, problems, percent -> percent.rate().signum() > 0, Money::isPositive);
            if (Boolean.FALSE.equals(above)) {
                problems.add(new Problem("tips", one, "must be above zero"));
            }
            all.add(one);
        }
        if (all.size() > MOST) {
            problems.add(new Problem("tips", typed, "at most " + MOST));
        }
        if (all.isEmpty() && !free) {
            problems.add(new Problem("tips", "", "give some, such as 5% 10%, or let payers type their own"));
        }
        return problems.size() > before ? null : new Tips(all, free, own);
    }

    /** One that is offered. @param words as it was typed */
    public record Offered(String words, Money amount) {}

    /** Those that are offered on a sum; amounts only where it is in the business's own currency. */
    public List<Offered> on(Money sum) {
        List<Offered> offered = new ArrayList<>();
        for (String one : given) {
            if (TypedNumber.isPercent(one)) {
                offered.add(new Offered(
                        one, Percent.of(TypedNumber.withoutSign(one)).of(sum)));
            } else if (sum.getCurrencyUnit().equals(own)) {
                offered.add(new Offered(one, TypedNumber.amount("tips", one, own, new ArrayList<>())));
            }
        }
        return offered.stream().filter(o -> o.amount().isPositive()).toList();
    }

    /**
     * What a payer gives.
     *
     * @param typed empty for nothing
     * @param sum what it pays
     * @param problems gets those of {@code tip}, with what is allowed
     * @return null where there is a problem
     */
    public Money given(String typed, Money sum, List<Problem> problems) {
        if (typed == null || typed.isBlank()) {
            return Money.zero(sum.getCurrencyUnit());
        }
        Money tip = TypedNumber.amount("tip", typed, sum.getCurrencyUnit(), problems);
        if (tip == null || tip.isZero()) {
            return tip;
        }
        boolean fits = free
                ? !tip.isGreaterThan(sum)
                : on(sum).stream().anyMatch(o -> o.amount().isEqual(tip));
        if (!fits) {
            problems.add(new Problem(
                    "tip",
                    typed,
                    free
                            ? "must be at most " + Amounts.grouped(sum) + ", what is paid"
                            : "must be one of those offered"));
            return null;
        }
        return tip;
    }
}
