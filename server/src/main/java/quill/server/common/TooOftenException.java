package quill.server.common;

/** More is asked for at once than is dealt with. Answered with 429. */
public class TooOftenException extends RuntimeException {
    /** @param message what to do, as a sentence for a person */
    public TooOftenException(String message) {
        super(message);
    }
}
