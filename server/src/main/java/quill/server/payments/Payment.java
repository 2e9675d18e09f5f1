package quill.server.payments;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.Amount;

/**
 * Money received.
 *
 * @param valueOn when the money moved
 * @param fee what the processor kept; on no paper for the client
 * @param unexpected whether it came for an order that had been withdrawn, and is held as client credit
 * @param held whether it is a deposit for work to come, which settles nothing by itself
 */
public record Payment(
        long id,
        ClientId clientId,
        @Schema(nullable = true) DocumentId invoiceId,
        PaymentWay way,
        Amount amount,
        Amount fee,
        LocalDate valueOn,
        LocalDate bookedOn,
        String reference,
        String card,
        @Schema(nullable = true) LocalDate undoneOn,
        @Schema(nullable = true) String undoneWhy,
        boolean unexpected,
        boolean held) {
    /** Its reference, as it follows the words of an entry; empty where there is none. */
    String referenceWords() {
        return reference.isEmpty() ? "" : " · reference " + reference;
    }

    /** How it came, in words for a client. */
    public String words() {
        return switch (way) {
            case CARD -> "by card" + (card.isEmpty() ? "" : ", " + card);
            case TRANSFER -> "by bank transfer";
            case CASH -> "in cash";
            case CHEQUE -> "by cheque";
        };
    }
}
