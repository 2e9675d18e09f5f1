package quill.server.dispatch;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.time.LocalDate;
import java.util.List;
import quill.core.letter.Filled;
import quill.server.business.Business;
import quill.server.common.Amount;
import quill.server.invoices.Measure;

/**
 * A reminder as it was written: kept whole with the message, so that its paper can be made again and never changes.
 *
 * @param totals what it asks for, a sum for each currency
 * @param transfers how each of them is paid
 */
public record ReminderLetter(
        Business from,
        Addressee to,
        LocalDate writtenOn,
        String subject,
        List<Filled.Block> blocks,
        List<Row> rows,
        List<Amount> totals,
        List<Transfer> transfers,
        List<Drawn> measures) {
    /**
     * Something that is asked for.
     *
     * @param debtId key of the installment or the fee
     * @param step days of the plan's step that asks for it, or null where it is only listed
     * @param fee whether it is a late fee, due on the day it was charged
     * @param what the installment or the fee, in words
     * @param stands since or until when it is due, in words
     */
    public record Row(
            long debtId,
            Integer step,
            boolean fee,
            String number,
            String what,
            LocalDate dueOn,
            long daysLate,
            String stands,
            Amount amount,
            String link) {}

    /** Whom it is written to. @param contact may be empty */
    public record Addressee(String name, String contact, String address) {}

    /**
     * How to pay a sum.
     *
     * @param link the page of the invoice that the sum is mainly about
     * @param iban empty where the business has no account for its currency
     * @param code what the square code carries
     */
    public record Transfer(Amount sum, String link, String iban, String bic, String reference, String code) {
        /** Whether the code is a credit transfer, not the address of the page. */
        @JsonIgnore
        public boolean isCoded() {
            return code.startsWith(SquareCode.TRANSFER);
        }
    }

    /** The schedule of an invoice as it stood. */
    public record Drawn(String number, String subject, List<Measure.Part> parts) {}
}
