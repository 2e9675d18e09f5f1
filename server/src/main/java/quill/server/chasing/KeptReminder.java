package quill.server.chasing;

import java.time.LocalDate;
import java.util.Map;
import quill.core.acts.ActKey;
import quill.core.id.ClientId;

/**
 * A reminder that was kept back until its day had passed.
 *
 * @param key of the act
 * @param what it was, in words
 * @param on the day on which it would have gone
 * @param steps of the plan that it used up, in days, by debt
 */
public record KeptReminder(ActKey key, ClientId clientId, String what, LocalDate on, Map<Long, Integer> steps) {}
