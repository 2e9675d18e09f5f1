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
 * @param item the catalogue's item of which it was made; null for a line of its own
 * @param note printed under it; may be empty
 * @param category of income, of the business's own; empty for none, never printed
 */
public record Line(
        String description,
        BigDecimal quantity,
        String unit,
        BigDecimal unitPrice,
        Extent discount,
        List<Tax> taxes,
        Long item,
        String note,
        String category) {
    /** A line of its own, with nothing under it. */
    public Line(
            String description,
            BigDecimal quantity,
            String unit,
            BigDecimal unitPrice,
            Extent discount,
            List<Tax> taxes) {
        this(description, quantity, unit, unitPrice, discount, taxes, null, "", "");
    }

    /** Copies the taxes. */
    public Line {
        taxes = List.copyOf(taxes);
    }
}
