package quill.server.quotes;

import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.id.DocumentId;
import quill.server.audit.Happenings;
import quill.server.business.BusinessService;
import quill.server.common.BusinessClock;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;
import quill.server.documents.Fixing;
import quill.server.documents.RelationKind;
import quill.server.documents.Relations;
import quill.server.links.Links;

/** What stands around a quote: its files, its link, its versions, its history. */
@Component
class QuoteAround {
    private static final DateTimeFormatter AT = DateTimeFormatter.ofPattern("HH:mm");

    private final Attachments attachments;
    private final Relations relations;
    private final Links links;
    private final Documents documents;
    private final Happenings happenings;
    private final BusinessService business;
    private final BusinessClock clock;

    QuoteAround(
            Attachments attachments,
            Relations relations,
            Links links,
            Documents documents,
            Happenings happenings,
            BusinessService business,
            BusinessClock clock) {
        this.attachments = attachments;
        this.relations = relations;
        this.links = links;
        this.documents = documents;
        this.happenings = happenings;
        this.business = business;
        this.clock = clock;
    }

    List<Attachments.Attachment> files(Document q) {
        return attachments.of(q.id());
    }

    DocumentId supersedes(Document q) {
        return relations.target(q.id(), RelationKind.SUPERSEDES).orElse(null);
    }

    /** The later version that took its place; null while there is none, or only a draft of one. */
    DocumentId supersededBy(Document q) {
        return relations.sources(q.id(), RelationKind.SUPERSEDES).stream()
                .filter(id -> documents.find(id).filter(d -> !d.isDraft()).isPresent())
                .findFirst()
                .orElse(null);
    }

    /** Of one that took another's place its link still leads there, so that the other's does. */
    String link(Document q) {
        return q.state() == DocumentState.VOID ? "" : links.pageNow(q.id());
    }

    String memo(Document q) {
        return Fixing.text(documents.typed(q).memo());
    }

    List<Happenings.Happening> past(Document q) {
        return happenings.ofInvoice(q.id());
    }

    String stateOf(Document q, LocalDate validUntil) {
        return q.state() == DocumentState.OPEN && validUntil.isBefore(clock.today())
                ? "expired"
                : q.state().word();
    }

    QuoteViews.AnswerView answer(QuoteAnswer a) {
        ZoneId zone = ZoneId.of(business.business().zone());
        return new QuoteViews.AnswerView(
                a.accepted(), a.byHand(), a.name(), a.on(), AT.format(a.at().atZone(zone)), a.address(), a.reason());
    }
}
