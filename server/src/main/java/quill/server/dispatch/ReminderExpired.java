package quill.server.dispatch;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import quill.core.id.ClientId;

/**
 * Told within the transaction that sets a reminder aside which never left.
 *
 * @param steps of the plan, by debt
 * @param asked the debts that it asked for
 */
public record ReminderExpired(ClientId clientId, LocalDate writtenOn, Map<Long, Integer> steps, List<Long> asked) {}
