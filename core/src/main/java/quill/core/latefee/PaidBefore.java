package quill.core.latefee;

import java.time.LocalDate;

/**
 * Money for an installment that bears a late fee.
 *
 * @param paidOn when the money moved
 * @param entry by which it was booked
 */
public record PaidBefore(LocalDate paidOn, long entry) {
    /**
     * Whether it puts the fee up for waiving: it had moved before the fee was charged, and nobody knew of it then. A person
     * decides.
     *
     * @param chargedOn the day of the fee
     * @param feeEntry by which the fee was booked
     */
    public boolean putsUp(LocalDate chargedOn, long feeEntry) {
        return paidOn.isBefore(chargedOn) && entry > feeEntry;
    }
}
