package quill.core.pay;

import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.ledger.OnTop;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;
import quill.core.tax.Tax;

/**
 * What is asked on top of a payment by card: round(percent x sum) half up, and a fixed sum, but no more than a limit; and the tax
 * on that where it bears one. Asked in the business's own currency only, in which the fixed sum and the limit are.
 *
 * @param most null for no limit
 * @param tax null where it bears none
 */
public record Surcharge(Percent percent, Money fixed, Money most, Tax tax) {
    /**
     * As typed.
     *
     * @param percent may be empty, as the fixed sum and the limit
     */
    public record TypedSurcharge(String percent, String fixed, String most) {}

    /**
     * Reads what was typed.
     *
     * @param own the business's currency
     * @param problems gets those of {@code percent}, {@code fixed}, {@code most}
     * @return null where there is a problem
     */
    public static Surcharge read(TypedSurcharge typed, CurrencyUnit own, Tax tax, List<Problem> problems) {
        int before = problems.size();
        Percent percent = TypedNumber.percent("percent", orZero(typed.percent()), problems);
        Money fixed = TypedNumber.amount("fixed", orZero(typed.fixed()), own, problems);
        Money most = isEmpty(typed.most()) ? null : TypedNumber.amount("most", typed.most(), own, problems);
        if (problems.size() > before) {
            return null;
        }
        if (percent.rate().signum() == 0 && fixed.isZero()) {
            problems.add(
                    new Problem("percent", orZero(typed.percent()), "give a percentage or a fixed sum above zero"));
            return null;
        }
        if (most != null && !most.isPositive()) {
            problems.add(new Problem("most", typed.most(), "must be above zero, or empty for no limit"));
            return null;
        }
        return new Surcharge(percent, fixed, most, tax);
    }

    private static boolean isEmpty(String typed) {
        return typed == null || typed.isBlank();
    }

    private static String orZero(String typed) {
        return isEmpty(typed) ? "0" : typed;
    }

    /** On a sum that is paid by card; nothing in another currency. */
    public OnTop on(Money sum) {
        CurrencyUnit currency = sum.getCurrencyUnit();
        if (!fixed.getCurrencyUnit().equals(currency) || !sum.isPositive()) {
            return OnTop.nothing(currency);
        }
        Money asked = percent.of(sum).plus(fixed);
        Money net = most == null ? asked : Amounts.min(asked, most);
        Money ofTax = tax == null ? Money.zero(currency) : tax.rate().of(net);
        return new OnTop(Money.zero(currency), net, ofTax, ofTax.isZero() ? "" : tax.id());
    }
}
