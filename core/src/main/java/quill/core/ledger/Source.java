package quill.core.ledger;

import quill.core.id.DocumentId;

/**
 * Where a settlement, or client credit, comes from: money that moved, or a document. One of the two.
 *
 * @param movement key of the movement, or null
 * @param document key of the credit note, or of the invoice that deducts a deposit, or null
 */
public record Source(Long movement, DocumentId document) {
    /** @throws IllegalArgumentException for both, or neither */
    public Source {
        if ((movement == null) == (document == null)) {
            throw new IllegalArgumentException(
                    "a source is a movement (" + movement + ") or a document (" + document + "), and not both");
        }
    }

    /** Money that moved. */
    public static Source movement(long id) {
        return new Source(id, null);
    }

    /** A document. */
    public static Source document(DocumentId id) {
        return new Source(null, id);
    }

    /** Whether it is this movement. */
    public boolean is(long of) {
        return movement != null && movement == of;
    }
}
