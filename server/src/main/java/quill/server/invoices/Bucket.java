package quill.server.invoices;

import quill.server.common.StoredWord;

/** Where an invoice stands in the index: written, owed, or done with; a voided one is settled. */
public enum Bucket implements StoredWord {
    DRAFT,
    OPEN,
    SETTLED
}
