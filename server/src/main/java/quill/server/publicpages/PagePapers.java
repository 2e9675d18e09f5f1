package quill.server.publicpages;

import java.time.LocalDate;
import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.id.DocumentId;
import quill.server.common.Amount;
import quill.server.creditnotes.CreditNotes;
import quill.server.documents.Attachments;
import quill.server.documents.Document;

/** What lies with an invoice on its client's page: credit notes, files that went along, what is offered before it is paid. */
@Component
class PagePapers {
    private final CreditNotes notes;
    private final Attachments attachments;
    private final Picking picking;

    PagePapers(CreditNotes notes, Attachments attachments, Picking picking) {
        this.notes = notes;
        this.attachments = attachments;
        this.picking = picking;
    }

    /** A credit note about the invoice. */
    record TakenBack(DocumentId id, String number, LocalDate on, String reason, Amount total, boolean whole) {}

    List<TakenBack> creditNotes(DocumentId invoiceId) {
        return notes.of(invoiceId).stream()
                .map(n -> new TakenBack(n.id(), n.number(), n.issuedOn(), n.reason(), Amount.of(n.total()), n.whole()))
                .toList();
    }

    /** What can be picked, accepted, or paid early. */
    Picking.PickView offered(Document invoice) {
        return picking.view(invoice);
    }

    List<Attachments.Attachment> files(DocumentId invoiceId) {
        return attachments.of(invoiceId).stream()
                .filter(Attachments.Attachment::sent)
                .toList();
    }
}
