package quill.server.quotes;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
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

/** What of quotes waits for the business: questions, accepted ones without an invoice, those about to run out. */
@Component
public class QuoteWaits {
    private static final int MOST = 40;
    private static final int SOON = 3;

    private final QuoteRepository repository;
    private final Documents documents;
    private final BusinessClock clock;

    QuoteWaits(QuoteRepository repository, Documents documents, BusinessClock clock) {
        this.repository = repository;
        this.documents = documents;
        this.clock = clock;
    }

    /** Something that waits. @param kind question, accepted or expiring @param id of the question, or of the quote */
    public record Waiting(String kind, long id, Document quote, String title, String text) {}

    /** All that waits, questions first. */
    public List<Waiting> all() {
        List<Waiting> all = new ArrayList<>();
        for (QuoteRepository.Question q : repository.open(MOST)) {
            Document quote = documents.find(q.documentId()).orElseThrow();
            all.add(new Waiting("question", q.id(), quote, "Asked about " + name(quote), q.text()));
        }
        for (Document quote :
                documents.without(RelationKind.FROM_QUOTE, DocumentKind.QUOTE, DocumentState.ACCEPTED, MOST)) {
            all.add(new Waiting(
                    "accepted",
                    quote.id().value(),
                    quote,
                    "Accepted: " + name(quote),
                    total(quote) + ". Make the invoice from its record."));
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
