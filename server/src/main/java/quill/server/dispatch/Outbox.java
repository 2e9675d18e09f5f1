package quill.server.dispatch;

import java.time.LocalDateTime;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import quill.core.letter.Channel;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.TooOftenException;
import quill.server.dispatch.MessageRepository.Outgoing;

/**
 * Sends what waits, each by its channel. A message is marked as being sent before its first byte leaves and as sent after
 * the last answer. A clear refusal is tried again or given up; where no answer came it is uncertain, and only a person
 * sends it again, since nobody can be asked whether it arrived.
 */
@Component
public class Outbox {
    private static final Logger LOG = LoggerFactory.getLogger(Outbox.class);

    private final MessageRepository repository;
    private final Map<Channel, Carrier> carriers = new EnumMap<>(Channel.class);
    private final LaterLetters later;
    private final Changes changes;
    private final BusinessClock clock;

    Outbox(
            MessageRepository repository,
            List<Carrier> carriers,
            LaterLetters later,
            Changes changes,
            BusinessClock clock) {
        this.repository = repository;
        carriers.forEach(c -> this.carriers.put(c.channel(), c));
        this.later = later;
        this.changes = changes;
        this.clock = clock;
    }

    @EventListener(ApplicationReadyEvent.class)
    @Order(0)
    void start() {
        markInterrupted("the application stopped before the answer came");
    }

    private void markInterrupted(String why) {
        int uncertain = repository.interruptedAreUncertain(why);
        if (uncertain > 0) {
            LOG.warn("{} message(s) were on their way, and {}; see Needs you", uncertain, why);
            changes.say(null, null);
        }
    }

    /** Sends all that is due, one after the other. */
    public void sendDue() {
        sendDue(() -> false);
    }

    /**
     * Sends what is due, one after the other, until it is told to leave the rest. What is marked as being sent when it
     * begins is nobody's any more: its letter may have left while its mark could not be written.
     */
    public synchronized void sendDue(BooleanSupplier stop) {
        markInterrupted("the answer could not be noted");
        for (Outgoing outgoing : repository.due(LocalDateTime.now(clock))) {
            if (stop.getAsBoolean()) {
                return;
            }
            try {
                Outgoing now = outgoing.later() == null ? outgoing : later.writtenNow(outgoing);
                if (now != null) {
                    carriers.get(now.addresses().channel()).carry(now);
                }
            } catch (RuntimeException e) {
                LOG.error("message {} could not be written", outgoing.id(), e);
                boolean passes = e instanceof TooOftenException;
                String why = "It could not be put together; the log of the application says why.";
                repository.move(
                        outgoing.id(),
                        MessageState.WAITING,
                        passes ? MessageState.WAITING : MessageState.FAILED,
                        why,
                        null,
                        passes ? 30 : 0);
            }
        }
    }
}
