package quill.core.latefee;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.joda.money.Money;
import quill.core.money.Split;
import quill.core.tax.Tax;
import quill.core.tax.TaxReckoning;
import quill.core.tax.TaxRounding;
import quill.core.tax.TaxTotal;

/**
 * The taxes that a late fee bears. By default none: a late fee is outside the scope of tax. Where the tax rules of the
 * business say otherwise, a fee follows the invoice that it is charged on, as what is due for the same supply: it is
 * split over the invoice's sets of taxes, and contains the tax where the invoice's prices do (common practice). So a
 * client that is exempt, or to whom the tax is shifted, bears none on a fee either.
 *
 * @param borne whether fees bear tax
 * @param inside whether a fee contains the tax; else it is added
 * @param shares the invoice's sets of taxes; empty until the invoice is issued
 */
public record FeeTax(boolean borne, boolean inside, List<Share> shares) {
    /** A set of taxes with what bears it on the invoice, above zero. */
    public record Share(List<Tax> taxes, BigDecimal weight) {}

    /** A fee with its taxes. @param amount what the client is asked for, tax included */
    record Taxed(Money amount, List<TaxTotal> taxes) {}

    /** Copies the list. */
    public FeeTax {
        shares = shares == null ? List.of() : List.copyOf(shares);
    }

    /** No tax. */
    public static FeeTax none() {
        return new FeeTax(false, false, List.of());
    }

    /** The taxes of an invoice, of which no share is known yet. */
    static FeeTax asInvoiced() {
        return new FeeTax(true, false, List.of());
    }

    /** Puts tax on a fee, each tax rounded once. */
    Taxed on(Money fee) {
        if (!borne || shares.isEmpty()) {
            return new Taxed(fee, List.of());
        }
        List<Money> parts =
                Split.byWeights(fee, shares.stream().map(Share::weight).toList());
        List<TaxReckoning.Bearing> bearings = new ArrayList<>();
        IntStream.range(0, parts.size())
                .forEach(
                        i -> bearings.add(new TaxReckoning.Bearing(shares.get(i).taxes(), parts.get(i), i)));
        List<TaxTotal> taxes =
                TaxReckoning.reckon(fee.getCurrencyUnit(), bearings, inside, TaxRounding.PER_TAX).taxes().stream()
                        .filter(t -> !t.amount().isZero())
                        .toList();
        Money amount = fee;
        if (!inside) {
            for (TaxTotal tax : taxes) {
                amount = amount.plus(tax.amount());
            }
        }
        return new Taxed(amount, taxes);
    }
}
