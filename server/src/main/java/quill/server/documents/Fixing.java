package quill.server.documents;

import java.time.LocalDate;
import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.document.CreditorReference;
import quill.core.document.Totals;
import quill.core.document.TypedDraft;
import quill.core.issued.IssuedDocument;
import quill.core.issued.IssuedSums;
import quill.core.issued.Look;
import quill.core.issued.Matter;
import quill.core.issued.Party;
import quill.core.issued.Paying;
import quill.core.money.Exchange;
import quill.server.business.BankAccounts;
import quill.server.business.Business;
import quill.server.business.DocumentSetting;
import quill.server.business.DocumentSettings;
import quill.server.business.Logos;
import quill.server.catalogue.OwnUnits;
import quill.server.clients.Client;

/** Fixes what the core reckoned of a draft, with all that the business and its client are on that day. */
@Component
public class Fixing {
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

    /** An invoice as it is issued. */
    public IssuedDocument invoice(
            String number, Client client, TypedDraft typed, DraftReckoner.Reckoned reckoned, LocalDate today) {
        Totals t = reckoned.totals();
        Business own = accounts.business(t.total().getCurrencyUnit());
        DocumentSetting setting = documents.setting();
        Exchange exchange = reckoned.read().exchange();
        return new IssuedDocument(
                number,
                today,
                null,
                from(own),
                to(client),
                new Matter(
                        text(typed.subject()),
                        text(typed.reference()),
                        text(typed.project()),
                        fields(typed, setting),
                        reckoned.read().supplyDate(),
                        reckoned.read().supplyEnd(),
                        text(typed.notes()),
                        terms(typed, reckoned),
                        own.habits().footer()),
                IssuedDocument.Body.of(t, units.codes()),
                IssuedSums.of(t),
                exchange.own().equals(t.total().getCurrencyUnit()) ? null : exchange,
                new Paying(
                        own.account().iban(),
                        own.account().bic(),
                        CreditorReference.of(number),
                        reckoned.lateFee().words()),
                new Look(setting.layout(), logos.now(), setting.accent(), setting.lineShows(), setting.typeface()),
                reckoned.said());
    }

    /** The same document with other figures: of a quote, what its client chose of it. */
    public IssuedDocument again(IssuedDocument as, DraftReckoner.Reckoned reckoned) {
        Totals t = reckoned.totals();
        return new IssuedDocument(
                as.number(),
                as.issuedOn(),
                null,
                as.from(),
                as.to(),
                as.matter(),
                IssuedDocument.Body.of(t, units.codes()),
                IssuedSums.of(t),
                as.exchange(),
                as.paying(),
                as.look());
    }

    /** What it offers before it is paid stands among its terms. */
    private static String terms(TypedDraft typed, DraftReckoner.Reckoned reckoned) {
        String offered = reckoned.offered();
        return offered.isEmpty() || text(typed.terms()).isEmpty()
                ? text(typed.terms()) + offered
                : text(typed.terms()) + "\n" + offered;
    }

    private static Party from(Business own) {
        return new Party(own.name(), own.tagline(), own.address(), own.country(), own.email(), own.taxNumber(), "");
    }

    private static Party to(Client client) {
        return new Party(
                client.name(),
                client.contact(),
                client.address(),
                client.country(),
                client.email(),
                client.taxNumber(),
                client.more().delivery());
    }

    private static List<Matter.Field> fields(TypedDraft typed, DocumentSetting setting) {
        return setting.labels().stream()
                .filter(label -> !text(typed.fields().get(label)).isEmpty())
                .map(label -> new Matter.Field(label, text(typed.fields().get(label))))
                .toList();
    }

    /** As typed, without blanks around it; nothing typed is an empty text. */
    public static String text(String typed) {
        return typed == null ? "" : typed.strip();
    }
}
