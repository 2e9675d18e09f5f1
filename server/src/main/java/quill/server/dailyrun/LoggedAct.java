package quill.server.dailyrun;

import java.time.LocalDate;
import java.util.List;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.Amount;

/**
 * An act in the log of the daily run.
 *
 * @param kind fee or reminder
 * @param announced the sums on the morning's list, by currency; none for what came up since
 * @param done what was charged or asked for, by currency; none where nothing was done
 * @param outcome planned, done, kept back, not needed or failed
 */
public record LoggedAct(
        long id,
        LocalDate on,
        String key,
        String kind,
        ClientId clientId,
        DocumentId invoiceId,
        List<Amount> announced,
        List<Amount> done,
        String what,
        String outcome,
        String reason) {}
