package quill.server.clearing;

import quill.server.common.StoredWord;

/** How money that goes back through a processor stands. */
public enum RefundState implements StoredWord {
    /** The processor has not answered yet. */
    WANTED,
    /** It has taken it on. */
    ASKED,
    /** It has booked it. */
    GONE,
    /** It will not. */
    REFUSED,
    /** It did not arrive. */
    FAILED
}
