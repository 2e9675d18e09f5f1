package quill.server.creditnotes;

import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.server.common.Amount;
import quill.server.documents.Document;
import quill.server.invoices.TakenBack;

/** Tells an invoice's record of its credit notes. */
@Component
class TakenByNotes implements TakenBack {
    private final CreditNotes notes;

    TakenByNotes(CreditNotes notes) {
        this.notes = notes;
    }

    @Override
    public List<CreditNoteView> notesOf(DocumentId invoiceId) {
        return notes.of(invoiceId).stream()
                .map(n -> new CreditNoteView(
                        n.id(), n.number(), n.issuedOn(), n.reason(), Amount.of(n.total()), n.whole()))
                .toList();
    }

    @Override
    public LeftView leftOf(Document invoice, IssuedDocument said) {
        CreditNotes.Left left = notes.left(invoice, said);
        return new LeftView(Amount.of(left.amount()), left.lines(), left.charges());
    }
}
