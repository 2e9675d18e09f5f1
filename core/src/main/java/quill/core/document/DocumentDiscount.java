package quill.core.document;

import java.util.List;
import quill.core.tax.Tax;

/**
 * What lowers a whole document (EN 16931, BG-20: document level allowance).
 *
 * @param reason as printed
 * @param extent a percentage of the sum of the lines, or a sum
 * @param taxes the set of taxes that it belongs to; empty where it is split over all sets by their lines' sums
 */
public record DocumentDiscount(String reason, Extent extent, List<Tax> taxes) {
    /** Copies the taxes. */
    public DocumentDiscount {
        taxes = List.copyOf(taxes);
    }
}
