package quill.core.document;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.money.Amounts;
import quill.core.tax.TaxReckoning;
import quill.core.tax.TaxRounding;
import quill.core.tax.TaxTotal;

/** Line and document totals (EN 16931: BR-CO-10 to BR-CO-15 for net, tax and total). */
public final class DocumentReckoning {
    private static final BigDecimal LIMIT = new BigDecimal("1000000000000");

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
        Money gross = Amounts.round(currency, line.quantity().multiply(line.unitPrice()));
        Money discount = Money.zero(currency);
        if (line.discount() instanceof Discount.OfPercent percent) {
            discount = percent.percent().of(gross);
        } else if (line.discount() instanceof Discount.OfAmount sum) {
            discount = sum.amount();
        }
        if (discount.isPositive() && discount.isGreaterThan(gross)) {
            problems.add(new Problem(
                    field, Amounts.plain(discount), "must not be more than the line, " + Amounts.grouped(gross)));
        }
        return new LineTotal(line, gross, discount, gross.minus(discount));
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
        if (total.getAmount().compareTo(LIMIT) >= 0) {
            throw new RefusedException("total", Amounts.plain(total), "must be below 1,000,000,000,000");
        }
        return new Totals(List.copyOf(lines), taxes, taxInside, net, tax, total);
    }
}
