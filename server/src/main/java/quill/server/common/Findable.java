package quill.server.common;

/** What can be found by its words. */
public enum Findable {
    CLIENT,
    INVOICE,
    CREDIT_NOTE,
    QUOTE,
    PAYMENT,
    ITEM,
    BUNDLE
}
