package quill.server.common;

import quill.core.id.ClientId;
import quill.core.id.DocumentId;

/**
 * Something that happened without the business, told within the transaction that noted it.
 *
 * @param text a sentence
 * @param amount what it is about; null where it is about no sum
 * @param documentId the document that it concerns; null where none
 */
public record News(Kind kind, String text, Amount amount, ClientId clientId, DocumentId documentId) {
    /** What the business can hear of. */
    public enum Kind {
        /** Money came by itself. */
        PAID("Money came"),
        /** A card was declined. */
        DECLINED("A card was declined"),
        /** A payment came back, was contested, or what was given back did not arrive. */
        CAME_BACK("A payment came back or is contested"),
        /** A letter came back, or was refused. */
        UNDELIVERED("A letter did not arrive"),
        /** A client answered a quote, or asks about one. */
        QUOTE("A client answered a quote");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        /** For people. */
        public String words() {
            return words;
        }
    }
}
