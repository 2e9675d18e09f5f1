package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;

/**
 * A letter to a client.
 *
 * @param leavesIn seconds in which it can be called back; null where it is not held for that
 */
public record Message(
        long id,
        MessageKind kind,
        ClientId clientId,
        DocumentId invoiceId,
        String to,
        String subject,
        MessageState state,
        @Schema(nullable = true) String error,
        LocalDate madeOn,
        @Schema(nullable = true) LocalDate sentOn,
        boolean calledBack,
        @Schema(nullable = true) Integer leavesIn) {}
