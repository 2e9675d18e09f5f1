package quill.server.quotes;

import java.time.LocalDate;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.document.TypedOffer;
import quill.core.id.DocumentId;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.common.SafeHtml;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;
import quill.server.documents.RelationKind;
import quill.server.documents.Relations;
import quill.server.links.Links;

/** Quotes from the first keystroke to the day on which they are issued, and their later versions. */
@Service
public class QuotesService {
    /** Conditions are so long at most, marks included. */
    private static final int MOST_CONDITIONS = 60_000;

    private final Documents documents;
    private final Relations relations;
    private final QuoteRepository repository;
    private final QuoteIssuing issuing;
    private final ClientsService clients;
    private final Links links;
    private final Happenings happenings;
    private final Attachments attachments;

    QuotesService(
            Documents documents,
            Relations relations,
            QuoteRepository repository,
            QuoteIssuing issuing,
            ClientsService clients,
            Links links,
            Happenings happenings,
            Attachments attachments) {
        this.documents = documents;
        this.relations = relations;
        this.repository = repository;
        this.issuing = issuing;
        this.clients = clients;
        this.links = links;
        this.happenings = happenings;
        this.attachments = attachments;
    }

    /** Keeps a new draft, whatever was typed. @return its id */
    @Transactional
    public DocumentId begin(TypedDraft typed) {
        return documents.begin(DocumentKind.QUOTE, offer(typed));
    }

    /** Keeps what was typed, readable or not. @throws ConflictException if another window kept something else first */
    @Transactional
    public int keep(DocumentId id, int version, TypedDraft typed) {
        return documents.keep(quote(id), version, offer(typed));
    }

    /** What was pasted into conditions is made safe before it is kept: it is shown again in the editor. */
    private static TypedDraft offer(TypedDraft typed) {
        TypedOffer offer = typed.offer() == null ? new TypedOffer("", "") : typed.offer();
        String conditions = SafeHtml.of(offer.conditions());
        if (conditions.length() > MOST_CONDITIONS) {
            throw new RefusedException(
                    "offer.conditions", conditions.length(), "terms and conditions have at most 60,000 characters");
        }
        return typed.changed()
                .offer(new TypedOffer(offer.validUntil(), conditions))
                .build();
    }

    /** Begins another that says the same. @return its id */
    @Transactional
    public DocumentId duplicate(DocumentId id) {
        DocumentId copy = begin(documents.typed(quote(id)).changed().rate("").build());
        attachments.copy(id, copy);
        return copy;
    }

    /** Throws a draft away. */
    @Transactional
    public void discard(DocumentId id, int version) {
        Document draft = quote(id);
        attachments.removeAll(id);
        documents.discard(draft, version);
    }

    /**
     * Begins a later version of an open quote; once that is issued, the earlier one can be accepted no more, and its link
     * leads to the later one.
     *
     * @return the draft's id; the same one where it was begun before
     */
    @Transactional
    public DocumentId revise(DocumentId id) {
        Document quote = quote(id);
        if (quote.state() != DocumentState.OPEN) {
            throw new ConflictException(
                    quote.isDraft()
                            ? "This is a draft; write on it."
                            : "This quote was answered, or a later version took its place; write another like it.");
        }
        clients.lock(quote.clientId());
        Optional<DocumentId> begun = relations.sources(id, RelationKind.SUPERSEDES).stream()
                .filter(d -> documents.find(d).filter(Document::isDraft).isPresent())
                .findFirst();
        return begun.orElseGet(() -> {
            DocumentId draft = begin(repository.terms(id).offered());
            relations.add(draft, RelationKind.SUPERSEDES, id);
            attachments.copy(id, draft);
            return draft;
        });
    }

    /**
     * Issues a draft: it gets the next number and is fixed. The version whose place it takes ends.
     *
     * @throws RefusedException with every field that has to be mended first
     * @throws ConflictException if it changed since it was read, was issued already, or the earlier version was answered
     */
    @Transactional
    public Document issue(DocumentId id, int version) {
        Document draft = quote(id);
        if (!draft.isDraft()) {
            throw new ConflictException("This quote was issued already, as " + draft.number() + ".");
        }
        issuing.issue(draft, version);
        Document issued = quote(id);
        happenings.tell(id, issued.clientId(), "Issued as " + issued.number());
        relations.target(id, RelationKind.SUPERSEDES).ifPresent(old -> supersede(quote(old), issued));
        return issued;
    }

    private void supersede(Document old, Document by) {
        if (old.state() != DocumentState.OPEN) {
            throw new ConflictException("Quote " + old.number()
                    + " was answered meanwhile; a later version cannot take its place any more.");
        }
        documents.markVoid(old);
        links.supersede(links.tokenOf(old.id()), links.tokenOf(by.id()));
        happenings.tell(old.id(), old.clientId(), "Quote " + by.number() + " took its place");
    }

    /** Ends an open quote without an answer. */
    @Transactional
    public void withdraw(DocumentId id, String why) {
        Document quote = lock(id);
        if (quote.state() != DocumentState.OPEN) {
            throw new ConflictException("Only a quote that is open can be withdrawn.");
        }
        documents.markVoid(quote);
        happenings.tell(id, quote.clientId(), "Withdrawn" + (why == null || why.isBlank() ? "" : ": " + why.strip()));
    }

    /** An issued quote, with its client locked. @throws ConflictException for a draft */
    Document lock(DocumentId id) {
        Document found = quote(id);
        if (found.isDraft()) {
            throw new ConflictException("This is a draft; issue it first.");
        }
        clients.lock(found.clientId());
        return quote(id);
    }

    /** One quote. @throws NotFoundException if there is none of that id */
    public Document quote(DocumentId id) {
        return documents
                .find(id)
                .filter(d -> d.kind() == DocumentKind.QUOTE)
                .orElseThrow(() -> new NotFoundException("There is no quote " + id + "."));
    }

    /** What an issued quote says beside its lines. */
    QuoteRepository.Terms terms(Document quote) {
        return repository.terms(quote.id());
    }

    /** Until when an issued quote can be accepted. */
    public LocalDate validUntil(Document quote) {
        return repository.terms(quote.id()).validUntil();
    }

    /** The answer, if there was one. */
    public Optional<QuoteAnswer> answer(Document quote) {
        return repository.answer(quote.id());
    }
}
