package quill.server.documents;

import java.util.List;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.Why;
import quill.core.document.Extent;
import quill.core.document.TaxGroup;
import quill.core.issued.IssuedDocument;
import quill.core.issued.IssuedExtra;
import quill.core.issued.IssuedLine;
import quill.core.issued.IssuedSums;
import quill.core.issued.Job;
import quill.core.issued.Reckoned;
import quill.core.money.Amounts;
import quill.core.money.Exchange;
import quill.core.tax.Tax;
import quill.core.tax.TaxTotal;
import quill.server.common.Amount;
import quill.server.common.Figure;
import quill.server.documents.PrintedDocument.PrintedBody;
import quill.server.documents.PrintedDocument.PrintedExtra;
import quill.server.documents.PrintedDocument.PrintedGroup;
import quill.server.documents.PrintedDocument.PrintedLine;
import quill.server.documents.PrintedDocument.PrintedLineSums;
import quill.server.documents.PrintedDocument.PrintedSums;
import quill.server.documents.PrintedDocument.PrintedTax;

/** Derives from an issued document what is printed of it. */
final class Printing {
    private Printing() {}

    static PrintedDocument print(DocumentKind kind, IssuedDocument d) {
        IssuedSums sums = d.sums();
        return new PrintedDocument(
                kind,
                d.number(),
                d.corrects(),
                d.from(),
                d.to(),
                d.issuedOn(),
                d.currency().getCode(),
                d.matter(),
                new PrintedBody(
                        sums.taxInside(),
                        d.lines().stream().map(l -> line(l, sums)).toList(),
                        d.body().discounts().stream().map(Printing::extra).toList(),
                        d.body().charges().stream().map(Printing::extra).toList(),
                        sums.taxes().stream().map(Printing::tax).toList(),
                        groups(sums),
                        job(d.job())),
                new PrintedSums(
                        figure(sums.net()),
                        figure(sums.tax()),
                        figure(sums.total()),
                        figure(sums.prepaid()),
                        figure(sums.rounding()),
                        figure(sums.due()),
                        d.exchange() == null
                                ? null
                                : inOwn(
                                        d.exchange(),
                                        sums.tax().amount(),
                                        sums.total().amount())),
                d.paying(),
                d.look());
    }

    private static PrintedDocument.PrintedJob job(Job job) {
        return job == null
                ? null
                : new PrintedDocument.PrintedJob(
                        job.quote(),
                        job.quotedOn(),
                        Amount.of(job.total()),
                        job.earlier().stream()
                                .map(e -> new PrintedDocument.PrintedEarlier(
                                        e.number(), e.issuedOn(), e.title(), e.deducted(), Amount.of(e.total())))
                                .toList(),
                        Amount.of(job.left()));
    }

    private static Figure figure(Reckoned r) {
        return Figure.of(r.amount(), r.why());
    }

    /** A tax and a total in the business's own currency; null for a document in that currency. */
    static PrintedDocument.InOwnCurrency inOwn(Exchange exchange, Money tax, Money total) {
        if (exchange.own().equals(tax.getCurrencyUnit())) {
            return null;
        }
        return new PrintedDocument.InOwnCurrency(
                exchange.own().getCode(),
                exchange.rate().stripTrailingZeros().toPlainString(),
                inOwn(exchange, tax),
                inOwn(exchange, total));
    }

    private static Figure inOwn(Exchange exchange, Money amount) {
        Money own = exchange.of(amount);
        return Figure.of(
                own,
                Why.of(
                        "at the rate kept with this document",
                        Amounts.grouped(amount) + " × "
                                + exchange.rate().stripTrailingZeros().toPlainString() + " = " + Amounts.grouped(own)));
    }

    private static PrintedLine line(IssuedLine l, IssuedSums sums) {
        CurrencyUnit currency = sums.currency();
        return new PrintedLine(
                l.description(),
                l.quantity().toPlainString(),
                l.unit(),
                l.unitCode(),
                Amounts.price(l.unitPrice(), currency),
                l.discount().words(),
                shortNames(sums.groups().get(l.group()).taxes()),
                l.note(),
                l.item(),
                l.category(),
                l.group(),
                new PrintedLineSums(
                        Amount.of(l.sums().gross()), Amount.of(l.sums().off()), Amount.of(l.net()), l.why()));
    }

    private static String shortNames(List<Tax> taxes) {
        return taxes.stream().map(Printing::shortName).collect(Collectors.joining(" + "));
    }

    private static String shortName(Tax tax) {
        return switch (tax.category()) {
            case S -> tax.rate().toString();
            case O -> "";
            default -> tax.category().name();
        };
    }

    private static PrintedExtra extra(IssuedExtra e) {
        return new PrintedExtra(
                e.description(),
                e.extent() instanceof Extent.OfPercent p ? p.percent().toString() : "",
                Amount.of(e.base()),
                Amount.of(e.amount()),
                e.parts().stream()
                        .map(p -> new PrintedDocument.ExtraPart(p.group(), Amount.of(p.amount())))
                        .toList(),
                e.why());
    }

    private static PrintedTax tax(TaxTotal t) {
        return new PrintedTax(
                t.tax().id(),
                t.tax().name(),
                t.tax().rate().toString(),
                t.tax().compound(),
                t.tax().category().name(),
                t.tax().reason(),
                Amount.of(t.base()),
                Amount.of(t.amount()),
                t.why());
    }

    private static List<PrintedGroup> groups(IssuedSums sums) {
        List<String> ids = sums.taxes().stream().map(t -> t.tax().id()).toList();
        return sums.groups().stream().map(g -> group(g, ids)).toList();
    }

    private static PrintedGroup group(TaxGroup g, List<String> taxIds) {
        return new PrintedGroup(
                g.taxes().stream().map(t -> taxIds.indexOf(t.id())).toList(),
                Amount.of(g.lines()),
                Amount.of(g.discount()),
                Amount.of(g.charges()),
                Amount.of(g.net()),
                g.amounts().stream().map(Amount::of).toList());
    }
}
