package quill.server.dispatch;

import java.time.LocalDate;
import java.util.Map;
import quill.core.id.ClientId;

/**
 * Told within the transaction that sets a reminder aside which never left.
 *
 * @param steps of the plan, by debt
 */
public record ReminderExpired(ClientId clientId, LocalDate writtenOn, Map<Long, Integer> steps) {}
