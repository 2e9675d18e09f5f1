package quill.core.document;

import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.tax.Exemption;
import quill.core.tax.TaxRounding;

/**
 * All that a document's figures are made from.
 *
 * @param taxInside whether prices, discounts and charges contain the tax
 * @param exemption the client's, where it holds on the day of issue; else null
 * @param prepaid what was paid before, in this currency; zero where nothing was
 * @param cash how the client's coins round what is due; null where it does not pay in cash
 */
public record DocumentBody(
        CurrencyUnit currency,
        List<Line> lines,
        List<DocumentDiscount> discounts,
        List<Charge> charges,
        boolean taxInside,
        TaxRounding rounding,
        Exemption exemption,
        Money prepaid,
        CashRounding cash) {
    /** Copies the lists; a missing prepaid amount is zero. */
    public DocumentBody {
        lines = List.copyOf(lines);
        discounts = List.copyOf(discounts);
        charges = List.copyOf(charges);
        prepaid = prepaid == null ? Money.zero(currency) : prepaid;
    }

    /** Lines only: nothing off or on the whole, nothing prepaid. */
    public DocumentBody(CurrencyUnit currency, List<Line> lines, boolean taxInside, TaxRounding rounding) {
        this(currency, lines, List.of(), List.of(), taxInside, rounding, null, null, null);
    }
}
