package quill.server.invoices;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.Why;
import quill.core.document.CreditorReference;
import quill.core.document.Extent;
import quill.core.document.ExtraTotal;
import quill.core.document.LineTotal;
import quill.core.document.TaxGroup;
import quill.core.document.Totals;
import quill.core.document.TypedDraft;
import quill.core.money.Amounts;
import quill.core.money.Exchange;
import quill.core.tax.Tax;
import quill.core.tax.TaxTotal;
import quill.server.business.BankAccounts;
import quill.server.business.Business;
import quill.server.business.DocumentSetting;
import quill.server.business.DocumentSettings;
import quill.server.business.Logos;
import quill.server.catalogue.OwnUnits;
import quill.server.clients.Client;
import quill.server.common.Amount;
import quill.server.common.Figure;
import quill.server.invoices.FixedDocument.PrintedExtra;
import quill.server.invoices.FixedDocument.PrintedGroup;
import quill.server.invoices.FixedDocument.PrintedLine;
import quill.server.invoices.FixedDocument.PrintedTax;

/** Fixes what the core reckoned as a document that is printed, and reads one back for taking it back. */
@Component
class Fixing {
    private final BankAccounts accounts;
    private final DocumentSettings documents;
    private final Logos logos;
    private final OwnUnits units;

    Fixing(BankAccounts accounts, DocumentSettings documents, Logos logos, OwnUnits units) {
        this.units = units;
        this.logos = logos;
        this.accounts = accounts;
        this.documents = documents;
    }

    FixedDocument invoice(
            String number, Client client, TypedDraft typed, DraftReckoner.Reckoned reckoned, LocalDate today) {
        Business own = accounts.business(reckoned.totals().total().getCurrencyUnit());
        DocumentSetting setting = documents.setting();
        Totals t = reckoned.totals();
        return new FixedDocument(
                DocumentKind.INVOICE,
                number,
                null,
                from(own),
                new FixedDocument.Party(
                        client.name(),
                        client.contact(),
                        client.address(),
                        client.country(),
                        client.email(),
                        client.taxNumber(),
                        client.more().delivery()),
                text(typed.subject()),
                text(typed.reference()),
                text(typed.project()),
                fields(typed, setting),
                today,
                reckoned.read().supplyDate(),
                reckoned.read().supplyEnd(),
                t.taxInside(),
                t.total().getCurrencyUnit().getCode(),
                lines(reckoned),
                t.discounts().stream().map(Fixing::extra).toList(),
                t.charges().stream().map(Fixing::extra).toList(),
                t.taxes().stream().map(Fixing::tax).toList(),
                groups(t.groups(), t.taxes()),
                Figure.of(t.net(), t.netWhy()),
                Figure.of(t.tax(), t.taxWhy()),
                Figure.of(t.total(), t.totalWhy()),
                Figure.of(t.prepaid(), Why.of("deposits held before, deducted here")),
                Figure.of(t.rounding(), t.roundingWhy()),
                Figure.of(t.due(), t.dueWhy()),
                inOwn(reckoned.read().exchange(), t.tax(), t.total()),
                text(typed.notes()),
                text(typed.terms()),
                own.footer(),
                own.iban(),
                own.bic(),
                CreditorReference.of(number),
                reckoned.lateFee().words(),
                setting.layout(),
                logos.now(),
                setting.accent(),
                setting.lineShows(),
                setting.typeface());
    }

    private static FixedDocument.Party from(Business own) {
        return new FixedDocument.Party(
                own.name(), own.tagline(), own.address(), own.country(), own.email(), own.taxNumber(), "");
    }

    private static List<FixedDocument.Field> fields(TypedDraft typed, DocumentSetting setting) {
        return setting.labels().stream()
                .filter(label -> !text(typed.fields().get(label)).isEmpty())
                .map(label -> new FixedDocument.Field(label, text(typed.fields().get(label))))
                .toList();
    }

    /** @return null for a document in the own currency */
    static FixedDocument.InOwnCurrency inOwn(Exchange exchange, Money tax, Money total) {
        if (exchange.own().equals(tax.getCurrencyUnit())) {
            return null;
        }
        return new FixedDocument.InOwnCurrency(
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

    private List<PrintedLine> lines(DraftReckoner.Reckoned reckoned) {
        List<PrintedLine> lines = new ArrayList<>();
        UnaryOperator<String> codes = units.codes();
        for (int i = 0; i < reckoned.totals().lines().size(); i++) {
            LineTotal total = reckoned.totals().lines().get(i);
            TaxGroup group = reckoned.totals().groups().get(total.group());
            lines.add(new PrintedLine(
                    total.line().description(),
                    total.line().quantity().toPlainString(),
                    total.line().unit(),
                    Amounts.price(total.line().unitPrice(), total.net().getCurrencyUnit()),
                    total.line().discount().words(),
                    shortNames(group.taxes()),
                    Amount.of(total.gross()),
                    Amount.of(total.discount().plus(total.relief())),
                    Amount.of(total.net()),
                    total.group(),
                    total.why(),
                    total.line().note(),
                    total.line().item(),
                    codes.apply(total.line().unit()),
                    total.line().category()));
        }
        return lines;
    }

    static String shortNames(List<Tax> taxes) {
        return taxes.stream().map(Fixing::shortName).collect(Collectors.joining(" + "));
    }

    private static String shortName(Tax tax) {
        return switch (tax.category()) {
            case S -> tax.rate().toString();
            case O -> "";
            default -> tax.category().name();
        };
    }

    private static PrintedExtra extra(ExtraTotal e) {
        return new PrintedExtra(
                e.description(),
                e.extent() instanceof Extent.OfPercent p ? p.percent().toString() : "",
                Amount.of(e.base()),
                Amount.of(e.amount()),
                e.parts().stream()
                        .map(p -> new FixedDocument.ExtraPart(p.group(), Amount.of(p.amount())))
                        .toList(),
                e.why());
    }

    static PrintedTax tax(TaxTotal t) {
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

    static List<PrintedGroup> groups(List<TaxGroup> groups, List<TaxTotal> taxes) {
        List<String> ids = taxes.stream().map(t -> t.tax().id()).toList();
        return groups.stream()
                .map(g -> new PrintedGroup(
                        g.taxes().stream().map(t -> ids.indexOf(t.id())).toList(),
                        Amount.of(g.lines()),
                        Amount.of(g.discount()),
                        Amount.of(g.charges()),
                        Amount.of(g.net()),
                        g.amounts().stream().map(Amount::of).toList()))
                .toList();
    }

    /** The rate that an invoice was written at. */
    static Exchange exchange(FixedDocument d, CurrencyUnit own) {
        return d.own() == null
                ? Exchange.none(own)
                : new Exchange(own, new BigDecimal(d.own().rate()));
    }

    static String text(String typed) {
        return typed == null ? "" : typed.strip();
    }
}
