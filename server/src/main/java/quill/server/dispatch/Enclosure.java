package quill.server.dispatch;

import quill.server.common.StoredWord;

/** The paper that goes with a letter, beside a reminder's own. */
enum Enclosure implements StoredWord {
    INVOICE,
    CREDIT_NOTE,
    NONE
}
