package quill.core.document;

import java.util.List;
import quill.core.tax.Tax;

/**
 * What raises a whole document, such as delivery (EN 16931, BG-21: document level charge). It carries its own taxes.
 *
 * @param description as printed
 * @param extent a percentage of the sum of the lines, or a sum
 */
public record Charge(String description, Extent extent, List<Tax> taxes) {
    /** Copies the taxes. */
    public Charge {
        taxes = List.copyOf(taxes);
    }
}
