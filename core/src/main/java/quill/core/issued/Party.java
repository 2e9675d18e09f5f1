package quill.core.issued;

import java.util.Objects;
import java.util.stream.Stream;

/**
 * Who writes a document, or to whom, as on the day of issue. What is not known is empty.
 *
 * @param under a line under the name: a tagline, or a person
 * @param country ISO 3166-1 alpha-2
 * @param delivery where things are brought, if it is not the address
 */
public record Party(
        String name, String under, String address, String country, String email, String taxNumber, String delivery) {
    /** Nothing of it is null. */
    public Party {
        Stream.of(name, under, address, country, email, taxNumber, delivery).forEach(Objects::requireNonNull);
    }
}
