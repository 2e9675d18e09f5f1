package quill.server.quotes;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.springframework.stereotype.Component;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;

/** The index leaf of quotes: those that wait for an answer, the soonest to run out first, then the others. */
@Component
class QuoteIndex {
    private static final int MOST = 200;
    private final Documents documents;
    private final QuoteRepository repository;
    private final BusinessClock clock;

    QuoteIndex(Documents documents, QuoteRepository repository, BusinessClock clock) {
        this.documents = documents;
        this.repository = repository;
        this.clock = clock;
    }

    /** A row. @param validUntil null for a draft */
    record QuoteRow(
            DocumentId id,
            @Schema(nullable = true) ClientId clientId,
            String clientName,
            @Schema(nullable = true) String number,
            String subject,
            @Schema(nullable = true) Amount total,
            @Schema(nullable = true) LocalDate validUntil) {}

    /** Rows of one kind. @param when open, expired, draft, accepted, declined or void */
    record QuoteGroup(String when, List<QuoteRow> rows) {}

    List<QuoteGroup> groups(String filter) {
        LocalDate today = clock.today();
        List<QuoteRow> open = rows(DocumentState.OPEN, filter);
        List<QuoteGroup> groups = new ArrayList<>();
        groups.add(new QuoteGroup(
                "open",
                open.stream()
                        .filter(r -> !r.validUntil().isBefore(today))
                        .sorted((a, b) -> a.validUntil().compareTo(b.validUntil()))
                        .toList()));
        groups.add(new QuoteGroup("draft", rows(DocumentState.DRAFT, filter)));
        groups.add(new QuoteGroup("accepted", rows(DocumentState.ACCEPTED, filter)));
        groups.add(new QuoteGroup(
                "expired",
                open.stream().filter(r -> r.validUntil().isBefore(today)).toList()));
        groups.add(new QuoteGroup("declined", rows(DocumentState.DECLINED, filter)));
        groups.add(new QuoteGroup("void", rows(DocumentState.VOID, filter)));
        return groups.stream().filter(g -> !g.rows().isEmpty()).toList();
    }

    private List<QuoteRow> rows(DocumentState state, String filter) {
        List<Document> found = documents.of(DocumentKind.QUOTE, state, MOST);
        Map<DocumentId, LocalDate> until =
                repository.until(found.stream().map(Document::id).toList());
        String part = filter == null ? "" : filter.strip().toLowerCase(Locale.ROOT);
        return found.stream()
                .filter(d -> (d.clientName() + " " + d.number() + " " + d.subject())
                        .toLowerCase(Locale.ROOT)
                        .contains(part))
                .map(d -> new QuoteRow(
                        d.id(),
                        d.clientId(),
                        d.clientName(),
                        d.number(),
                        d.subject(),
                        d.totalMinor() == null ? null : Amount.ofMinor(d.currency(), d.totalMinor()),
                        until.get(d.id())))
                .toList();
    }
}
