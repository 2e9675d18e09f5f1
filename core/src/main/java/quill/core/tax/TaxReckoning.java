package quill.core.tax;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.money.Amounts;
import quill.core.money.Split;

/**
 * The taxes of a document. Source of the rule of rounding per tax: EN 16931, BR-CO-17 (tax = base x rate / 100,
 * rounded to the minor unit). A compound tax's base adds the earlier taxes of its set, each rounded over that set's
 * base: 100.14 at 5 %, then 10 % compound, is 5.01 and 10.52.
 */
public final class TaxReckoning {
    private final CurrencyUnit currency;
    private final boolean inside;
    private final TaxRounding rounding;
    private final Map<String, Sum> sums = new LinkedHashMap<>();
    private final List<Money[]> groups = new ArrayList<>();
    private final List<Money> insides = new ArrayList<>();
    private final List<List<Tax>> sets = new ArrayList<>();

    /**
     * What bears one ordered set of taxes: a line, a charge, or all that bears the set together.
     *
     * @param group which set of the document it belongs to, from 0
     */
    public record Bearing(List<Tax> taxes, Money amount, int group) {}

    /**
     * What was reckoned.
     *
     * @param taxes one total for each tax, in the order of first use
     * @param groups for each group what each tax of its set comes to; a tax's groups sum to its total
     * @param inside for each group the tax that was inside its amounts; zero where prices are without tax
     */
    public record Reckoned(List<TaxTotal> taxes, List<List<Money>> groups, List<Money> inside) {}

    private static final class Sum {
        private final Tax tax;
        private Money base;
        private Money amount;
        private final List<String> steps = new ArrayList<>();

        private Sum(Tax tax, CurrencyUnit currency) {
            this.tax = tax;
            this.base = Money.zero(currency);
            this.amount = Money.zero(currency);
        }
    }

    private TaxReckoning(CurrencyUnit currency, boolean inside, TaxRounding rounding) {
        this.currency = currency;
        this.inside = inside;
        this.rounding = rounding;
    }

    /**
     * Reckons every tax once.
     *
     * @param bearings for rounding per tax one for each set, else one for each line and charge; a set has one group,
     *     and groups are numbered without gaps in the order of first use
     * @param inside whether the amounts contain the tax
     */
    public static Reckoned reckon(CurrencyUnit currency, List<Bearing> bearings, boolean inside, TaxRounding rounding) {
        TaxReckoning reckoning = new TaxReckoning(currency, inside, rounding);
        for (Bearing unit : bearings) {
            reckoning.open(unit);
            if (inside) {
                reckoning.addInside(unit);
            } else {
                reckoning.addOutside(unit);
            }
        }
        List<TaxTotal> totals = reckoning.totals();
        return new Reckoned(totals, reckoning.groups.stream().map(List::of).toList(), List.copyOf(reckoning.insides));
    }

    /** The whole tax inside an amount that bears one set: round(amount x r / (1 + r)). */
    public static Money inside(Money amount, List<Tax> set) {
        BigDecimal combined = combined(set);
        // 34 digits are far more than the largest sum has, so the one rounding that counts is the last.
        BigDecimal exact =
                amount.getAmount().multiply(combined).divide(BigDecimal.ONE.add(combined), MathContext.DECIMAL128);
        return Amounts.round(amount.getCurrencyUnit(), exact);
    }

    private static BigDecimal combined(List<Tax> set) {
        return factors(set).stream().reduce(BigDecimal.ZERO, BigDecimal::add);
    }

    /** What each tax of a set adds to 1 of net; a compound one bears the earlier ones as well. */
    private static List<BigDecimal> factors(List<Tax> set) {
        List<BigDecimal> factors = new ArrayList<>();
        BigDecimal combined = BigDecimal.ZERO;
        for (Tax tax : set) {
            BigDecimal factor = tax.compound()
                    ? tax.rate().factor().multiply(BigDecimal.ONE.add(combined))
                    : tax.rate().factor();
            factors.add(factor);
            combined = combined.add(factor);
        }
        return factors;
    }

    private void open(Bearing unit) {
        if (unit.group() == groups.size()) {
            Money[] amounts = new Money[unit.taxes().size()];
            Arrays.fill(amounts, Money.zero(currency));
            groups.add(amounts);
            insides.add(Money.zero(currency));
            sets.add(unit.taxes());
        }
    }

