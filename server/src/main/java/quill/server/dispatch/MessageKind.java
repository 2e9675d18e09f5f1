package quill.server.dispatch;

import quill.server.common.StoredWord;

/** What a letter is. */
public enum MessageKind implements StoredWord {
    /** It brings an invoice. */
    INVOICE,
    /** It brings a credit note. */
    CREDIT_NOTE,
    /** It says that money came. */
    RECEIPT,
    /** It says that an earlier letter was a mistake. */
    CORRECTION,
    /** It asks for what is late, or soon due. */
    REMINDER,
    /** It shows the business what a client got. */
    COPY;

    /** Whether it can be called back before it leaves; the others say what is booked. */
    boolean canBeCalledBack() {
        return this == INVOICE || this == REMINDER || this == COPY;
    }
}
