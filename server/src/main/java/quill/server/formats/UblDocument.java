package quill.server.formats;

import java.time.LocalDate;
import java.util.List;
import org.joda.money.Money;
import quill.core.issued.IssuedDocument;
import quill.server.documents.Attachments;

/**
 * What is written as UBL.
 *
 * @param due when which part of it is due; empty for a credit note
 * @param files what goes along with it
 */
record UblDocument(IssuedDocument document, List<Due> due, List<Attachments.Content> files) {
    /** One installment. @param on null while it has no day @param words for what it waits then */
    record Due(LocalDate on, String words, Money amount) {}

    /** Whether all of it falls due on one day that is known. */
    boolean isDueOnOneDay() {
        return due.size() == 1 && due.get(0).on() != null;
    }
}
