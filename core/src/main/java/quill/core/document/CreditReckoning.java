package quill.core.document;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.Why;
import quill.core.money.Amounts;
import quill.core.money.Split;
import quill.core.tax.Tax;
import quill.core.tax.TaxReckoning;
import quill.core.tax.TaxRounding;
import quill.core.tax.TaxTotal;

/**
 * Takes an invoice back, whole or in parts. Every figure is round(cumulative figure) less what was taken before, so
 * that the parts, in whatever order, sum to the whole to the cent: three lines of 10.12 at 21 %, credited one by one,
 * take 2.13, 2.12 and 2.13 of tax, 6.38 in all.
 */
public final class CreditReckoning {
    private final Creditable invoice;
    private final CurrencyUnit currency;
    private final Taken before;

    private CreditReckoning(Creditable invoice, Taken before) {
        this.invoice = invoice;
        this.currency = invoice.currency();
        this.before = before;
    }

    /**
     * By lines.
     *
     * @param lines the quantity to take back, by the line's place from 0; with the sign of the line's own quantity
     * @param charges the places of the charges to take back whole
     * @throws RefusedException for more than is left of a line, a charge or a set of taxes, or for nothing at all
     */
    public static CreditTotals ofLines(
            Creditable invoice, Taken before, Map<Integer, BigDecimal> lines, List<Integer> charges) {
        return new CreditReckoning(invoice, before).byLines(new TreeMap<>(lines), charges);
    }

    /**
     * An amount, tax included, split over the sets of taxes by what is left of each.
     *
     * @throws RefusedException unless above zero and at most what is left
     */
    public static CreditTotals ofAmount(Creditable invoice, Taken before, Money amount) {
        Money left = left(invoice, before);
        if (!amount.isPositive() || amount.isGreaterThan(left)) {
            throw new RefusedException(
                    "amount",
                    Amounts.plain(amount),
                    "must be above zero and at most " + Amounts.grouped(left) + ", what is left of the invoice");
        }
        return amount.isEqual(left) ? ofRest(invoice, before) : new CreditReckoning(invoice, before).byAmount(amount);
    }

    /** All that is left. @throws RefusedException where nothing is */
    public static CreditTotals ofRest(Creditable invoice, Taken before) {
        if (before.groups().stream().allMatch(g -> g.byAmount() == 0)) {
            Map<Integer, BigDecimal> lines = new TreeMap<>();
            for (int i = 0; i < invoice.lines().size(); i++) {
                lines.put(
                        i,
                        invoice.lines()
                                .get(i)
                                .quantity()
                                .subtract(before.lines().get(i)));
            }
            List<Integer> charges = IntStream.range(0, invoice.charges().size())
                    .filter(i -> before.charges().get(i).signum() == 0)
                    .boxed()
                    .toList();
            return new CreditReckoning(invoice, before).byLines(lines, charges);
        }
        return new CreditReckoning(invoice, before).rest();
    }

    /** What credit notes may still take of an invoice, tax included. */
    public static Money left(Creditable invoice, Taken before) {
        long taken = before.groups().stream().mapToLong(g -> gross(invoice, g)).sum();
        return invoice.total().minus(Money.ofMinor(invoice.currency(), taken));
    }

    private static long gross(Creditable invoice, Taken.Group g) {
        return invoice.taxInside()
                ? g.sum()
                : g.sum() + g.taxes().stream().mapToLong(Long::longValue).sum();
    }