    private void put(Bearing unit, int place, Money amount) {
        Money[] amounts = groups.get(unit.group());
        amounts[place] = amounts[place].plus(amount);
    }

    private Sum sumOf(Tax tax) {
        return sums.computeIfAbsent(tax.id(), id -> new Sum(tax, currency));
    }

    private void addOutside(Bearing unit) {
        Money earlier = Money.zero(currency);
        for (int i = 0; i < unit.taxes().size(); i++) {
            Tax tax = unit.taxes().get(i);
            Money base = tax.compound() ? unit.amount().plus(earlier) : unit.amount();
            Money rounded = tax.rate().of(base);
            earlier = earlier.plus(rounded);
            put(unit, i, rounded);
            Sum sum = sumOf(tax);
            sum.base = sum.base.plus(base);
            sum.amount = sum.amount.plus(rounded);
            if (rounding == TaxRounding.PER_LINE && tax.rate().rate().signum() > 0) {
                sum.steps.add(percentStep(tax, base, rounded));
            }
        }
    }

    private void addInside(Bearing unit) {
        List<BigDecimal> factors = factors(unit.taxes());
        BigDecimal combined = combined(unit.taxes());
        Money all = inside(unit.amount(), unit.taxes());
        insides.set(unit.group(), insides.get(unit.group()).plus(all));
        List<Money> shares = combined.signum() == 0
                ? unit.taxes().stream().map(t -> Money.zero(currency)).toList()
                : Split.byWeights(all, factors);
        for (int i = 0; i < shares.size(); i++) {
            Sum sum = sumOf(unit.taxes().get(i));
            sum.base = sum.base.plus(unit.amount().minus(all));
            sum.amount = sum.amount.plus(shares.get(i));
            put(unit, i, shares.get(i));
            if (combined.signum() > 0) {
                sum.steps.add("inside " + Amounts.grouped(unit.amount()) + ": " + Amounts.grouped(unit.amount()) + " × "
                        + combined.stripTrailingZeros().toPlainString() + " ÷ "
                        + BigDecimal.ONE.add(combined).stripTrailingZeros().toPlainString() + " = "
                        + Amounts.grouped(all)
                        + (shares.size() > 1 ? ", of which " + Amounts.grouped(shares.get(i)) : ""));
            }
        }
    }

    private List<TaxTotal> totals() {
        List<TaxTotal> totals = new ArrayList<>();
        for (Sum sum : sums.values()) {
            Money amount = sum.amount;
            if (!inside && rounding == TaxRounding.PER_TAX) {
                amount = sum.tax.rate().of(sum.base);
                share(sum.tax, amount.minus(sum.amount));
                sum.steps.add(percentStep(sum.tax, sum.base, amount));
            }
            totals.add(new TaxTotal(sum.tax, sum.base, amount, new Why(rule(sum.tax), sum.steps)));
        }
        return List.copyOf(totals);
    }

    /** The cent by which a tax differs from its groups' own rounding goes to the group that bears most of it. */
    private void share(Tax tax, Money difference) {
        if (difference.isZero()) {
            return;
        }
        int group = -1;
        for (int i = 0; i < sets.size(); i++) {
            int at = sets.get(i).indexOf(tax);
            if (at >= 0 && (group < 0 || groups.get(i)[at].abs().isGreaterThan(most(group, tax)))) {
                group = i;
            }
        }
        Money[] amounts = groups.get(group);
        int at = sets.get(group).indexOf(tax);
        amounts[at] = amounts[at].plus(difference);
    }

    private Money most(int group, Tax tax) {
        return groups.get(group)[sets.get(group).indexOf(tax)].abs();
    }

    private String rule(Tax tax) {
        if (tax.category() != TaxCategory.S) {
            return tax.category().words() + (tax.reason().isEmpty() ? "" : ": " + tax.reason());
        }
        String place = rounding == TaxRounding.PER_LINE ? "rounded on each line" : "rounded once for the document";
        return (inside ? "tax inside the prices, " : tax.compound() ? "on net and earlier taxes, " : "on the net, ")
                + place;
    }

    private static String percentStep(Tax tax, Money base, Money amount) {
        return tax.rate() + " of " + Amounts.grouped(base) + " = " + Amounts.grouped(amount);
    }
}
