package quill.server.documents;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import quill.core.Problem;
import quill.core.Why;
import quill.server.common.Amount;
import quill.server.common.Figure;

/**
 * A draft reckoned as it is typed: what can be read is reckoned, what cannot is named.
 *
 * @param sums null where it could not be reckoned
 * @param notes what the person should know though nothing is wrong
 */
public record Reckoning(
        String currency,
        List<ReckonedLine> lines,
        List<ReckonedExtra> discounts,
        List<ReckonedExtra> charges,
        List<ReckonedTax> taxes,
        @Schema(nullable = true) ReckonedSums sums,
        List<ReckonedInstallment> installments,
        String lateFee,
        List<Problem> problems,
        List<String> notes,
        List<Understood> understood,
        List<ReckonedDeduction> deductions) {
    /** A deposit invoice that is taken off, a line for each set of taxes. */
    public record ReckonedDeduction(String words, Amount net, Why why) {}

    /** A field whose text could mean two numbers, with the one that was understood, in words. */
    public record Understood(String field, String as) {}

    static Reckoning unreckoned(
            String currency, String lateFee, List<Problem> problems, List<String> notes, List<Understood> understood) {
        List<ReckonedExtra> none = List.of();
        return new Reckoning(
                currency,
                List.of(),
                none,
                none,
                List.of(),
                null,
                List.of(),
                lateFee,
                problems,
                notes,
                understood,
                List.of());
    }

    /**
     * What it comes to.
     *
     * @param prepaid null where nothing is
     * @param rounding null unless cash is rounded
     * @param own the tax in the business's own currency, where the draft is in another
     */
    public record ReckonedSums(
            Figure net,
            Figure tax,
            Figure total,
            @Schema(nullable = true) Amount prepaid,
            @Schema(nullable = true) Figure rounding,
            Figure due,
            @Schema(nullable = true) PrintedDocument.InOwnCurrency own) {}

    /** A line's figures. @param place where the line stands in the draft, from 0 */
    public record ReckonedLine(int place, Amount net, Why why) {}

    /** A document discount's or charge's figures. @param place where it stands in the draft, from 0 */
    public record ReckonedExtra(int place, Amount amount, Why why) {}

    /** A tax of the draft. */
    public record ReckonedTax(String name, String rate, Amount base, Amount amount, Why why) {}

    /**
     * An installment of the draft.
     *
     * @param dueOn null while it waits for a milestone, or has no date yet
     * @param when how that was understood, in words
     * @param weight thousandths of the whole, for drawing only
     */
    public record ReckonedInstallment(
            int position,
            boolean deposit,
            Amount amount,
            @Schema(nullable = true) LocalDate dueOn,
            String when,
            int weight,
            Why why) {}
}
