package quill.server.quotes;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.document.CreditorReference;
import quill.core.id.DocumentId;
import quill.server.cardorders.OrderViews;
import quill.server.common.Amount;
import quill.server.dispatch.DepositFacts;
import quill.server.dispatch.WaysToPay;
import quill.server.documents.Document;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;
import quill.server.documents.Jobs;
import quill.server.documents.PrintedDocument;
import quill.server.documents.RelationKind;
import quill.server.documents.Relations;
import quill.server.requests.Requests;

/** What is asked for on an accepted quote, what came, and what it led to. */
@Component
class QuotePaying {
    private final Requests requests;
    private final Jobs jobs;
    private final Relations relations;
    private final Documents documents;
    private final WaysToPay ways;
    private final OrderViews orders;

    QuotePaying(
            Requests requests, Jobs jobs, Relations relations, Documents documents, WaysToPay ways, OrderViews orders) {
        this.orders = orders;
        this.requests = requests;
        this.jobs = jobs;
        this.relations = relations;
        this.documents = documents;
        this.ways = ways;
    }

    /**
     * What is asked for on a quote before its invoice.
     *
     * @param came of it
     * @param missing paid whole, or not at all
     * @param what it is for, in a few words
     * @param deposit whether that is the deposit that was agreed with the quote, or all of it
     * @param by how it is paid on the card company's page; empty for not there
     * @param wallets those that show there where a device has them, by their names
     * @param hold whether a card's money is only held there
     * @param coming what is held, or on its way by bank debit; null where nothing is
     * @param iban for a transfer; empty where none is offered
     * @param otherwise how else, such as in cash; may be empty
     */
    record Ahead(
            Amount came,
            Amount missing,
            String what,
            boolean deposit,
            String by,
            List<String> wallets,
            boolean test,
            boolean hold,
            @Schema(nullable = true) ComingAhead coming,
            String iban,
            String reference,
            List<String> otherwise) {}

    /** For its client's page; null where nothing was asked for. */
    Ahead ahead(Document quote, PrintedDocument printed) {
        if (quote.state() != DocumentState.ACCEPTED) {
            return null;
        }
        Requests.OnQuote asked = requests.on(quote);
        if (asked.asked().isEmpty()) {
            return null;
        }
        Money missing = asked.missing();
        List<Requests.Asked> open =
                asked.asked().stream().filter(a -> a.missing().isPositive()).toList();
        WaysToPay.Ways offered =
                missing.isPositive() ? ways.of(missing, quote.clientId(), quote.id()) : WaysToPay.Ways.NONE;
        return new Ahead(
                Amount.of(asked.received()),
                Amount.of(missing),
                missing.isEqual(printed.sums().total().money()) ? "all of it" : what(quote, open),
                open.stream().allMatch(a -> a.words().isEmpty()),
                missing.isPositive() ? offered.byPage() : "",
                offered.wallets(),
                offered.test(),
                offered.hold(),
                coming(quote),
                offered.iban(),
                CreditorReference.grouped(CreditorReference.of(quote.number())),
                offered.otherwise());
    }

    /** @param until when a bank debit is certain, or the last day of what is held */
    record ComingAhead(Amount amount, LocalDate until, boolean held) {}

    private ComingAhead coming(Document quote) {
        return orders.coming(quote.id()).stream()
                .findFirst()
                .map(o -> new ComingAhead(
                        Amount.of(o.amount()), o.brings().until(), o.brings().holds()))
                .orElse(null);
    }

    private static String what(Document quote, List<Requests.Asked> open) {
        return open.stream()
                .map(a -> DepositFacts.whatFor(quote, a.words()))
                .distinct()
                .collect(Collectors.joining("; "));
    }

    /** What is asked for; nothing unless it is accepted. */
    Optional<Requests.OnQuote> asked(Document quote) {
        return quote.state() == DocumentState.ACCEPTED ? Optional.of(requests.on(quote)) : Optional.empty();
    }

    /** What is not billed yet; deposit invoices bill it as well. */
    Amount left(Document quote) {
        return quote.state() == DocumentState.ACCEPTED
                ? Amount.of(jobs.soFar(quote, false).left())
                : null;
    }

    /** What it led to, oldest first. */
    List<QuoteViews.Led> led(Document quote) {
        List<DocumentId> ids = relations.sources(quote.id(), RelationKind.FROM_QUOTE);
        Map<DocumentId, Document> found = documents.some(ids);
        Map<DocumentId, Jobs.Part> parts = jobs.billed(quote.id()).stream()
                .collect(Collectors.toMap(p -> p.document().id(), p -> p));
        return ids.stream()
                .map(found::get)
                .map(d -> new QuoteViews.Led(
                        d.id(),
                        d.kind().title(),
                        d.number(),
                        d.state().word(),
                        d.totalMinor() == null ? null : Amount.ofMinor(d.currency(), d.totalMinor()),
                        parts.containsKey(d.id()) ? parts.get(d.id()).deductedBy() : null))
                .toList();
    }
}
