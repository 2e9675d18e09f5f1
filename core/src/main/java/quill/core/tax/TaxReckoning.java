package quill.core.tax;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
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

    /** What bears one ordered set of taxes: a line, or all lines of the set together. */
    public record Bearing(List<Tax> taxes, Money amount) {}

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
     * @param bearings the lines' amounts with their taxes, in the order of the lines
     * @param inside whether the amounts contain the tax
     * @return one total for each tax, in the order of first use
     */
    public static List<TaxTotal> reckon(
            CurrencyUnit currency, List<Bearing> bearings, boolean inside, TaxRounding rounding) {
        TaxReckoning reckoning = new TaxReckoning(currency, inside, rounding);
        List<Bearing> units = rounding == TaxRounding.PER_LINE ? bearings : bySet(bearings);
        for (Bearing unit : units) {
            if (inside) {
                reckoning.addInside(unit);
            } else {
                reckoning.addOutside(unit);
            }
        }
        return reckoning.totals();
    }

    private static List<Bearing> bySet(List<Bearing> bearings) {
        Map<String, Bearing> sets = new LinkedHashMap<>();
        for (Bearing b : bearings) {
            sets.merge(
                    key(b.taxes()),
                    b,
                    (x, y) -> new Bearing(x.taxes(), x.amount().plus(y.amount())));
        }
        return List.copyOf(sets.values());
    }

    /** A set is known by its taxes' ids in their order: far cheaper to compare than the taxes themselves. */
    private static String key(List<Tax> taxes) {
        return taxes.size() == 1
                ? taxes.get(0).id()
                : taxes.stream().map(Tax::id).collect(Collectors.joining("|"));
    }

    private Sum sumOf(Tax tax) {
        return sums.computeIfAbsent(tax.id(), id -> new Sum(tax, currency));
    }

    private void addOutside(Bearing unit) {
        Money earlier = Money.zero(currency);
        for (Tax tax : unit.taxes()) {
            Money base = tax.compound() ? unit.amount().plus(earlier) : unit.amount();
            Money rounded = tax.rate().of(base);
            earlier = earlier.plus(rounded);
            Sum sum = sumOf(tax);
            sum.base = sum.base.plus(base);
            sum.amount = sum.amount.plus(rounded);
            if (rounding == TaxRounding.PER_LINE && tax.rate().rate().signum() > 0) {
                sum.steps.add(percentStep(tax, base, rounded));
            }
        }
    }

    private void addInside(Bearing unit) {
        List<BigDecimal> factors = new ArrayList<>();
        BigDecimal combined = BigDecimal.ZERO;
        for (Tax tax : unit.taxes()) {
            BigDecimal factor = tax.compound()
                    ? tax.rate().factor().multiply(BigDecimal.ONE.add(combined))
                    : tax.rate().factor();
            factors.add(factor);
            combined = combined.add(factor);
        }
        // 34 digits are far more than the largest sum has, so the one rounding that counts is the last.
        BigDecimal exact = unit.amount()
                .getAmount()
                .multiply(combined)
                .divide(BigDecimal.ONE.add(combined), MathContext.DECIMAL128);
        Money all = Amounts.round(currency, exact);
        List<Money> shares = combined.signum() == 0
                ? unit.taxes().stream().map(t -> Money.zero(currency)).toList()
                : Split.byWeights(all, factors);
        for (int i = 0; i < shares.size(); i++) {
            Sum sum = sumOf(unit.taxes().get(i));
            sum.base = sum.base.plus(unit.amount().minus(all));
            sum.amount = sum.amount.plus(shares.get(i));
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
                sum.steps.add(percentStep(sum.tax, sum.base, amount));
            }
            totals.add(new TaxTotal(sum.tax, sum.base, amount, new Why(rule(sum.tax), sum.steps)));
        }
        return List.copyOf(totals);
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
