package quill.server.invoices;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.Why;
import quill.core.document.CreditTotals;
import quill.core.document.Creditable;
import quill.core.document.TaxGroup;
import quill.core.money.Amounts;
import quill.core.money.Exchange;
import quill.core.money.Percent;
import quill.core.tax.Tax;
import quill.core.tax.TaxCategory;
import quill.core.tax.TaxTotal;
import quill.server.business.BusinessService;
import quill.server.business.DocumentSettings;
import quill.server.common.Amount;
import quill.server.common.Figure;
import quill.server.invoices.FixedDocument.PrintedExtra;
import quill.server.invoices.FixedDocument.PrintedLine;
import quill.server.invoices.FixedDocument.PrintedTax;

/** Reads an issued invoice back for taking it back, and fixes the credit note that does so. */
@Component
class CreditFixing {
    private final BusinessService business;
    private final DocumentSettings documents;

    CreditFixing(BusinessService business, DocumentSettings documents) {
        this.business = business;
        this.documents = documents;
    }

    /** An issued invoice as the core takes it back. */
    static Creditable creditable(FixedDocument d) {
        List<Tax> taxes = d.taxes().stream().map(CreditFixing::tax).toList();
        return new Creditable(
                CurrencyUnit.of(d.currency()),
                d.taxInside(),
                d.lines().stream()
                        .map(l -> new Creditable.Item(
                                new BigDecimal(l.quantity()), l.net().money(), l.group(), l.category()))
                        .toList(),
                d.charges().stream()
                        .map(c -> new Creditable.Item(
                                BigDecimal.ONE,
                                c.amount().money(),
                                c.parts().get(0).group()))
                        .toList(),
                d.groups().stream()
                        .map(g -> new TaxGroup(
                                g.taxes().stream().map(taxes::get).toList(),
                                g.lines().money(),
                                g.discount().money(),
                                g.charges().money(),
                                g.net().money(),
                                g.amounts().stream().map(Amount::money).toList()))
                        .toList(),
                d.rounding().money());
    }

    private static Tax tax(PrintedTax t) {
        return new Tax(
                t.id(),
                t.name(),
                Percent.of(t.rate().replace("%", "")),
                TaxCategory.valueOf(t.category()),
                Boolean.TRUE.equals(t.compound()),
                t.reason());
    }

    /**
     * A credit note. One of the whole at once says the invoice's own lines, discounts and charges again; one of a part
     * says what it takes.
     */
    FixedDocument creditNote(
            String number, FixedDocument of, CreditTotals note, boolean mirror, String reason, LocalDate today) {
        Money prepaid = mirror ? of.prepaid().money() : Money.zero(note.total().getCurrencyUnit());
        Money due = note.total().minus(prepaid).plus(note.rounding());
        Exchange exchange = Fixing.exchange(of, business.business().currencyUnit());
        List<TaxTotal> taxes = note.taxes().stream()
                .filter(t -> !t.base().isZero() || !t.amount().isZero())
                .toList();
        return new FixedDocument(
                DocumentKind.CREDIT_NOTE,
                number,
                new FixedDocument.Corrects(of.number(), of.issuedOn(), reason, note.whole()),
                of.from(),
                of.to(),
                of.subject(),
                of.reference(),
                of.project(),
                of.fields(),
                today,
                of.supplyDate(),
                of.supplyEnd(),
                of.taxInside(),
                of.currency(),
                mirror ? of.lines() : creditLines(of, note, reason),
                mirror ? of.discounts() : sharesOfDiscounts(note, groupsTaken(note)),
                mirror ? of.charges() : note.lines().isEmpty() ? List.of() : creditCharges(of, note, groupsTaken(note)),
                (mirror ? note.taxes() : taxes).stream().map(Fixing::tax).toList(),
                Fixing.groups(mirror ? note.groups() : groupsTaken(note), mirror ? note.taxes() : taxes),
                Figure.of(note.net(), netWhy(note)),
                Figure.of(note.tax(), taxWhy(note)),
                Figure.of(note.total(), note.totalWhy()),
                Figure.of(prepaid, Why.of("goes back to deposits held")),
                Figure.of(note.rounding(), Why.of("the invoice's rounding, taken back with the last of it")),
                Figure.of(due, Why.of("total − prepaid + rounding", Amounts.grouped(due))),
                Fixing.inOwn(exchange, note.tax(), note.total()),
                "",
                "",
                of.footer(),
                "",
                "",
                "",
                "",
                documents.setting().layout(),
                of.logo(),
                of.accent(),
                of.lineShows(),
                of.typeface());
    }

    private static Why netWhy(CreditTotals note) {
        return Why.of(
                "the nets of what is taken back",
                note.groups().stream()
                                .filter(g -> !g.net().isZero())
                                .map(g -> Amounts.grouped(g.net()))
                                .collect(Collectors.joining(" + "))
                        + " = " + Amounts.grouped(note.net()));
    }

