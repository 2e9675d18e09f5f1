package quill.server.dispatch;

import java.time.LocalDate;
import java.util.List;
import quill.core.id.DocumentId;
import quill.server.common.Amount;

/** What was paid of a document on trial, for whoever prints it. */
public interface OnTrial {
    /** Such a payment: no money moved. @param how in words */
    record Tried(LocalDate on, String how, Amount amount) {}

    /** Those of a document, latest first, as long as the trial goes on. */
    List<Tried> of(DocumentId documentId);
}
