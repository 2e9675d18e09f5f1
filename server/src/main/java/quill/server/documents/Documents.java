package quill.server.documents;

import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.server.audit.Happenings;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Json;
import quill.server.links.Links;

/** What is done alike with documents of every kind: writing them, fixing what they say, and reading it. */
@Service
public class Documents {
    private static final int MOST_TYPED = 400_000;
    private final DocumentRepository repository;
    private final DocumentContents contents;
    private final DraftReckoner reckoner;
    private final ClientsService clients;
    private final Links links;
    private final Changes changes;
    private final BusinessClock clock;
    private final Json json;

    Documents(
            DocumentRepository repository,
            DocumentContents contents,
            DraftReckoner reckoner,
            ClientsService clients,
            Links links,
            Changes changes,
            BusinessClock clock,
            Json json) {
        this.repository = repository;
        this.contents = contents;
        this.reckoner = reckoner;
        this.clients = clients;
        this.links = links;
        this.changes = changes;
        this.clock = clock;
        this.json = json;
    }

    /** Reckons what was typed, as if it were issued today. Stores nothing. */
    public Reckoning reckon(TypedDraft typed) {
        return reckoner.reckon(typed, clock.today()).view();
    }

    /** Keeps a new draft, whatever was typed. @return its id */
    @Transactional
    public DocumentId begin(DocumentKind kind, TypedDraft asTyped) {
        Typed typed = typed(asTyped);
        DocumentId id = begin(kind, typed.head());
        contents.typed(id, 1, typed.text());
        return id;
    }

    private DocumentId begin(DocumentKind kind, Document.Head head) {
        DocumentId id = repository.insertDraft(kind, head, clock.instant());
        links.begin(id);
        changes.touch(kind.findable(), id.value());
        return id;
    }

    /** Keeps what was typed, readable or not. @throws ConflictException if another window kept something else first */
    @Transactional
    public int keep(Document before, int version, TypedDraft asTyped) {
        Typed typed = typed(asTyped);
        if (repository.updateDraft(before.id(), version, typed.head()) != 1) {
            throw new ConflictException(
                    before.isDraft()
                            ? "This draft was changed in another window. Nothing you typed is lost here; load the other"
                                    + " or copy yours over."
                            : "This " + before.kind().word() + " was issued meanwhile, as " + before.number()
                                    + ". It is fixed now.");
        }
        contents.retype(before.id(), typed.text());
        changes.touch(before.kind().findable(), before.id().value());
        return version + 1;
    }

    private record Typed(Document.Head head, String text) {}

    private Typed typed(TypedDraft asTyped) {
        // An old page may still name a client that became a part of another.
        Client client = asTyped.clientId() == null ? null : clients.client(asTyped.clientId());
        TypedDraft typed = client == null ? asTyped : asTyped.forClient(client.id());
        String text = json.write(typed);
        if (text.length() > MOST_TYPED) {
            throw new RefusedException("lines", typed.lines().size(), "this is more than one document can hold");
        }
        DraftReckoner.Reckoned reckoned = reckoner.reckon(typed, clock.today());
        String subject = typed.subject() == null ? "" : typed.subject().strip();
        return new Typed(
                new Document.Head(
                        typed.clientId(),
                        client == null ? "" : client.name(),
                        fit(subject),
                        reckoned.read().currency().getCode(),
                        reckoned.totals() == null
                                ? null
                                : reckoned.totals().total().getAmountMinorLong()),
                text);
    }

    /** Throws a draft away. @throws ConflictException for one that keeps a number, or that was changed meanwhile */
    @Transactional(propagation = Propagation.MANDATORY)
    public void discard(Document draft, int version) {
        if (draft.isDraft() && draft.number() != null) {
            throw new ConflictException("This draft keeps the number " + draft.number()
                    + ", and numbers have no gaps. Issue it again, or void it.");
        }
        if (repository.deleteDraft(draft.id(), version) != 1) {
            throw new ConflictException("This draft was changed or issued meanwhile; it was not thrown away.");
        }
        changes.touch(draft.kind().findable(), draft.id().value());
    }

    /**
     * Fixes a draft as what it says from today on.
     *
     * @param given the number that it gets; null for one that keeps its own
     * @throws ConflictException if it changed since it was read
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public void issue(Document draft, int version, NumberSeries.Given given, IssuedDocument fixed) {
        if (given != null) {
            repository.number(draft.id(), given);
        }
        int text = version + 1;
        if (repository.issue(draft.id(), version, issuing(draft.kind(), fixed, text)) != 1) {
            throw new ConflictException("This draft was changed in another window. Look at it again before issuing.");
        }
        contents.issued(draft.id(), text, fixed);
    }

    private static DocumentRepository.Issuing issuing(DocumentKind kind, IssuedDocument fixed, int text) {
        long total = fixed.sums().total().amount().getAmountMinorLong();
        return new DocumentRepository.Issuing(
                kind.whenIssued(), fixed.issuedOn(), text, total, kind.asksForMoney() ? total : 0);
    }

    /** Writes a document that nobody typed, issued today. @param about the one that it is about @return its id */
    @Transactional(propagation = Propagation.MANDATORY)
    public DocumentId write(DocumentKind kind, IssuedDocument fixed, NumberSeries.Given given, Document about) {
        Money total = fixed.sums().total().amount();
        DocumentId id = begin(
                kind,
                new Document.Head(
                        about.clientId(),
                        about.clientName(),
                        about.subject(),
                        about.currency(),
                        total.getAmountMinorLong()));
        issue(document(id), 1, given, fixed);
        return id;
    }

