package quill.core;

import java.util.Objects;

/**
 * One thing wrong with what was given.
 *
 * @param field path of the field, as the caller knows it: {@code lines[2].quantity}
 * @param value what was given, as text; empty where nothing was
 * @param message what would be allowed, as a sentence for the person who typed it
 */
public record Problem(String field, String value, String message) {
    /** What was given is shown this long at most: an answer is not larger than what it answers. */
    private static final int LONGEST = 120;

    /** Nothing here may be null: a screen shows all three. */
    public Problem {
        Objects.requireNonNull(field, "field");
        value = value == null ? "" : value.length() <= LONGEST ? value : value.substring(0, LONGEST - 1) + "…";
        Objects.requireNonNull(message, "message");
    }

    /** The same, of a field that its caller knows under another path. */
    public Problem at(String otherField) {
        return new Problem(otherField, value, message);
    }
}
