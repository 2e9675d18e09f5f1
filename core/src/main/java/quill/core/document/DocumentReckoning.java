package quill.core.document;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.money.Amounts;
import quill.core.tax.TaxRounding;

/** Line and document totals (EN 16931: BR-CO-10 to BR-CO-16 for net, tax, total and due). */
public final class DocumentReckoning {
    private static final BigDecimal LIMIT = new BigDecimal("1000000000000");

    private DocumentReckoning() {}

    /** Lines only: see {@link #reckon(DocumentBody)}. */
    public static Totals reckon(CurrencyUnit currency, List<Line> lines, boolean taxInside, TaxRounding rounding) {
        return reckon(new DocumentBody(currency, lines, taxInside, rounding));
    }

    /**
     * Reckons a document. Rounding happens at a line's gross, at each discount and charge, at the tax, and at what is
     * due in cash; nowhere else. Example: 14.5 x 68.00 less 10 % is 986.00 - 98.60 = 887.40.
     *
     * @throws RefusedException if there is no line, a discount exceeds what it lowers, the total is negative or too
     *     large, or more is prepaid than the total
     */
    public static Totals reckon(DocumentBody body) {
        List<Problem> problems = new ArrayList<>();
        Totals totals = new Summing(body, problems).totals();
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        refuse(totals);
        return totals;
    }

    /**
     * The figures alone, of a document that somebody else wrote: also where its total is below zero, or where a
     * discount exceeds its line.
     *
     * @throws RefusedException if there is no line
     */
    public static Totals figures(DocumentBody body) {
        return new Summing(body, new ArrayList<>()).totals();
    }

    private static void refuse(Totals totals) {
        Money total = totals.total();
        if (total.isNegative()) {
            throw new RefusedException(
                    "total", Amounts.plain(total), "must not be below zero; to give money back, write a credit note");
        }
        if (total.getAmount().compareTo(LIMIT) >= 0) {
            throw new RefusedException("total", Amounts.plain(total), "must be below 1,000,000,000,000");
        }
        if (totals.prepaid().isGreaterThan(total)) {
            throw new RefusedException(
                    "prepaid",
                    Amounts.plain(totals.prepaid()),
                    "must not be more than the total, " + Amounts.grouped(total));
        }
    }
}
