package quill.core.issued;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.Money;
import quill.core.TypedDate;
import quill.core.Why;
import quill.core.document.CreditReckoning;
import quill.core.document.CreditTotals;
import quill.core.document.Extent;
import quill.core.document.Income;
import quill.core.document.Taken;
import quill.core.document.TaxGroup;
import quill.core.money.Amounts;
import quill.core.money.Exchange;
import quill.core.tax.Tax;

/** Writes the tax document for a deposit that was received on a quote: its share of each set of taxes. */
public final class DepositInvoiceWriting {
    private DepositInvoiceWriting() {}

    /**
     * What a deposit comes to, set of taxes by set of taxes.
     *
     * @param billed what was billed of the quote before, as {@link Taken#billed} says it
     * @param received tax included; above zero and at most what is left of the quote
     */
    public static CreditTotals reckon(IssuedDocument quote, Taken billed, Money received) {
        return CreditReckoning.ofAmount(quote.creditable(), billed, received);
    }

    /**
     * The document.
     *
     * @param quote as it was accepted
     * @param receivedOn on which the money came
     * @param exchange of its own day into the business's own currency; null in that currency
     * @param job with what is left of the quote after it
     */
    public static IssuedDocument write(
            String number,
            IssuedDocument quote,
            CreditTotals deposit,
            LocalDate today,
            LocalDate receivedOn,
            Exchange exchange,
            Job job) {
        List<TaxGroup> groups = deposit.groups().stream()
                .filter(g -> !g.sum().isZero() || !g.tax().isZero())
                .map(DepositInvoiceWriting::asOneLine)
                .toList();
        List<IssuedLine> lines = new ArrayList<>();
        for (int g = 0; g < groups.size(); g++) {
            lines.add(line(quote, groups.get(g), g, groups.size() > 1));
        }
        Matter of = quote.matter();
        Money zero = Money.zero(quote.currency());
        return new IssuedDocument(
                number,
                today,
                null,
                quote.from(),
                quote.to(),
                new Matter(
                        of.subject(),
                        of.reference(),
                        of.project(),
                        of.fields(),
                        null,
                        null,
                        "Deposit received on " + TypedDate.inWords(receivedOn) + ".",
                        "",
                        of.footer()),
                new IssuedDocument.Body(lines, List.of(), List.of()),
                new IssuedSums(
                        deposit.taxes().stream()
                                .filter(t -> !t.base().isZero() || !t.amount().isZero())
                                .toList(),
                        groups,
                        deposit.taxInside(),
                        new Reckoned(deposit.net(), netWhy(deposit)),
                        new Reckoned(
                                deposit.tax(), Why.of("the share of each tax in it", Amounts.grouped(deposit.tax()))),
                        new Reckoned(deposit.total(), deposit.totalWhy()),
                        new Reckoned(zero, Why.of("nothing was paid before")),
                        new Reckoned(zero, Why.of("nothing is rounded")),
                        new Reckoned(deposit.total(), Why.of("what was received", Amounts.grouped(deposit.total())))),
                exchange,
                Paying.NOTHING,
                quote.look(),
                job);
    }

    /** It has one line for each set of taxes: whatever a discount lowered, it was lowered before the deposit. */
    private static TaxGroup asOneLine(TaxGroup g) {
        Money zero = Money.zero(g.net().getCurrencyUnit());
        return new TaxGroup(g.taxes(), g.sum(), zero, zero, g.net(), g.amounts());
    }

    private static IssuedLine line(IssuedDocument quote, TaxGroup group, int place, boolean several) {
        Money sum = group.sum();
        String taxes = several ? " (" + Tax.names(group.taxes()) + ")" : "";
        return new IssuedLine(
                "Deposit on quote " + quote.number() + taxes,
                sum.isNegative() ? BigDecimal.ONE.negate() : BigDecimal.ONE,
                "",
                "",
                sum.getAmount().abs(),
                new Extent.None(),
                IssuedLine.Sums.plain(sum),
                place,
                Why.of("the share of the deposit at this rate", Amounts.grouped(sum)),
                "",
                null,
                Income.DEPOSITS);
    }

    private static Why netWhy(CreditTotals deposit) {
        return Why.of(
                "what was received, less the tax in it",
                Amounts.grouped(deposit.total()) + " − " + Amounts.grouped(deposit.tax()) + " = "
                        + Amounts.grouped(deposit.net()));
    }
}
