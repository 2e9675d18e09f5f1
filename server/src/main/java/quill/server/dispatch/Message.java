package quill.server.dispatch;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;

/**
 * A letter to a client.
 *
 * @param state waiting, sending, sent, uncertain (the mail server's answer never came), failed, or set aside by a
 *     person
 * @param leavesIn seconds in which it can be called back; null where it is not held for that
 */
public record Message(
        long id,
        String kind,
        long clientId,
        long invoiceId,
        String to,
        String subject,
        String state,
        @Schema(nullable = true) String error,
        LocalDate madeOn,
        @Schema(nullable = true) LocalDate sentOn,
        boolean calledBack,
        @Schema(nullable = true) Integer leavesIn) {}
