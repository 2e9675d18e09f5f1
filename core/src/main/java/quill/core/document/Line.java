package quill.core.document;

import java.math.BigDecimal;
import java.util.List;
import quill.core.tax.Tax;

/**
 * One line.
 *
 * @param quantity up to 6 decimals; below zero for a returned part
 * @param unitPrice up to 6 decimals, not below zero
 * @param taxes in the order in which compound ones build on each other
 */
public record Line(
        String description, BigDecimal quantity, String unit, BigDecimal unitPrice, Extent discount, List<Tax> taxes) {
    /** Copies the taxes. */
    public Line {
        taxes = List.copyOf(taxes);
    }
}
