package quill.server.common;

/** Nothing has this address or number. Answered with 404. */
public class NotFoundException extends RuntimeException {
    /** @param message what was looked for, as a sentence for a person */
    public NotFoundException(String message) {
        super(message);
    }
}
