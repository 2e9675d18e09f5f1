package quill.server.chasing;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import quill.core.Why;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.letter.Channel;
import quill.server.common.Amount;

/**
 * An act to come.
 *
 * @param kind fee or reminder
 * @param hour the business's hour, as HH:MM
 * @param stopped what keeps it from being done; empty where nothing does
 * @param stop the same as a code
 * @param canDoNow whether it can be done at once
 * @param way by which a reminder goes; null for a fee
 */
public record ActView(
        String key,
        String kind,
        LocalDate on,
        String hour,
        About about,
        @Schema(nullable = true) String tone,
        Amount amount,
        String stop,
        String stopped,
        boolean canDoNow,
        @Schema(nullable = true) Channel way,
        Why why) {
    /** Whom and what it concerns. @param invoiceId the one that it is mainly about @param what it does, in words */
    public record About(ClientId clientId, String client, DocumentId invoiceId, String what) {}
}
