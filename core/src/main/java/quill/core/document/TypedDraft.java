package quill.core.document;

import java.util.List;
import quill.core.latefee.TypedLateFeePolicy;

/**
 * A draft as it was typed. Nothing in it need be valid: it is kept so that a slip of the pen loses nothing.
 *
 * @param clientId whom it is for; null until chosen
 * @param currency ISO 4217 code
 * @param subject what it is for, in a few words
 * @param supplyDate ISO date of supply
 * @param supplyEnd last day of the period of supply; empty where the supply was on one day
 * @param lateFee this invoice's own policy; null where the client's or the business's holds
 */
public record TypedDraft(
        Long clientId,
        String currency,
        String subject,
        String reference,
        String supplyDate,
        String supplyEnd,
        boolean taxInside,
        List<TypedLine> lines,
        List<TypedTerm> schedule,
        String notes,
        TypedLateFeePolicy lateFee) {
    /** A line as typed; {@code discount} is empty, {@code 10%} or {@code 25.00}. */
    public record TypedLine(
            String description, String quantity, String unit, String unitPrice, String discount, List<String> taxes) {
        /** Missing taxes are none. */
        public TypedLine {
            taxes = taxes == null ? List.of() : List.copyOf(taxes);
        }

        boolean isBlank() {
            return blank(description) && blank(quantity) && blank(unitPrice) && blank(discount);
        }
    }

    /**
     * An installment as typed.
     *
     * @param deposit whether it is a deposit
     * @param share {@code 40%}, {@code 500.00} or {@code rest}
     * @param days days after issue; {@code 0} is on issue
     */
    public record TypedTerm(boolean deposit, String share, String days) {}

    /** Without a late-fee policy of its own. */
    public TypedDraft(
            Long clientId,
            String currency,
            String subject,
            String reference,
            String supplyDate,
            String supplyEnd,
            boolean taxInside,
            List<TypedLine> lines,
            List<TypedTerm> schedule,
            String notes) {
        this(clientId, currency, subject, reference, supplyDate, supplyEnd, taxInside, lines, schedule, notes, null);
    }

    /** Missing lists are empty. */
    public TypedDraft {
        lines = lines == null ? List.of() : List.copyOf(lines);
        schedule = schedule == null ? List.of() : List.copyOf(schedule);
    }

    static boolean blank(String text) {
        return text == null || text.isBlank();
    }
}
