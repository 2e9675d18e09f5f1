package quill.server.dispatch;

import quill.server.common.StoredWord;

/** By which way a message goes. */
public enum Channel implements StoredWord {
    /** E-mail, with papers and files. */
    MAIL,
    /** A text message to a telephone: words and an address of a page, nothing else. */
    TEXT
}
