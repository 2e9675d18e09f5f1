package quill.server.documents;

import quill.server.common.StoredWord;

/** How a document stands; which of these one can be in, its kind says. */
public enum DocumentState implements StoredWord {
    /** It is written still; nobody but the business sees it. */
    DRAFT,
    /** It waits for its client: an invoice for money, a quote for an answer. */
    OPEN,
    /** All that it asked for was paid, credited or written off. */
    SETTLED,
    /** It says what it says, and asks for nothing. */
    ISSUED,
    /** The client took up the offer. */
    ACCEPTED,
    /** The client turned the offer down. */
    DECLINED,
    /** It counts no more; its number stays used. */
    VOID
}
