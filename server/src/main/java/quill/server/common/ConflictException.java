package quill.server.common;

/** What was asked no longer fits what is stored: somebody, or another window, was faster. Answered with 409. */
public class ConflictException extends RuntimeException {
    /** @param message what is true now, and what to do, as a sentence for a person */
    public ConflictException(String message) {
        super(message);
    }
}
