package quill.server.dailyrun;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.Amount;

/**
 * An act in the log of the daily run.
 *
 * @param kind fee or reminder
 * @param announced the amount on the morning's list; null for what came up since
 * @param amount what was charged or asked for; null where nothing was done
 * @param outcome planned, done, kept back, not needed or failed
 */
public record LoggedAct(
        long id,
        LocalDate on,
        String key,
        String kind,
        ClientId clientId,
        DocumentId invoiceId,
        @Schema(nullable = true) Amount announced,
        @Schema(nullable = true) Amount amount,
        String what,
        String outcome,
        String reason) {}