    /**
     * A quote is answered. Once only: an answer that comes second finds nothing open.
     *
     * @param fixed what it says with what was chosen; null where it says what it said
     * @return whether it was open until now
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public boolean answer(Document quote, DocumentState answer, IssuedDocument fixed) {
        int text = fixed == null ? quote.issue().version() : quote.version() + 1;
        Long total = fixed == null
                ? quote.totalMinor()
                : Long.valueOf(fixed.sums().total().amount().getAmountMinorLong());
        if (repository.answer(quote.id(), quote.version(), answer, text, total) != 1) {
            return false;
        }
        if (fixed != null) {
            contents.issued(quote.id(), text, fixed);
        }
        changes.touch(quote.kind().findable(), quote.id().value());
        return true;
    }

    /** What an issued document said when it was issued, whatever was chosen of it since. */
    public IssuedDocument asFirstIssued(Document issued) {
        return contents.firstIssued(issued.id());
    }

    /** Makes an issued document a draft again that keeps its number and what was typed. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void takeBack(Document issued, String why) {
        repository.takeBack(issued, why, Happenings.who(), clock.today());
        contents.typed(
                issued.id(), issued.version() + 1, contents.typed(issued.id()).orElseThrow());
    }

    /** Voids what was issued; a draft that keeps a number is voided as what it last was. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void markVoid(Document d) {
        if (d.isDraft()) {
            asItLastWas(d);
        }
        repository.markVoid(d.id(), clock.today());
    }

    /** Whatever was typed since, it is for the client and of the sum that it had when it was issued. */
    private void asItLastWas(Document d) {
        DocumentRepository.TakenBack last = last(d);
        IssuedDocument said = contents.issued(d.id(), last.text());
        Document.Head head = new Document.Head(
                last.clientId(),
                clients.client(last.clientId()).name(),
                fit(said.matter().subject()),
                said.currency().getCode(),
                said.sums().total().amount().getAmountMinorLong());
        repository.updateDraft(d.id(), d.version(), head);
        repository.issue(d.id(), d.version() + 1, issuing(d.kind(), said, last.text()));
    }

    private DocumentRepository.TakenBack last(Document d) {
        List<DocumentRepository.TakenBack> all = repository.takenBack(d.id());
        return all.get(all.size() - 1);
    }

    /** Whose it is: of a draft that keeps a number, whose it was when it had it. */
    public ClientId clientOf(Document d) {
        return d.isDraft() && d.number() != null ? last(d).clientId() : d.clientId();
    }

    private static String fit(String subject) {
        return subject.length() > Document.MOST_SUBJECT ? subject.substring(0, Document.MOST_SUBJECT) : subject;
    }

    /** What a document said before it was taken back. */
    public record Earlier(PrintedDocument document, LocalDate takenBackOn, String why, String who) {}

    /** What a document said before it was taken back, oldest first. */
    public List<Earlier> earlier(Document d) {
        return repository.takenBack(d.id()).stream()
                .map(t -> new Earlier(
                        Printing.print(d.kind(), contents.issued(d.id(), t.text())), t.on(), t.why(), t.who()))
                .toList();
    }

    /** One document, if there is one of that id. */
    public Optional<Document> find(DocumentId id) {
        return repository.find(id);
    }

    private Document document(DocumentId id) {
        return find(id).orElseThrow();
    }

    /** Several documents by id. */
    public Map<DocumentId, Document> some(Collection<DocumentId> ids) {
        return ids.isEmpty() ? Map.of() : repository.some(ids).stream().collect(Collectors.toMap(Document::id, d -> d));
    }

    /** The latest that were issued, of a kind, newest first; void ones left out. @param clientId of one client, or null */
    public List<Document> latest(DocumentKind kind, ClientId clientId, int most) {
        return repository.latest(kind, clientId, most);
    }

    /** Those of a kind and state, newest first. */
    public List<Document> of(DocumentKind kind, DocumentState state, int most) {
        return repository.of(kind, state, most);
    }

    /** Those of a kind and state to which none of another kind is this, newest first. */
    public List<Document> without(
            RelationKind relation, DocumentKind of, DocumentKind kind, DocumentState state, int most) {
        return repository.without(relation, of, kind, state, most);
    }

    /** The document of a client's link. @throws quill.server.common.NotFoundException for a link that leads nowhere */
    public Document byToken(String token) {
        return find(links.leadsTo(token)).filter(d -> !d.isDraft()).orElseThrow(Links::unknown);
    }

    /** Notes that it was given to its client otherwise, today. @return whether it was issued, and nobody had said so */
    @Transactional(propagation = Propagation.MANDATORY)
    public boolean give(DocumentId id) {
        return repository.give(id, clock.today());
    }

    /** What an issued document says, in values. */
    public IssuedDocument issued(Document issued) {
        return contents.issued(issued.id(), issued.issue().version());
    }

    /** What an issued document says, as it is printed. */
    public PrintedDocument document(Document issued) {
        return printed(issued.kind(), issued(issued));
    }

    /** How something of a kind would be printed. */
    public PrintedDocument printed(DocumentKind kind, IssuedDocument document) {
        return Printing.print(kind, document);
    }

    /** What was typed into a document; hardly anything for one that the product wrote itself. */
    public TypedDraft typed(Document d) {
        return contents.typed(d.id())
                .map(text -> json.read(text, TypedDraft.class))
                .orElseGet(
                        () -> TypedDraft.in(d.currency()).client(d.clientId()).build());
    }
}
