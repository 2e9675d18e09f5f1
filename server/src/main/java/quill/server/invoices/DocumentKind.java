package quill.server.invoices;

import quill.server.common.StoredWord;

/** What a document is. */
public enum DocumentKind implements StoredWord {
    /** It asks for money. */
    INVOICE,
    /** It takes back what an invoice asked for. */
    CREDIT_NOTE;

    /** What is printed as its name. */
    public String title() {
        return this == INVOICE ? "Invoice" : "Credit note";
    }
}
