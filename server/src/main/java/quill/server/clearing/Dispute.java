package quill.server.clearing;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.Amount;
import quill.server.common.StoredWord;

/**
 * A payment that the payer's bank took back, and our answer.
 *
 * @param movementId by which it went
 * @param cost what the processor keeps for it
 * @param reason as the payer's bank gives it
 */
public record Dispute(
        long id,
        long paymentId,
        long movementId,
        ClientId clientId,
        @Schema(nullable = true) DocumentId documentId,
        Amount amount,
        Amount cost,
        String reason,
        State state,
        Days days,
        @Schema(nullable = true) String evidence,
        AtProcessor at) {
    /** How it stands. */
    public enum State implements StoredWord {
        /** It waits for our answer. */
        OPEN,
        /** Our answer is to go to the processor. */
        SENDING,
        /** It waits for the bank. */
        ANSWERED,
        WON,
        LOST;

        boolean isDecided() {
            return this == WON || this == LOST;
        }
    }

    /** Its days. */
    public record Days(
            LocalDate openedOn,
            LocalDate answerBy,
            @Schema(nullable = true) LocalDate answeredOn,
            @Schema(nullable = true) LocalDate decidedOn) {}

    /** Where it is. @param contest as the processor calls it */
    public record AtProcessor(long processor, String contest) {}
}
