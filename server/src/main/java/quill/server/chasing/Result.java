package quill.server.chasing;

import quill.server.common.StoredWord;

/** What became of an act of the daily run. */
public enum Result implements StoredWord {
    PLANNED,
    DONE,
    KEPT_BACK,
    NOT_NEEDED,
    FAILED
}
