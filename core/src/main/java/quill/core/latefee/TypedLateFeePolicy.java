package quill.core.latefee;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.latefee.LateFeePolicy.Cap;
import quill.core.latefee.LateFeePolicy.Charge;
import quill.core.latefee.LateFeePolicy.Repeat;
import quill.core.money.Amounts;
import quill.core.money.DecimalMark;
import quill.core.money.Exchange;
import quill.core.money.Percent;
import quill.core.money.TypedNumber;

/**
 * A late-fee policy as it was typed; its sums are in the business's own currency.
 *
 * @param kind none, flat or percent
 * @param amount {@code 12.50} for flat, {@code 1%} for percent
 * @param grace days of grace
 * @param repeat once, days or monthly
 * @param every days between two fees, where repeat is days
 * @param cap empty, {@code 40.00} or {@code 5%} of the installment's first amount
 * @param smallest empty, or the smallest overdue sum that bears a fee
 * @param taxed whether a fee bears the invoice's taxes; left out, it bears none
 */
public record TypedLateFeePolicy(
        String kind,
        String amount,
        String grace,
        String repeat,
        String every,
        String cap,
        String smallest,
        boolean deposits,
        Boolean taxed) {
    /** Left out is no. */
    public TypedLateFeePolicy {
        taxed = taxed != null && taxed;
    }

    /** One whose fees bear no tax. */
    public TypedLateFeePolicy(
            String kind,
            String amount,
            String grace,
            String repeat,
            String every,
            String cap,
            String smallest,
            boolean deposits) {
        this(kind, amount, grace, repeat, every, cap, smallest, deposits, false);
    }

    /** The same with its numbers as programs write them. @param mark with which they were typed */
    public TypedLateFeePolicy plain(DecimalMark mark) {
        return new TypedLateFeePolicy(
                kind, mark.plain(amount), grace, repeat, every, mark.plain(cap), mark.plain(smallest), deposits, taxed);
    }

    /** No fees. */
    public static TypedLateFeePolicy none() {
        return new TypedLateFeePolicy("none", "", "7", "once", "", "", "", false);
    }

    /**
     * Reads it, adding to the problems what is wrong.
     *
     * @param path put before each field's name, such as {@code lateFee.}; may be empty
     * @param ceiling rates above it are refused
     * @return the policy, or null where a problem was added
     */
    public LateFeePolicy read(String path, CurrencyUnit currency, Percent ceiling, List<Problem> problems) {
        int before = problems.size();
        Money zero = Money.zero(currency);
        if ("none".equals(kind)) {
            return LateFeePolicy.none(zero);
        }
        Charge charge = charge(path, currency, ceiling, problems);
        int days = days(path + "grace", grace, 0, problems);
        Repeat again = repeat(path, problems);
        Cap most = cap(path + "cap", currency, problems);
        Money least = isBlank(smallest) ? zero : TypedNumber.amount(path + "smallest", smallest, currency, problems);
        FeeTax tax = taxed ? FeeTax.asInvoiced() : FeeTax.none();
        return problems.size() > before ? null : new LateFeePolicy(charge, days, again, most, least, deposits, tax);
    }

    /**
     * The same with its sums in another currency, as an invoice in that currency prints them. They are typed in the
     * business's own.
     *
     * @param exchange at the rate that is kept with the invoice
     */
    public TypedLateFeePolicy in(CurrencyUnit currency, Exchange exchange) {
        return new TypedLateFeePolicy(
                kind,
                "flat".equals(kind) ? in(amount, currency, exchange) : amount,
                grace,
                repeat,
                every,
                in(cap, currency, exchange),
                in(smallest, currency, exchange),
                deposits,
                taxed);
    }

    private static String in(String text, CurrencyUnit currency, Exchange exchange) {
        if (isBlank(text) || TypedNumber.isPercent(text)) {
            return text;
        }
        Money sum = TypedNumber.amount("", text, exchange.own(), new ArrayList<>());
        return sum == null ? text : Amounts.plain(exchange.into(currency, sum));
    }

    private Charge charge(String path, CurrencyUnit currency, Percent ceiling, List<Problem> problems) {
        if ("flat".equals(kind)) {
            Money sum = TypedNumber.amount(path + "amount", amount, currency, problems);
            if (sum != null && sum.isZero()) {
                problems.add(new Problem(path + "amount", amount, "must be above zero; choose none for no fee"));
            }
            return sum == null ? null : new Charge.Flat(sum);
        }
        if (!"percent".equals(kind)) {
            problems.add(new Problem(path + "kind", kind, "must be none, flat or percent"));
            return null;
        }
        BigDecimal rate = TypedNumber.read(path + "amount", TypedNumber.withoutSign(amount), 4, false, problems);
        if (rate == null) {
            return null;
        }
        if (rate.signum() == 0 || rate.compareTo(ceiling.rate()) > 0) {
            problems.add(new Problem(
                    path + "amount", amount.strip(), "must be above 0% and at most the ceiling of " + ceiling));
            return null;
        }
        return new Charge.OfOverdue(new Percent(rate));
    }

    private Repeat repeat(String path, List<Problem> problems) {
        if ("once".equals(repeat)) {
            return new Repeat.Once();
        }
        if ("monthly".equals(repeat)) {
            return new Repeat.Monthly();
        }
        if ("days".equals(repeat)) {
            return new Repeat.EveryDays(days(path + "every", every, 1, problems));
        }
        problems.add(new Problem(path + "repeat", repeat, "must be once, days or monthly"));
        return null;
    }

    private Cap cap(String field, CurrencyUnit currency, List<Problem> problems) {
        if (isBlank(cap)) {
            return new Cap.None();
        }
        return TypedNumber.<Cap>percentOrAmount(
                field, cap, currency, problems, Cap.OfFirstAmount::new, Cap.OfAmount::new);
    }

    private static int days(String field, String text, int least, List<Problem> problems) {
        BigDecimal days = TypedNumber.read(field, text, 0, true, problems);
        if (days == null) {
            return least;
        }
        if (days.compareTo(BigDecimal.valueOf(least)) < 0
                || days.compareTo(BigDecimal.valueOf(LateFeePolicy.MOST_DAYS)) > 0) {
            problems.add(new Problem(field, text.strip(), "must be from " + least + " to 365 days"));
            return least;
        }
        return days.intValue();
    }

    private static boolean isBlank(String text) {
        return text == null || text.isBlank();
    }
}
