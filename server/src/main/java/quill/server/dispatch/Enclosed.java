package quill.server.dispatch;

import java.time.LocalDate;
import quill.core.id.DocumentId;
import quill.server.common.Downloads;
import quill.server.common.StoredWord;
import quill.server.documents.Attachments;

/**
 * Something that goes with a message.
 *
 * @param documentId whose paper or file it is; null for a reminder's own paper
 * @param fileId which file; null for a paper, which is made as the message leaves
 * @param name of the file that arrives
 */
public record Enclosed(Kind kind, DocumentId documentId, Long fileId, String name) {
    /** What it is. */
    public enum Kind implements StoredWord {
        /** A quote, printed. */
        QUOTE,
        /** The record of a quote's acceptance. */
        ACCEPTANCE,
        /** An invoice, printed. */
        INVOICE,
        /** A credit note, printed. */
        CREDIT_NOTE,
        /** A reminder, printed. */
        REMINDER,
        /** A file that was added to a document. */
        FILE
    }

    static Enclosed quote(DocumentId id, String number) {
        return new Enclosed(Kind.QUOTE, id, null, "quote-" + Downloads.plain(number) + ".pdf");
    }

    static Enclosed acceptance(DocumentId id, String number) {
        return new Enclosed(Kind.ACCEPTANCE, id, null, "acceptance-" + Downloads.plain(number) + ".pdf");
    }

    static Enclosed invoice(DocumentId id, String number) {
        return new Enclosed(Kind.INVOICE, id, null, "invoice-" + Downloads.plain(number) + ".pdf");
    }

    static Enclosed creditNote(DocumentId id, String number) {
        return new Enclosed(Kind.CREDIT_NOTE, id, null, "credit-note-" + Downloads.plain(number) + ".pdf");
    }

    static Enclosed reminder(LocalDate writtenOn) {
        return new Enclosed(Kind.REMINDER, null, null, "reminder-" + writtenOn + ".pdf");
    }

    static Enclosed file(Attachments.Attachment file) {
        return new Enclosed(Kind.FILE, file.documentId(), file.id(), file.name());
    }
}
