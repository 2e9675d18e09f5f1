package quill.server.dispatch;

import quill.server.common.StoredWord;

/** What whoever paid is sent, by the business's choice. */
public enum PayerGets implements StoredWord {
    /** A letter that says what came, what it settled and what is left. */
    RECEIPT,
    /** The same; once all of an invoice is paid, the invoice goes along with it, marked paid. */
    MARKED_INVOICE,
    /** Nothing; what comes ahead on a quote, or with no invoice, is receipted all the same: no other paper says that it came. */
    NOTHING
}
