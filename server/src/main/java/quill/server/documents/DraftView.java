package quill.server.documents;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.document.TypedDraft;
import quill.core.id.DocumentId;

/**
 * A draft of any kind, as the sheet shows it.
 *
 * @param number the number that it keeps, if it was issued under one and taken back
 */
public record DraftView(
        DocumentId id,
        int version,
        @Schema(nullable = true) String number,
        TypedDraft typed,
        Reckoning reckoning,
        List<Attachments.Attachment> files) {
    /** Reads drafts as they are shown. */
    @Component
    public static class Reading {
        private final Documents documents;
        private final Attachments attachments;

        Reading(Documents documents, Attachments attachments) {
            this.documents = documents;
            this.attachments = attachments;
        }

        /** A draft, reckoned as if it were issued today. */
        public DraftView of(Document d) {
            TypedDraft typed = documents.typed(d);
            return new DraftView(
                    d.id(), d.version(), d.number(), typed, documents.reckon(typed), attachments.of(d.id()));
        }
    }
}
