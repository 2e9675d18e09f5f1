package quill.server.savedmethods;

import quill.core.pay.CollectionAgreement;
import quill.server.common.StoredWord;

/** What a client said when it let a card or a bank account be kept. @param words as they were shown, or as they were spoken */
public record Agreed(How how, CollectionAgreement agreement, String words) {
    /** How it was said. */
    public enum How implements StoredWord {
        /** Ticked on a page. */
        PAGE,
        /** In person or by telephone. */
        SPOKEN
    }
}
