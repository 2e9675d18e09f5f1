package quill.server.invoices;

import java.time.LocalDate;
import org.joda.money.Money;

/**
 * A credit note as stored.
 *
 * @param whole whether nothing of the invoice was left after it
 * @param fixed what it says
 * @param taken all that was taken from the invoice up to and with it
 */
public record CreditNote(
        long id,
        String number,
        long invoiceId,
        LocalDate issuedOn,
        String reason,
        Money total,
        boolean whole,
        String fixed,
        String taken) {
    /** How much of the invoice it takes back, in words before the invoice's name. @param of the invoice's total */
    public String extent(Money of) {
        return !whole ? "a part of" : total.isEqual(of) ? "the whole of" : "the rest of";
    }
}
