package quill.server.invoices;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import quill.core.Problem;
import quill.core.Why;
import quill.server.common.Amount;
import quill.server.common.Figure;

/** A draft reckoned as it is typed: what can be read is reckoned, what cannot is named. */
public record Reckoning(
        String currency,
        List<ReckonedLine> lines,
        List<ReckonedTax> taxes,
        @Schema(nullable = true) Figure net,
        @Schema(nullable = true) Figure tax,
        @Schema(nullable = true) Figure total,
        List<ReckonedInstallment> installments,
        String lateFee,
        List<Problem> problems) {
    /** A line's figures. @param place where the line stands in the draft, from 0 */
    public record ReckonedLine(int place, Amount net, Why why) {}

    /** A tax of the draft. */
    public record ReckonedTax(String name, String rate, Amount base, Amount amount, Why why) {}

    /** An installment of the draft. @param weight thousandths of the whole, for drawing only */
    public record ReckonedInstallment(
            int position, boolean deposit, Amount amount, LocalDate dueOn, int weight, Why why) {}
}
