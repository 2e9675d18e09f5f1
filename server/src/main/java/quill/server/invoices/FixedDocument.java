package quill.server.invoices;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import quill.core.Why;
import quill.server.common.Amount;
import quill.server.common.Figure;

/** An invoice as it was issued: everything that is printed, fixed on the day of issue and never changed after. */
public record FixedDocument(
        String number,
        Party from,
        Party to,
        String subject,
        String reference,
        LocalDate issuedOn,
        @Schema(nullable = true) LocalDate supplyDate,
        @Schema(nullable = true) LocalDate supplyEnd,
        boolean taxInside,
        String currency,
        List<PrintedLine> lines,
        List<PrintedTax> taxes,
        Figure net,
        Figure tax,
        Figure total,
        String notes,
        String footer,
        String iban,
        String bic,
        String paymentReference,
        String lateFee) {
    /** A document fixed before late fees were printed has none. */
    public FixedDocument {
        lateFee = lateFee == null ? "" : lateFee;
    }

    /** A party as printed. */
    public record Party(String name, String under, String address, String email, String taxNumber) {}

    /** A line as printed. */
    public record PrintedLine(
            String description,
            String quantity,
            String unit,
            String unitPrice,
            String discount,
            String tax,
            Amount net,
            Why why) {}

    /** A tax as printed; its reason is printed where nothing is charged. */
    public record PrintedTax(
            String name, String rate, String category, String reason, Amount base, Amount amount, Why why) {}
}
