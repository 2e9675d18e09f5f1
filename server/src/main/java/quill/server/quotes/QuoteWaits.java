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
import quill.server.documents.Relations;

/** What of quotes waits for the business: questions, accepted ones without an invoice, those about to run out. */
@Component
public class QuoteWaits {
    private static final int MOST = 40;
    private static final int SOON = 3;

    private final QuoteRepository repository;
    private final Documents documents;
    private final Relations relations;
    private final BusinessClock clock;

    QuoteWaits(QuoteRepository repository, Documents documents, Relations relations, BusinessClock clock) {
        this.repository = repository;
        this.documents = documents;
        this.relations = relations;
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
        for (Document quote : documents.of(DocumentKind.QUOTE, DocumentState.ACCEPTED, Long.MAX_VALUE, MOST)) {
            if (relations.sources(quote.id(), RelationKind.FROM_QUOTE).isEmpty()) {
                all.add(new Waiting(
                        "accepted",
                        quote.id().value(),
                        quote,
                        "Accepted: " + name(quote),
                        total(quote) + ". Make the invoice from its record."));
            }
        }
        LocalDate today = clock.today();
        List<Document> open = documents.of(DocumentKind.QUOTE, DocumentState.OPEN, Long.MAX_VALUE, MOST);
        Map<DocumentId, LocalDate> until =
                repository.until(open.stream().map(Document::id).toList());
        for (Document quote : open) {
            LocalDate day = until.get(quote.id());
            if (!day.isBefore(today) && !day.isAfter(today.plusDays(SOON))) {
                all.add(new Waiting(
                        "expiring",
                        quote.id().value(),
                        quote,
                        "Not answered yet: " + name(quote),
                        total(quote) + ". It holds until " + Texts.day(day) + "."));
            }
        }
        return all;
    }

    private static String name(Document quote) {
        return "quote " + quote.number() + ", " + quote.clientName();
    }

    private static String total(Document quote) {
        return Shown.money(Amount.ofMinor(quote.currency(), quote.totalMinor()).money());
    }
}
