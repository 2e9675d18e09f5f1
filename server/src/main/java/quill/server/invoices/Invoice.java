package quill.server.invoices;

import java.time.LocalDate;

/**
 * An invoice as stored. What it says is in {@code typed} while it is a draft and in {@code fixed} once issued.
 *
 * @param bucket draft, open or settled; a voided one is settled
 * @param number a draft has one only if it was issued under it and taken back before it was sent
 * @param voidedOn null unless it was voided
 * @param totalMinor null while a draft cannot be reckoned
 */
public record Invoice(
        long id,
        Long clientId,
        String clientName,
        Bucket bucket,
        String number,
        String subject,
        String currency,
        Long totalMinor,
        long openMinor,
        LocalDate nextDueOn,
        LocalDate issuedOn,
        String typed,
        String fixed,
        Long replacesId,
        LocalDate voidedOn,
        int version) {
    /** Whether it can still be written. */
    public boolean isDraft() {
        return bucket == Bucket.DRAFT;
    }
}
