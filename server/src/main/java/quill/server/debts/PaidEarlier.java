package quill.server.debts;

import java.time.LocalDate;
import java.util.List;

/**
 * Told within the transaction that books money which is dated before the day on which it is booked.
 *
 * @param paidOn the day that it is dated
 * @param entryId by which it was booked
 * @param debtIds what it settled
 */
public record PaidEarlier(long paymentId, LocalDate paidOn, long entryId, List<Long> debtIds) {
    /** Told within the transaction that takes a payment back which was recorded wrongly. */
    public record Undone(long paymentId) {}
}
