package quill.server.common;

import java.io.IOException;

/** A body grew beyond what its address takes. Answered with 413. */
public class TooLargeException extends IOException {
    private final long most;

    /** @param most bytes that would have been taken */
    public TooLargeException(long most) {
        super("a body may have at most " + most + " bytes here");
        this.most = most;
    }

    /** Bytes that would have been taken. */
    public long most() {
        return most;
    }
}
