package quill.core.issued;

import java.util.Objects;
import java.util.stream.Stream;

/**
 * How a document looks, as the business had chosen on the day of issue.
 *
 * @param logo by its hash; empty where the business had none
 * @param accent as #rrggbb; empty for the usual ink
 * @param lineShows quantity (and price), hours (and rate) or amount
 * @param typeface two (a serif for names), plain or noto
 */
public record Look(String layout, String logo, String accent, String lineShows, String typeface) {
    /** Nothing of it is null. */
    public Look {
        Stream.of(layout, logo, accent, lineShows, typeface).forEach(Objects::requireNonNull);
    }
}
