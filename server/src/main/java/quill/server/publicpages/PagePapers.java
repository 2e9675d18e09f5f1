package quill.server.publicpages;

import java.time.LocalDate;
import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.id.DocumentId;
import quill.server.common.Amount;
import quill.server.creditnotes.CreditNotes;
import quill.server.documents.Attachments;

/** What lies with an invoice on its client's page: credit notes, and files that went along. */
@Component
class PagePapers {
    private final CreditNotes notes;
    private final Attachments attachments;

    PagePapers(CreditNotes notes, Attachments attachments) {
        this.notes = notes;
        this.attachments = attachments;
    }

    /** A credit note about the invoice. */
    record TakenBack(DocumentId id, String number, LocalDate on, String reason, Amount total, boolean whole) {}

    List<TakenBack> creditNotes(DocumentId invoiceId) {
        return notes.of(invoiceId).stream()
                .map(n -> new TakenBack(n.id(), n.number(), n.issuedOn(), n.reason(), Amount.of(n.total()), n.whole()))
                .toList();
    }

    List<Attachments.Attachment> files(DocumentId invoiceId) {
        return attachments.of(invoiceId).stream()
                .filter(Attachments.Attachment::sent)
                .toList();
    }
}
