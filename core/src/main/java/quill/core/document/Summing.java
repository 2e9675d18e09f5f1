package quill.core.document;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.money.Amounts;
import quill.core.money.Split;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.core.tax.TaxReckoning;
import quill.core.tax.TaxReckoning.Bearing;
import quill.core.tax.TaxRounding;

/** One document on its way from lines to totals. Used once. */
final class Summing {
    private final DocumentBody body;
    private final CurrencyUnit currency;
    private final List<Problem> problems;
    private final boolean relieved;
    private final List<Tax> exempt;
    private final Map<String, Group> groups = new LinkedHashMap<>();
    private final List<LineTotal> lines = new ArrayList<>();
    private final List<ExtraTotal> discounts = new ArrayList<>();
    private final List<ExtraTotal> charges = new ArrayList<>();

    /** A set of taxes with what bears it. */
    private static final class Group {
        private final int number;
        private final List<Tax> taxes;
        private final List<Integer> lineNumbers = new ArrayList<>();
        private Money lines;
        private Money discount;
        private Money charges;

        private Group(int number, List<Tax> taxes, Money zero) {
            this.number = number;
            this.taxes = taxes;
            this.lines = zero;
            this.discount = zero;
            this.charges = zero;
        }

        private Money sum() {
            return lines.minus(discount).plus(charges);
        }
    }

    Summing(DocumentBody body, List<Problem> problems) {
        this.body = body;
        this.currency = body.currency();
        this.problems = problems;
        this.relieved = body.exemption() != null && body.taxInside();
        this.exempt = body.exemption() == null ? null : List.of(body.exemption().tax());
    }

    Totals totals() {
        if (body.lines().isEmpty()) {
            throw new RefusedException("lines", "", "write at least one line");
        }
        for (int i = 0; i < body.lines().size(); i++) {
            line(body.lines().get(i), i);
        }
        relieveLines();
        Money sum = Amounts.sum(currency, lines.stream().map(LineTotal::net).toList());
        for (int i = 0; i < body.discounts().size(); i++) {
            discount(body.discounts().get(i), sum, i);
        }
        body.charges().forEach(c -> charge(c, sum));
        return add();
    }

    private Group group(List<Tax> taxes) {
        // A set is known by its taxes' ids in their order: far cheaper to compare than the taxes themselves.
        String key = taxes.size() == 1
                ? taxes.get(0).id()
                : taxes.stream().map(Tax::id).collect(Collectors.joining("|"));
        Group group = groups.get(key);
        if (group == null) {
            group = new Group(groups.size(), taxes, Money.zero(currency));
            groups.put(key, group);
        }
        return group;
    }

    private void line(Line line, int number) {
        Money gross = Amounts.round(currency, line.quantity().multiply(line.unitPrice()));
        Money discount = line.discount().of(gross);
        if (discount.isPositive() && discount.isGreaterThan(gross)) {
            problems.add(new Problem(
                    "lines[" + number + "].discount",
                    Amounts.plain(discount),
                    "must not be more than the line, " + Amounts.grouped(gross)));
        }
        Group group = group(line.taxes());
        Money net = gross.minus(discount);
        group.lines = group.lines.plus(net);
        group.lineNumbers.add(number);
        lines.add(new LineTotal(line, gross, discount, Money.zero(currency), net, group.number));
    }

    /** The tax inside an exempt client's lines is reckoned once for each set and taken off its lines, split by them. */
    private void relieveLines() {
        if (!relieved) {
            return;
        }
        for (Group group : groups.values()) {
            Money tax = TaxReckoning.inside(group.lines, group.taxes);
            overLines(group, tax).forEach((number, share) -> {
                LineTotal l = lines.get(number);
                lines.set(
                        number,
                        new LineTotal(
                                l.line(),
                                l.gross(),
                                l.discount(),
                                share,
                                l.net().minus(share),
                                l.group()));
                group.lines = group.lines.minus(share);
            });
        }
    }

    /**
     * An amount split by size over the lines of a group whose sign is the group's, by their numbers; largest first, so
     * that the order of lines changes nothing. Empty where nothing is to be split, or no line bears it.
     */
    private Map<Integer, Money> overLines(Group group, Money amount) {
        List<Integer> bearing = amount.isZero()
                ? List.of()
                : group.lineNumbers.stream()
                        .filter(i -> group.lines.isNegative()
                                ? lines.get(i).net().isNegative()
                                : lines.get(i).net().isPositive())
                        .sorted(Comparator.comparing((Integer i) -> lines.get(i).net())
                                .reversed())
                        .toList();
        Map<Integer, Money> shares = new LinkedHashMap<>();
        if (!bearing.isEmpty()) {
            List<Money> split = Split.byWeights(
                    amount,
                    bearing.stream()
                            .map(i -> lines.get(i).net().getAmount().abs())
                            .toList());
            for (int i = 0; i < bearing.size(); i++) {
                shares.put(bearing.get(i), split.get(i));
            }
        }
        return shares;
    }