    private static Why taxWhy(CreditTotals note) {
        return Why.of(
                "the sum of the taxes, each as shown",
                note.taxes().stream()
                                .map(t -> t.tax().name() + " " + Amounts.grouped(t.amount()))
                                .collect(Collectors.joining(" + "))
                        + " = " + Amounts.grouped(note.tax()));
    }

    private static boolean taken(TaxGroup g) {
        return !g.lines().isZero()
                || !g.charges().isZero()
                || !g.discount().isZero()
                || !g.total().isZero();
    }

    private static List<TaxGroup> groupsTaken(CreditTotals note) {
        return note.groups().stream().filter(CreditFixing::taken).toList();
    }

    private static int placeOf(List<TaxGroup> taken, TaxGroup group) {
        for (int i = 0; i < taken.size(); i++) {
            if (taken.get(i) == group) {
                return i;
            }
        }
        return 0;
    }

    private static List<PrintedLine> creditLines(FixedDocument of, CreditTotals note, String reason) {
        List<TaxGroup> taken = groupsTaken(note);
        List<PrintedLine> lines = new ArrayList<>();
        for (CreditTotals.Part part : note.lines()) {
            PrintedLine was = of.lines().get(part.item());
            Amount net = Amount.of(part.net());
            lines.add(new PrintedLine(
                    was.description(),
                    part.quantity().stripTrailingZeros().toPlainString(),
                    was.unit(),
                    was.unitPrice(),
                    was.discount(),
                    was.tax(),
                    net,
                    Amount.of(Money.zero(part.net().getCurrencyUnit())),
                    net,
                    placeOf(taken, note.groups().get(was.group())),
                    part.why(),
                    was.note(),
                    was.item(),
                    was.unitCode(),
                    was.category()));
        }
        if (note.lines().isEmpty()) {
            // A document has a line at least: charges taken back alone stand as lines.
            creditCharges(of, note, taken).forEach(c -> lines.add(asLine(c, taken)));
        }
        if (!lines.isEmpty()) {
            return lines;
        }
        for (int i = 0; i < taken.size(); i++) {
            TaxGroup g = taken.get(i);
            Amount net = Amount.of(g.lines());
            lines.add(new PrintedLine(
                    "Taken back: " + reason,
                    g.lines().isNegative() ? "-1" : "1",
                    "",
                    Amounts.plain(g.lines().abs()),
                    "",
                    Fixing.shortNames(g.taxes()),
                    net,
                    Amount.of(Money.zero(g.lines().getCurrencyUnit())),
                    net,
                    i,
                    Why.of("the share of what is left at this rate", Amounts.grouped(g.lines())),
                    "",
                    null,
                    "",
                    ""));
        }
        return lines;
    }

    private static PrintedLine asLine(PrintedExtra charge, List<TaxGroup> taken) {
        int group = charge.parts().get(0).group();
        Money amount = charge.amount().money();
        return new PrintedLine(
                charge.description(),
                "1",
                "",
                Amounts.plain(amount),
                "",
                Fixing.shortNames(taken.get(group).taxes()),
                charge.amount(),
                Amount.of(Money.zero(amount.getCurrencyUnit())),
                charge.amount(),
                group,
                charge.why(),
                "",
                null,
                "",
                "");
    }

    private static List<PrintedExtra> sharesOfDiscounts(CreditTotals note, List<TaxGroup> taken) {
        List<FixedDocument.ExtraPart> parts = new ArrayList<>();
        Money sum = Money.zero(note.total().getCurrencyUnit());
        for (int i = 0; i < taken.size(); i++) {
            Money discount = taken.get(i).discount();
            if (!discount.isZero()) {
                parts.add(new FixedDocument.ExtraPart(i, Amount.of(discount)));
                sum = sum.plus(discount);
            }
        }
        return parts.isEmpty()
                ? List.of()
                : List.of(new PrintedExtra(
                        "Their share of the discount",
                        "",
                        Amount.of(sum),
                        Amount.of(sum),
                        parts,
                        Why.of("the invoice's discounts, in proportion to the lines", Amounts.grouped(sum))));
    }

    private static List<PrintedExtra> creditCharges(FixedDocument of, CreditTotals note, List<TaxGroup> taken) {
        return note.charges().stream()
                .map(part -> {
                    PrintedExtra was = of.charges().get(part.item());
                    int group =
                            placeOf(taken, note.groups().get(was.parts().get(0).group()));
                    return new PrintedExtra(
                            was.description(),
                            was.how(),
                            was.base(),
                            was.amount(),
                            List.of(new FixedDocument.ExtraPart(group, was.amount())),
                            was.why());
                })
                .toList();
    }
}
