package quill.server.creditnotes;

import java.time.LocalDate;
import org.joda.money.Money;
import quill.core.id.DocumentId;
import quill.server.documents.Document;
import quill.server.documents.Relations;

/** A credit note as stored, with what it takes of its invoice. */
public record CreditNote(Document document, Relations.Correction correction) {
    /** Of the document that it is. */
    public DocumentId id() {
        return document.id();
    }

    /** As printed. */
    public String number() {
        return document.number();
    }

    /** Of the invoice that it takes back. */
    public DocumentId invoiceId() {
        return correction.invoiceId();
    }

    /** When it was written. */
    public LocalDate issuedOn() {
        return document.issuedOn();
    }

    /** Why it was written, as the client reads it. */
    public String reason() {
        return correction.taking().why();
    }

    /** What it takes, tax included. */
    public Money total() {
        return document.total();
    }

    /** Whether nothing of the invoice was left after it. */
    public boolean whole() {
        return correction.taking().whole();
    }

    /** How much of the invoice it takes back, in words before the invoice's name. @param of the invoice's total */
    public String extent(Money of) {
        return !whole() ? "a part of" : total().isEqual(of) ? "the whole of" : "the rest of";
    }
}
