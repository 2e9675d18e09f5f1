package quill.server.documents;

import quill.server.common.StoredWord;

/** What one document is to another. */
public enum RelationKind implements StoredWord {
    /** A draft that takes an invoice's place. */
    REPLACES,
    /** A credit note that takes back of an invoice. */
    CORRECTS,
    /** An invoice that takes a deposit invoice off. */
    DEDUCTS,
    /** An invoice, or a deposit invoice, for what a quote offered. */
    FROM_QUOTE,
    /** A quote that took the place of an earlier one. */
    SUPERSEDES
}