    private void discount(DocumentDiscount d, Money sum, int number) {
        Money full = d.extent().of(sum);
        List<Group> bearing = new ArrayList<>();
        List<Money> shares = new ArrayList<>();
        if (!d.taxes().isEmpty()) {
            bearing.add(group(d.taxes()));
            shares.add(full);
        } else {
            // In the order of their names, not of the lines: a spare cent must not depend on the order of lines.
            groups.entrySet().stream()
                    .filter(e -> e.getValue().lines.isPositive())
                    .sorted(Map.Entry.comparingByKey())
                    .forEach(e -> bearing.add(e.getValue()));
            if (!bearing.isEmpty()) {
                shares.addAll(Split.byWeights(
                        full, bearing.stream().map(g -> g.lines.getAmount()).toList()));
            }
        }
        // Where no lines bear it, as with a percentage of nothing but returns, it would be printed and not counted.
        boolean tooMuch = bearing.isEmpty() && !full.isZero() || full.isPositive() && full.isGreaterThan(sum);
        Money relief = Money.zero(currency);
        List<ExtraTotal.Part> parts = new ArrayList<>();
        for (int i = 0; i < bearing.size(); i++) {
            Group g = bearing.get(i);
            Money inside = insideOf(shares.get(i), d.extent(), g.taxes);
            relief = relief.plus(inside);
            g.discount = g.discount.plus(shares.get(i)).minus(inside);
            parts.add(new ExtraTotal.Part(g.number, g.taxes, shares.get(i).minus(inside)));
            tooMuch |= full.isPositive() && g.discount.isGreaterThan(g.lines);
        }
        if (tooMuch) {
            problems.add(new Problem(
                    "discounts[" + number + "].amount",
                    Amounts.plain(full),
                    "must not be more than the lines that it lowers, " + Amounts.grouped(sum)));
        }
        discounts.add(new ExtraTotal(d.reason(), d.extent(), sum, relief, full.minus(relief), parts));
    }

    /** A percentage is taken of lines that have lost their tax already; a sum that was typed still has it inside. */
    private Money insideOf(Money amount, Extent extent, List<Tax> taxes) {
        return relieved && extent instanceof Extent.OfAmount
                ? TaxReckoning.inside(amount, taxes)
                : Money.zero(currency);
    }

    private void charge(Charge c, Money sum) {
        Money full = c.extent().of(sum);
        Group group = group(c.taxes());
        Money relief = insideOf(full, c.extent(), c.taxes());
        Money amount = full.minus(relief);
        group.charges = group.charges.plus(amount);
        List<ExtraTotal.Part> parts = List.of(new ExtraTotal.Part(group.number, group.taxes, amount));
        charges.add(new ExtraTotal(c.description(), c.extent(), sum, relief, amount, parts));
    }

    private Totals add() {
        boolean inside = body.taxInside() && !relieved;
        TaxReckoning.Reckoned reckoned = TaxReckoning.reckon(currency, bearings(), inside, body.rounding());
        Money tax = Amounts.sum(
                currency, reckoned.taxes().stream().map(t -> t.amount()).toList());
        Money sum =
                Amounts.sum(currency, groups.values().stream().map(Group::sum).toList());
        Money net = inside ? sum.minus(tax) : sum;
        Money total = net.plus(tax);
        Money unrounded = total.minus(body.prepaid());
        Money rounding =
                body.cash() == null ? Money.zero(currency) : body.cash().of(unrounded);
        return new Totals(
                List.copyOf(lines),
                List.copyOf(discounts),
                List.copyOf(charges),
                reckoned.taxes(),
                taxGroups(reckoned),
                inside,
                net,
                tax,
                total,
                body.prepaid(),
                rounding,
                unrounded.plus(rounding));
    }

    /** What would be charged falls to category E; what is charged to nobody stays in its own category. */
    private List<Tax> borneBy(List<Tax> set) {
        return exempt == null || set.stream().noneMatch(t -> t.category() == TaxCategory.S) ? set : exempt;
    }

    private List<Bearing> bearings() {
        List<Bearing> bearings = new ArrayList<>();
        if (body.rounding() == TaxRounding.PER_TAX) {
            for (Group group : groups.values()) {
                bearings.add(new Bearing(borneBy(group.taxes), group.sum(), group.number));
            }
            return bearings;
        }
        for (Group group : groups.values()) {
            perLine(group, bearings);
        }
        return bearings;
    }

    /** The group's discount is split over its lines first, then each line and each charge is rounded for itself. */
    private void perLine(Group group, List<Bearing> bearings) {
        Map<Integer, Money> off = overLines(group, group.discount);
        List<Tax> taxes = borneBy(group.taxes);
        for (int i : group.lineNumbers) {
            Money share = off.getOrDefault(i, Money.zero(currency));
            bearings.add(new Bearing(taxes, lines.get(i).net().minus(share), group.number));
        }
        charges.stream()
                .filter(c -> c.parts().get(0).group() == group.number)
                .forEach(c -> bearings.add(new Bearing(taxes, c.amount(), group.number)));
        if (off.isEmpty() && !group.discount.isZero()) {
            bearings.add(new Bearing(taxes, group.discount.negated(), group.number));
        }
    }

    private List<TaxGroup> taxGroups(TaxReckoning.Reckoned reckoned) {
        List<TaxGroup> result = new ArrayList<>();
        for (Group g : groups.values()) {
            Money net = g.sum().minus(reckoned.inside().get(g.number));
            result.add(new TaxGroup(
                    borneBy(g.taxes),
                    g.lines,
                    g.discount,
                    g.charges,
                    net,
                    reckoned.groups().get(g.number)));
        }
        return List.copyOf(result);
    }
}
