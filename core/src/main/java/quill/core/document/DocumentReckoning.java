package quill.core.document;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.Why;
import quill.core.money.Amounts;
import quill.core.tax.TaxReckoning;
import quill.core.tax.TaxRounding;
import quill.core.tax.TaxTotal;

/** Line and document totals (EN 16931: BR-CO-10 to BR-CO-15 for net, tax and total). */
public final class DocumentReckoning {
    private DocumentReckoning() {}

    /**
     * Reckons a document. Rounding happens at a line's gross, at a line's discount and at the tax, nowhere else.
     * Example: 14.5 x 68.00 less 10 % is 986.00 - 98.60 = 887.40.
     *
     * @throws RefusedException if there is no line, a discount exceeds its line, or the total is negative or too large
     */
    public static Totals reckon(CurrencyUnit currency, List<Line> lines, boolean taxInside, TaxRounding rounding) {
        if (lines.isEmpty()) {
            throw new RefusedException("lines", "", "write at least one line");
        }
        List<Problem> problems = new ArrayList<>();
        List<LineTotal> totals = new ArrayList<>(lines.size());
        List<TaxReckoning.Bearing> bearings = new ArrayList<>(lines.size());
        for (int i = 0; i < lines.size(); i++) {
            LineTotal total = line(currency, lines.get(i), "lines[" + i + "].discount", problems);
            totals.add(total);
            bearings.add(new TaxReckoning.Bearing(lines.get(i).taxes(), total.net()));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        List<TaxTotal> taxes = TaxReckoning.reckon(currency, bearings, taxInside, rounding);
        return add(currency, totals, taxes, taxInside);
    }

    private static LineTotal line(CurrencyUnit currency, Line line, String field, List<Problem> problems) {
        BigDecimal exact = line.quantity().multiply(line.unitPrice());
        Money gross = Amounts.round(currency, exact);
        List<String> steps = new ArrayList<>();
        steps.add(line.quantity().toPlainString() + " × " + line.unitPrice().toPlainString() + " = "
                + Amounts.grouped(gross));
        Money discount = Money.zero(currency);
        if (line.discount() instanceof Discount.OfPercent percent) {
            discount = percent.percent().of(gross);
            steps.add(percent.percent() + " of " + Amounts.grouped(gross) + " = " + Amounts.grouped(discount));
        } else if (line.discount() instanceof Discount.OfAmount sum) {
            discount = sum.amount();
        }
        if (discount.isPositive() && discount.isGreaterThan(gross)) {
            problems.add(new Problem(
                    field, Amounts.plain(discount), "must not be more than the line, " + Amounts.grouped(gross)));
        }
        Money net = gross.minus(discount);
        if (!discount.isZero()) {
            steps.add(Amounts.grouped(gross) + " − " + Amounts.grouped(discount) + " = " + Amounts.grouped(net));
        }
        String rule = discount.isZero() ? "quantity × unit price" : "quantity × unit price, less the discount";
        return new LineTotal(gross, discount, net, new Why(rule, steps));
    }

    private static Totals add(CurrencyUnit currency, List<LineTotal> lines, List<TaxTotal> taxes, boolean taxInside) {
        Money sum = Amounts.sum(currency, lines.stream().map(LineTotal::net).toList());
        Money tax = Amounts.sum(currency, taxes.stream().map(TaxTotal::amount).toList());
        Money net = taxInside ? sum.minus(tax) : sum;
        Money total = net.plus(tax);
        if (total.isNegative()) {
            throw new RefusedException(
                    "total", Amounts.plain(total), "must not be below zero; to give money back, write a credit note");
        }
        if (total.getAmount().compareTo(new BigDecimal("1000000000000")) >= 0) {
            throw new RefusedException("total", Amounts.plain(total), "must be below 1,000,000,000,000");
        }
        Why netWhy = taxInside
                ? Why.of("the lines, less the tax inside them", difference(sum, tax, net))
                : Why.of(
                        "the sum of the lines",
                        joined(lines.stream().map(LineTotal::net).toList()) + " = " + Amounts.grouped(net));
        Why taxWhy = Why.of(
                "the sum of the taxes, each as shown",
                taxes.stream()
                                .map(t -> t.tax().name() + " " + Amounts.grouped(t.amount()))
                                .collect(Collectors.joining(" + "))
                        + " = " + Amounts.grouped(tax));
        Why totalWhy = Why.of(
                "net + tax", Amounts.grouped(net) + " + " + Amounts.grouped(tax) + " = " + Amounts.grouped(total));
        return new Totals(List.copyOf(lines), taxes, net, netWhy, tax, taxWhy, total, totalWhy);
    }

    private static String difference(Money from, Money less, Money result) {
        return Amounts.grouped(from) + " − " + Amounts.grouped(less) + " = " + Amounts.grouped(result);
    }

    private static String joined(List<Money> amounts) {
        int shown = 12;
        String text = amounts.stream().limit(shown).map(Amounts::grouped).collect(Collectors.joining(" + "));
        return amounts.size() > shown ? text + " + … (" + amounts.size() + " lines)" : text;
    }
}
