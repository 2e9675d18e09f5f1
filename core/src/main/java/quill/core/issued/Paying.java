package quill.core.issued;

import java.util.Objects;
import java.util.stream.Stream;

/**
 * How a document is to be paid; each empty where nothing is.
 *
 * @param reference a creditor reference, ISO 11649
 * @param lateFee what is charged where it is late, in words
 */
public record Paying(String iban, String bic, String reference, String lateFee) {
    /** For a document that asks for nothing. */
    public static final Paying NOTHING = new Paying("", "", "", "");

    /** Nothing of it is null. */
    public Paying {
        Stream.of(iban, bic, reference, lateFee).forEach(Objects::requireNonNull);
    }
}
