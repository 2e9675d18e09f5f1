package quill.server.invoices;

import java.time.LocalDate;
import java.util.List;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.server.common.Amount;
import quill.server.documents.Document;

/** What credit notes took of an invoice, and may still take: told by whoever writes them. */
public interface TakenBack {
    /** A credit note, as the record of its invoice shows it. */
    record CreditNoteView(
            DocumentId id, String number, LocalDate issuedOn, String reason, Amount total, boolean whole) {}

    /** What credit notes may still take. @param lines the quantity left of each line */
    record LeftView(Amount amount, List<String> lines, List<Boolean> charges) {}

    /** An invoice's credit notes, oldest first. */
    List<CreditNoteView> notesOf(DocumentId invoiceId);

    /** What may still be taken of an issued invoice. @param said what it says: read once for all that is shown of it */
    LeftView leftOf(Document invoice, IssuedDocument said);
}
