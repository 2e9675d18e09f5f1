package quill.server.invoices;

import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.debts.Settling;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.documents.Documents;
import quill.server.documents.PrintedDocument;
import quill.server.documents.RelationKind;
import quill.server.documents.Relations;
import quill.server.links.Links;

/** Invoices from the first keystroke to the day on which they are issued, or count no more. */
@Service
public class InvoicesService {
    private final Documents documents;
    private final Relations relations;
    private final Attachments attachments;
    private final Issuing issuing;
    private final InvoiceBooking booking;
    private final Settling settling;
    private final ClientsService clients;
    private final BusinessClock clock;

    InvoicesService(
            Documents documents,
            Relations relations,
            Attachments attachments,
            Issuing issuing,
            InvoiceBooking booking,
            Settling settling,
            ClientsService clients,
            BusinessClock clock) {
        this.documents = documents;
        this.relations = relations;
        this.attachments = attachments;
        this.issuing = issuing;
        this.booking = booking;
        this.settling = settling;
        this.clients = clients;
        this.clock = clock;
    }

    /** Keeps a new draft, whatever was typed. @return its id */
    @Transactional
    public DocumentId begin(TypedDraft typed) {
        return documents.begin(DocumentKind.INVOICE, typed);
    }

    /** Keeps what was typed, readable or not. @throws ConflictException if another window kept something else first */
    @Transactional
    public int keep(DocumentId id, int version, TypedDraft typed) {
        return documents.keep(invoice(id), version, typed);
    }

    /** Begins a draft with the same lines, supplied today. @return its id */
    @Transactional
    public DocumentId duplicate(DocumentId id) {
        TypedDraft typed = documents.typed(invoice(id));
        DocumentId copy = begin(typed.suppliedOn(clock.today().toString()));
        attachments.copy(id, copy);
        return copy;
    }

    /** Begins the draft that takes an invoice's place: the same lines, files and terms. @return its id */
    @Transactional(propagation = Propagation.MANDATORY)
    public DocumentId replacement(Document of) {
        DocumentId draft = begin(documents.typed(of));
        relations.add(draft, RelationKind.REPLACES, of.id());
        relations
                .target(of.id(), RelationKind.FROM_QUOTE)
                .ifPresent(quote -> relations.add(draft, RelationKind.FROM_QUOTE, quote));
        attachments.copy(of.id(), draft);
        return draft;
    }

    /** The invoice whose place it takes, if it takes any. */
    public Optional<DocumentId> replaces(DocumentId id) {
        return relations.target(id, RelationKind.REPLACES);
    }

    /** Throws a draft away. @throws ConflictException for one that keeps the number of an invoice */
    @Transactional
    public void discard(DocumentId id, int version) {
        Document draft = invoice(id);
        attachments.removeAll(id);
        settling.whoseCreditWaits(id).ifPresent(clients::lock);
        settling.waitNoLonger(id);
        documents.discard(draft, version);
    }

    /**
     * Issues a draft: it gets the next number, is fixed, booked, and settled by client credit as far as that goes.
     *
     * @throws RefusedException with every field that has to be mended first
     * @throws ConflictException if it changed since it was read, or was issued already
     */
    @Transactional
    public Document issue(DocumentId id, int version) {
        Document draft = invoice(id);
        if (!draft.isDraft()) {
            throw new ConflictException("This invoice was issued already, as " + draft.number() + ".");
        }
        Issuing.Ready ready = issuing.ready(draft);
        booking.checkDeposits(ready.client().id(), ready.reckoned().totals());
        issuing.issue(draft, version, ready);
        if (ready.reckoned().job() != null) {
            ready.reckoned().job().note(relations, id);
        }
        booking.issued(invoice(id), ready.typed(), ready.reckoned());
        return invoice(id);
    }

    /** Whether a draft could be issued as it is. */
    public boolean canBeIssued(DocumentId id) {
        Document draft = invoice(id);
        return draft.isDraft() && issuing.problems(draft).isEmpty();
    }

    /**
     * Takes an issued invoice back to a draft that keeps its number, or voids it. The caller has made sure that it was
     * never sent or opened.
     *
     * @throws ConflictException where anything is booked against it
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public void withdraw(DocumentId id, String why, boolean forGood) {
        Document invoice = invoice(id);
        if (invoice.isDraft() && !(forGood && invoice.number() != null)) {
            throw new ConflictException("This is a draft already.");
        }
        if (invoice.voidedOn() != null) {
            throw new ConflictException("This invoice was voided already.");
        }
        ClientId whose = documents.clientOf(invoice);
        clients.lock(whose);
        // The entry of a draft that keeps a number is reversed already.
        if (!invoice.isDraft()) {
            booking.withdrawn(invoice, why, forGood);
        }
        if (forGood) {
            documents.markVoid(invoice);
        } else {
            documents.takeBack(invoice, why);
        }
        booking.tell(id, whose, (forGood ? "Voided: " : "Taken back to a draft, not sent yet: ") + why);
    }

    /** One invoice. @throws NotFoundException if there is none of that id */
    public Document invoice(DocumentId id) {
        return documents
                .find(id)
                .filter(d -> d.kind().asksForMoney())
                .orElseThrow(() -> new NotFoundException("There is no invoice " + id + "."));
    }

    /** Several invoices by id. */
    public Map<DocumentId, Document> some(Collection<DocumentId> ids) {
        return documents.some(ids);
    }

    /** The issued invoice of a client's link. @throws NotFoundException for a link that leads nowhere */
    public Document byToken(String token) {
        Document document = documents.byToken(token);
        if (!document.kind().asksForMoney()) {
            throw Links.unknown();
        }
        return document;
    }

    /** What an issued invoice says. */
    public PrintedDocument document(Document invoice) {
        return documents.document(invoice);
    }

    /** What was typed into a draft. */
    public TypedDraft typed(Document invoice) {
        return documents.typed(invoice);
    }
}