    private CreditTotals byLines(Map<Integer, BigDecimal> wanted, List<Integer> wantedCharges) {
        List<Problem> problems = new ArrayList<>();
        List<BigDecimal> lines = new ArrayList<>(before.lines());
        List<CreditTotals.Part> parts = new ArrayList<>();
        wanted.forEach((place, quantity) -> takeLine(place, quantity, lines, parts, problems));
        List<BigDecimal> charges = new ArrayList<>(before.charges());
        List<CreditTotals.Part> chargeParts = new ArrayList<>();
        for (int place : wantedCharges) {
            if (place < 0 || place >= charges.size() || charges.get(place).signum() != 0) {
                problems.add(new Problem("charges", String.valueOf(place), "is not left on the invoice"));
            } else {
                charges.set(place, BigDecimal.ONE);
                Money net = invoice.charges().get(place).net();
                chargeParts.add(new CreditTotals.Part(
                        place, BigDecimal.ONE, net, Why.of("the charge as it was invoiced", Amounts.grouped(net))));
            }
        }
        if (problems.isEmpty() && parts.isEmpty() && chargeParts.isEmpty()) {
            problems.add(new Problem("lines", "", "choose at least one line to take back"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        List<Taken.Group> groups = new ArrayList<>();
        for (int g = 0; g < invoice.groups().size(); g++) {
            groups.add(afterLines(g, lines, charges, problems));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return totals(parts, chargeParts, new Taken(lines, charges, groups));
    }

    private void takeLine(
            int place,
            BigDecimal quantity,
            List<BigDecimal> lines,
            List<CreditTotals.Part> parts,
            List<Problem> problems) {
        String field = "lines[" + place + "].quantity";
        if (place < 0 || place >= lines.size()) {
            problems.add(new Problem(field, String.valueOf(place), "there is no such line"));
            return;
        }
        BigDecimal left = invoice.lines().get(place).quantity().subtract(lines.get(place));
        boolean fits = quantity.signum() == left.signum() && quantity.abs().compareTo(left.abs()) <= 0;
        if (!fits) {
            problems.add(new Problem(
                    field,
                    quantity.toPlainString(),
                    left.signum() == 0
                            ? "this line was taken back already"
                            : "must be above zero and at most "
                                    + left.stripTrailingZeros().toPlainString() + ", what is left of the line"));
        } else if (quantity.signum() != 0
                || left.signum() == 0 && lines.get(place).signum() == 0) {
            Money was = lineNet(place, lines.get(place));
            lines.set(place, lines.get(place).add(quantity));
            Money net = lineNet(place, lines.get(place)).minus(was);
            parts.add(new CreditTotals.Part(place, quantity, net, lineWhy(place, quantity, net)));
        }
    }

    private Why lineWhy(int place, BigDecimal quantity, Money net) {
        Creditable.Item line = invoice.lines().get(place);
        return Why.of(
                "the invoice's amount for this quantity, less what was taken before",
                quantity.toPlainString() + " of " + line.quantity().toPlainString() + " at "
                        + Amounts.grouped(line.net()) + ": " + Amounts.grouped(net));
    }

    /** A line's cumulative amount: round(net x quantity taken / quantity). */
    private Money lineNet(int place, BigDecimal taken) {
        return invoice.lines().get(place).taken(taken);
    }

    private Taken.Group afterLines(int number, List<BigDecimal> lines, List<BigDecimal> charges, List<Problem> p) {
        TaxGroup group = invoice.groups().get(number);
        Money taken = Money.zero(currency);
        for (int i = 0; i < lines.size(); i++) {
            if (invoice.lines().get(i).group() == number) {
                taken = taken.plus(lineNet(i, lines.get(i)));
            }
        }
        Money discount = group.lines().isZero() || group.discount().isZero()
                ? Money.zero(currency)
                : Amounts.share(
                        group.discount(), taken.getAmount(), group.lines().getAmount());
        Money sum = taken.minus(discount);
        for (int i = 0; i < charges.size(); i++) {
            if (invoice.charges().get(i).group() == number && charges.get(i).signum() != 0) {
                sum = sum.plus(invoice.charges().get(i).net());
            }
        }
        Taken.Group was = before.groups().get(number);
        sum = sum.plus(Money.ofMinor(currency, was.byAmount()));
        if (was.byAmount() != 0 && sum.abs().isGreaterThan(group.sum().abs())) {
            Money left = group.sum().minus(Money.ofMinor(currency, was.sum()));
            p.add(new Problem(
                    "lines",
                    Amounts.plain(sum),
                    "together with the amounts taken back before this is more than the invoice has; at most "
                            + Amounts.grouped(left) + " is left of " + names(group)));
        }
        return new Taken.Group(was.byAmount(), sum.getAmountMinorLong(), taxesOn(group, was, sum));
    }

    /** The taxes of a cumulative sum: as the invoice's were reckoned, never more than its own, at the end all of it. */
    private List<Long> taxesOn(TaxGroup group, Taken.Group was, Money sum) {
        if (sum.isEqual(group.sum())) {
            return minor(group.amounts());
        }
        List<Money> reckoned = TaxReckoning.reckon(
                        currency,
                        List.of(new TaxReckoning.Bearing(group.taxes(), sum, 0)),
                        invoice.taxInside(),
                        TaxRounding.PER_TAX)
                .groups()
                .get(0);
        return between(was, minor(reckoned), group);
    }

    private static List<Long> between(Taken.Group was, List<Long> figures, TaxGroup group) {
        List<Long> result = new ArrayList<>();
        for (int i = 0; i < figures.size(); i++) {
            long all = group.amounts().get(i).getAmountMinorLong();
            long had = was.taxes().get(i);
            long low = Math.min(had, all);
            result.add(Math.max(low, Math.min(Math.max(had, all), figures.get(i))));
        }
        return result;
    }

    private static List<Long> minor(List<Money> amounts) {
        return amounts.stream().map(Money::getAmountMinorLong).toList();
    }

    private CreditTotals byAmount(Money amount) {
        List<Integer> bearing = new ArrayList<>();
        List<BigDecimal> weights = new ArrayList<>();
        for (int g = 0; g < invoice.groups().size(); g++) {
            long left = invoice.groups().get(g).total().getAmountMinorLong()
                    - gross(invoice, before.groups().get(g));
            if (left > 0) {
                bearing.add(g);
                weights.add(BigDecimal.valueOf(left));
            }
        }
        List<Money> shares = Split.byWeights(amount, weights);
        List<Taken.Group> groups = new ArrayList<>(before.groups());
        for (int i = 0; i < shares.size(); i++) {
            int g = bearing.get(i);
            groups.set(g, afterAmount(invoice.groups().get(g), before.groups().get(g), shares.get(i)));
        }
        return totals(List.of(), List.of(), new Taken(before.lines(), before.charges(), groups));
    }

    private Taken.Group afterAmount(TaxGroup group, Taken.Group was, Money share) {
        long part = share.getAmountMinorLong();
        if (invoice.taxInside()) {
            Money sum = Money.ofMinor(currency, was.sum() + part);
            return new Taken.Group(was.byAmount() + part, was.sum() + part, taxesOn(group, was, sum));
        }
        Money gross = Money.ofMinor(currency, gross(invoice, was) + part);
        List<Long> taxes = gross.isEqual(group.total())
                ? minor(group.amounts())
                : between(
                        was,
                        minor(group.amounts().stream()
                                .map(t -> Amounts.share(
                                        t, gross.getAmount(), group.total().getAmount()))
                                .toList()),
                        group);
        long taxBefore = was.taxes().stream().mapToLong(Long::longValue).sum();
        long net = part - (taxes.stream().mapToLong(Long::longValue).sum() - taxBefore);
        return new Taken.Group(was.byAmount() + net, was.sum() + net, taxes);
    }

    private CreditTotals rest() {
        List<Taken.Group> groups = new ArrayList<>();
        for (int g = 0; g < invoice.groups().size(); g++) {
            TaxGroup all = invoice.groups().get(g);
            Taken.Group was = before.groups().get(g);
            long sum = all.sum().getAmountMinorLong();
            groups.add(new Taken.Group(was.byAmount() + sum - was.sum(), sum, minor(all.amounts())));
        }
        return totals(List.of(), List.of(), new Taken(before.lines(), before.charges(), groups));
    }

    private CreditTotals totals(List<CreditTotals.Part> lines, List<CreditTotals.Part> charges, Taken after) {
        List<TaxGroup> groups = new ArrayList<>();
        Map<String, TaxTotal> taxes = new LinkedHashMap<>();
        for (int g = 0; g < invoice.groups().size(); g++) {
            TaxGroup group = share(g, lines, charges, after);
            groups.add(group);
            addTaxes(group, g, after, taxes);
        }
        Money net = Amounts.sum(currency, groups.stream().map(TaxGroup::net).toList());
        Money tax = Amounts.sum(
                currency, taxes.values().stream().map(TaxTotal::amount).toList());
        Money total = net.plus(tax);
        if (!total.isPositive()) {
            throw new RefusedException(
                    "lines", Amounts.plain(total), "a credit note must take back more than zero; choose other lines");
        }
        Money left = left(invoice, after);
        if (left.isNegative()) {
            throw new RefusedException(
                    "lines",
                    Amounts.plain(total),
                    "at most " + Amounts.grouped(left(invoice, before)) + " is left of the invoice");
        }
        boolean whole = left.isZero();
        Money rounding = whole ? invoice.rounding() : Money.zero(currency);
        return new CreditTotals(
                lines,
                charges,
                List.copyOf(groups),
                List.copyOf(taxes.values()),
                IncomeReckoning.ofNote(invoice, before, after),
                invoice.taxInside(),
                net,
                tax,
                total,
                rounding,
                whole,
                after);
    }

    /** What this note takes of one set of taxes. */
    private TaxGroup share(int g, List<CreditTotals.Part> lines, List<CreditTotals.Part> charges, Taken after) {
        TaxGroup all = invoice.groups().get(g);
        Taken.Group was = before.groups().get(g);
        Taken.Group now = after.groups().get(g);
        List<Money> amounts = IntStream.range(0, all.taxes().size())
                .mapToObj(i ->
                        Money.ofMinor(currency, now.taxes().get(i) - was.taxes().get(i)))
                .toList();
        Money sum = Money.ofMinor(currency, now.sum() - was.sum());
        Money charged = of(charges, invoice.charges(), g);
        Money byAmount = Money.ofMinor(currency, now.byAmount() - was.byAmount());
        Money lineSum = of(lines, invoice.lines(), g).plus(byAmount);
        Money discount = lineSum.plus(charged).minus(sum);
        Money tax = Amounts.sum(currency, amounts);
        Money net = invoice.taxInside() ? sum.minus(tax) : sum;
        return new TaxGroup(all.taxes(), lineSum, discount, charged, net, amounts);
    }

    private Money of(List<CreditTotals.Part> parts, List<Creditable.Item> items, int group) {
        return Amounts.sum(
                currency,
                parts.stream()
                        .filter(p -> items.get(p.item()).group() == group)
                        .map(CreditTotals.Part::net)
                        .toList());
    }

    private void addTaxes(TaxGroup group, int g, Taken after, Map<String, TaxTotal> taxes) {
        Money earlier = Money.zero(currency);
        for (int i = 0; i < group.taxes().size(); i++) {
            Tax tax = group.taxes().get(i);
            Money base = tax.compound() ? group.net().plus(earlier) : group.net();
            Money amount = group.amounts().get(i);
            earlier = earlier.plus(amount);
            Money was = Money.ofMinor(currency, before.groups().get(g).taxes().get(i));
            Money now = Money.ofMinor(currency, after.groups().get(g).taxes().get(i));
            Why why = Why.of(
                    "the tax of all that is taken back so far, less what was taken back before",
                    tax.name() + ": " + Amounts.grouped(now) + " − " + Amounts.grouped(was) + " = "
                            + Amounts.grouped(amount));
            taxes.merge(tax.id(), new TaxTotal(tax, base, amount, why), CreditReckoning::together);
        }
    }

    /** The same tax in two sets. */
    static TaxTotal together(TaxTotal a, TaxTotal b) {
        List<String> steps = new ArrayList<>(a.why().steps());
        steps.addAll(b.why().steps());
        return new TaxTotal(
                a.tax(),
                a.base().plus(b.base()),
                a.amount().plus(b.amount()),
                new Why(a.why().rule(), steps));
    }

    private static String names(TaxGroup group) {
        return String.join(" and ", group.taxes().stream().map(Tax::name).toList());
    }
}
