package quill.core.document;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.money.Amounts;
import quill.core.tax.Tax;
import quill.core.tax.TaxReckoning;
import quill.core.tax.TaxRounding;
import quill.core.tax.TaxTotal;

/**
 * Reckons a document of a job of which something was billed before: a stage, or the final invoice. Deposit invoices are
 * taken off by lines of their own, set of taxes by set of taxes; then each tax is round(cumulative figure) less what was
 * billed before, so that the documents of a job sum to what one invoice of the whole would say, to the cent.
 *
 * <p>Example: the tax of 100.08 at 21 % is 21.02. Three stages of 33.36 bear 7.01, 7.00 and 7.01; each alone would bear 7.01,
 * which is a cent too much in all.
 */
public final class Continuing {
    private final Totals alone;
    private final JobBefore job;
    private final CurrencyUnit currency;
    private final List<LineTotal> lines;
    private final List<TaxGroup> groups;

    private Continuing(Totals alone, JobBefore job) {
        this.alone = alone;
        this.job = job;
        this.currency = alone.total().getCurrencyUnit();
        this.lines = new ArrayList<>(alone.lines());
        this.groups = new ArrayList<>(alone.groups());
    }

    /**
     * The document with what was billed before it.
     *
     * @param alone as if nothing had been
     * @param cash as in {@link DocumentBody#cash}
     */
    public static Totals of(Totals alone, JobBefore job, CashRounding cash) {
        return new Continuing(alone, job).totals(cash);
    }

    /** What a document takes off for deposit invoices, without tax, for each of its sets of taxes. */
    public static List<Money> deducted(Totals document, JobBefore job) {
        List<Money> nets = new ArrayList<>();
        for (TaxGroup group : document.groups()) {
            nets.add(Amounts.sum(
                    document.total().getCurrencyUnit(),
                    job.deducted().stream()
                            .flatMap(d -> d.of().groups().stream())
                            .filter(g -> g.taxes().equals(group.taxes()))
                            .map(TaxGroup::net)
                            .toList()));
        }
        return nets;
    }

    private Totals totals(CashRounding cash) {
        job.deducted().forEach(this::deduct);
        for (int g = 0; g < groups.size(); g++) {
            groups.set(g, taxed(groups.get(g)));
        }
        List<TaxTotal> taxes = taxTotals();
        Money net = Amounts.sum(currency, groups.stream().map(TaxGroup::net).toList());
        Money tax = Amounts.sum(currency, taxes.stream().map(TaxTotal::amount).toList());
        Money total = net.plus(tax);
        Money unrounded = total.minus(alone.prepaid());
        Money rounding = cash == null ? Money.zero(currency) : cash.of(unrounded);
        return new Totals(
                List.copyOf(lines),
                alone.discounts(),
                alone.charges(),
                taxes,
                List.copyOf(groups),
                alone.taxInside(),
                net,
                tax,
                total,
                alone.prepaid(),
                rounding,
                unrounded.plus(rounding));
    }

    private void deduct(Deduction deduction) {
        boolean several =
                deduction.of().groups().stream().filter(g -> !g.sum().isZero()).count() > 1;
        for (TaxGroup taken : deduction.of().groups()) {
            // With the tax outside the prices here and inside there, what counts alike is the net.
            Money sum = deduction.of().taxInside() == alone.taxInside()
                    ? taken.sum()
                    : alone.taxInside() ? taken.total() : taken.net();
            if (!sum.isZero()) {
                int g = groupOf(taken.taxes());
                TaxGroup group = groups.get(g);
                String taxes = several ? " (" + Tax.names(taken.taxes()) + ")" : "";
                lines.add(line(deduction.words() + taxes, sum, taken.taxes(), g));
                groups.set(
                        g,
                        new TaxGroup(
                                group.taxes(),
                                group.lines().minus(sum),
                                group.discount(),
                                group.charges(),
                                group.net().minus(sum),
                                group.amounts()));
            }
        }
    }

    private int groupOf(List<Tax> taxes) {
        for (int g = 0; g < groups.size(); g++) {
            if (groups.get(g).taxes().equals(taxes)) {
                return g;
            }
        }
        Money zero = Money.zero(currency);
        groups.add(new TaxGroup(
                taxes, zero, zero, zero, zero, taxes.stream().map(t -> zero).toList()));
        return groups.size() - 1;
    }

    /** A quantity of one is taken off at the price of what is deducted: a price is never below zero. */
    private LineTotal line(String words, Money sum, List<Tax> taxes, int group) {
        BigDecimal quantity = sum.isPositive() ? BigDecimal.ONE.negate() : BigDecimal.ONE;
        Line line = new Line(
                words, quantity, "", sum.getAmount().abs(), new Extent.None(), taxes, null, "", Income.DEPOSITS);
        Money zero = Money.zero(currency);
        return new LineTotal(line, sum.negated(), zero, zero, sum.negated(), group);
    }

    /** A set's taxes: of all that is billed of the job by now, less what was billed before. */
    private TaxGroup taxed(TaxGroup group) {
        Money before = Billed.sum(job.before(), alone.taxInside(), group.taxes(), currency);
        List<Money> had = Billed.taxes(job.before(), alone.taxInside(), group.taxes(), currency);
        Money all = before.plus(group.sum());
        List<Money> cumulative = cumulative(group, all);
        List<Money> amounts = new ArrayList<>();
        for (int i = 0; i < had.size(); i++) {
            amounts.add(cumulative.get(i).minus(had.get(i)));
        }
        Money tax = Amounts.sum(currency, amounts);
        Money net = alone.taxInside() ? group.sum().minus(tax) : group.sum();
        return new TaxGroup(group.taxes(), group.lines(), group.discount(), group.charges(), net, amounts);
    }

    /** With the last of what was agreed it is exactly what was agreed, however that was rounded. */
    private List<Money> cumulative(TaxGroup group, Money all) {
        if (job.whole().taxInside() == alone.taxInside()) {
            for (TaxGroup agreed : job.whole().groups()) {
                if (agreed.taxes().equals(group.taxes()) && agreed.sum().isEqual(all)) {
                    return agreed.amounts();
                }
            }
        }
        return TaxReckoning.reckon(
                        currency,
                        List.of(new TaxReckoning.Bearing(group.taxes(), all, 0)),
                        alone.taxInside(),
                        TaxRounding.PER_TAX)
                .groups()
                .get(0);
    }

    private List<TaxTotal> taxTotals() {
        Map<String, TaxTotal> taxes = new LinkedHashMap<>();
        for (TaxGroup group : groups) {
            List<Money> had = Billed.taxes(job.before(), alone.taxInside(), group.taxes(), currency);
            Money earlier = Money.zero(currency);
            for (int i = 0; i < group.taxes().size(); i++) {
                Tax tax = group.taxes().get(i);
                Money amount = group.amounts().get(i);
                Money base = tax.compound() ? group.net().plus(earlier) : group.net();
                earlier = earlier.plus(amount);
                Why why = Why.of(
                        "the tax of all that is billed of this job so far, less what was billed before",
                        tax.name() + ": " + Amounts.grouped(amount.plus(had.get(i))) + " − "
                                + Amounts.grouped(had.get(i)) + " = " + Amounts.grouped(amount));
                taxes.merge(tax.id(), new TaxTotal(tax, base, amount, why), CreditReckoning::together);
            }
        }
        return List.copyOf(taxes.values());
    }
}
