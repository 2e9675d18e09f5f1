package quill.server.quotes;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.id.DocumentId;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;
import quill.server.documents.RelationKind;
import quill.server.requests.Requests;

/** What of quotes waits for the business: questions, accepted ones without an invoice, those about to run out. */
@Component
public class QuoteWaits {
    private static final int MOST = 40;
    private static final int SOON = 3;

    private final QuoteRepository repository;
    private final Documents documents;
    private final Requests requests;
    private final BusinessClock clock;

    QuoteWaits(QuoteRepository repository, Documents documents, Requests requests, BusinessClock clock) {
        this.repository = repository;
        this.documents = documents;
        this.requests = requests;
        this.clock = clock;
    }

    /** Something that waits. @param kind question, accepted or expiring @param id of the question, or of the quote */
    public record Waiting(String kind, long id, Document quote, String title, String text) {}

    /** A day of a quote: on which it runs out, or its deposit was asked for. @param kind quote or asked */
    public record QuoteDay(String kind, Document quote, LocalDate on, Amount amount) {}

    /** Quotes that run out up to a day, and what is asked for on accepted ones and did not come. */
    public List<QuoteDay> days(LocalDate to) {
        List<QuoteDay> days = new ArrayList<>();
        Map<DocumentId, LocalDate> until = repository.runningOut(clock.today(), to);
        Map<DocumentId, Document> quotes = documents.some(until.keySet());
        until.forEach((id, day) -> {
            Document quote = quotes.get(id);
            if (quote.state() == DocumentState.OPEN) {
                days.add(new QuoteDay("quote", quote, day, Amount.ofMinor(quote.currency(), quote.totalMinor())));
            }
        });
        List<Requests.Asked> open = requests.open(MOST);
        Map<DocumentId, Document> asked =
                documents.some(open.stream().map(Requests.Asked::documentId).collect(Collectors.toSet()));
        open.forEach(a -> days.add(new QuoteDay("asked", asked.get(a.documentId()), a.on(), Amount.of(a.missing()))));
        return days;
    }

    /** What an accepted quote waits for: its deposit, or its invoice. */
    private String asked(Document quote) {
        Money missing = requests.missing(quote);
        return missing.isPositive()
                ? ". " + Shown.money(missing) + " is asked for and has not come yet."
                : ". Make the invoice from its record.";
    }

    /** All that waits, questions first. */
    public List<Waiting> all() {
        List<Waiting> all = new ArrayList<>();
        for (QuoteRepository.Question q : repository.open(MOST)) {
            Document quote = documents.find(q.documentId()).orElseThrow();
            all.add(new Waiting("question", q.id(), quote, "Asked about " + name(quote), q.text()));
        }
        for (Document quote : documents.without(
                RelationKind.FROM_QUOTE, DocumentKind.INVOICE, DocumentKind.QUOTE, DocumentState.ACCEPTED, MOST)) {
            all.add(new Waiting(
                    "accepted", quote.id().value(), quote, "Accepted: " + name(quote), total(quote) + asked(quote)));
        }
        LocalDate today = clock.today();
        Map<DocumentId, LocalDate> until = repository.runningOut(today, today.plusDays(SOON));
        Map<DocumentId, Document> quotes = documents.some(until.keySet());
        until.forEach((id, day) -> {
            Document quote = quotes.get(id);
            if (quote.state() == DocumentState.OPEN) {
                all.add(new Waiting(
                        "expiring",
                        id.value(),
                        quote,
                        "Not answered yet: " + name(quote),
                        total(quote) + ". It holds until " + Texts.day(day) + "."));
            }
        });
        return all;
    }

    private static String name(Document quote) {
        return "quote " + quote.number() + ", " + quote.clientName();
    }

    private static String total(Document quote) {
        return Shown.money(Amount.ofMinor(quote.currency(), quote.totalMinor()).money());
    }
}
