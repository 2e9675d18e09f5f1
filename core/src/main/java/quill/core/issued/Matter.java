package quill.core.issued;

import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;

/**
 * What a document is about, in the business's own words. What was not typed is empty.
 *
 * @param fields of the business's own
 * @param supplyDate when the work was done, or the first day of it
 * @param supplyEnd the last day of it, or null
 */
public record Matter(
        String subject,
        String reference,
        String project,
        List<Field> fields,
        LocalDate supplyDate,
        LocalDate supplyEnd,
        String notes,
        String terms,
        String footer) {
    /** One of the business's own fields. */
    public record Field(String label, String value) {}

    /** No text is null. */
    public Matter {
        Stream.of(subject, reference, project, notes, terms, footer).forEach(Objects::requireNonNull);
        fields = List.copyOf(fields);
    }
}
