package quill.server.dispatch;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.server.audit.Happenings;
import quill.server.common.ConflictException;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.documents.Shelves;
import quill.server.invoices.InvoicesService;

/** Invoices that were issued, and that no client has yet. */
@Service
public class Unsent {
    private final Shelves shelves;
    private final Documents documents;
    private final InvoicesService invoices;
    private final MessageRepository messages;
    private final Happenings happenings;

    Unsent(
            Shelves shelves,
            Documents documents,
            InvoicesService invoices,
            MessageRepository messages,
            Happenings happenings) {
        this.shelves = shelves;
        this.documents = documents;
        this.invoices = invoices;
        this.messages = messages;
        this.happenings = happenings;
    }

    /** Open invoices that were issued but never sent, nor given to their client otherwise; latest first. */
    public List<Document> latest(int most) {
        List<DocumentId> candidates = shelves.latestOpenNotGiven();
        Set<DocumentId> mailed = messages.mailed(candidates);
        List<DocumentId> ids = candidates.stream()
                .filter(id -> !mailed.contains(id))
                .limit(most)
                .toList();
        Map<DocumentId, Document> byId = documents.some(ids);
        return ids.stream().map(byId::get).toList();
    }

    /** A person gave an invoice to its client otherwise: on paper, by another program. */
    @Transactional
    public void givenOtherwise(DocumentId id) {
        Document invoice = invoices.invoice(id);
        if (!documents.give(id)) {
            throw new ConflictException("That was noted already, or it is a draft.");
        }
        happenings.tell(id, invoice.clientId(), "Given to the client otherwise than by mail from here");
    }
}
