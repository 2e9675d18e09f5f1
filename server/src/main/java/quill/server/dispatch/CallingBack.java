package quill.server.dispatch;

import java.util.List;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.acts.ActKey;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.ConflictException;
import quill.server.common.Json;
import quill.server.common.NotFoundException;

/**
 * Calls a letter back that has not left. A letter that a person sends waits a short while in the outbox for that, by
 * the clock of the system, so that it is there after a restart too.
 */
@Service
public class CallingBack {
    private final MessageRepository repository;
    private final MessageRows rows;
    private final ClientsService clients;
    private final Happenings happenings;
    private final ApplicationEventPublisher publisher;
    private final Json json;

    CallingBack(
            MessageRepository repository,
            MessageRows rows,
            ClientsService clients,
            Happenings happenings,
            ApplicationEventPublisher publisher,
            Json json) {
        this.repository = repository;
        this.rows = rows;
        this.clients = clients;
        this.happenings = happenings;
        this.publisher = publisher;
        this.json = json;
    }

    /**
     * Told within the transaction that calls a reminder back.
     *
     * @param letter what it had used up
     * @param keptBackAct key of the act that had been kept back before it was sent all the same, or null
     */
    public record ReminderCalledBack(ReminderExpired letter, ActKey keptBackAct) {}

    /** Letters on their way that can be called back, oldest first. */
    public List<Message> leaving() {
        return rows.leaving();
    }

    /** Time passes at once: what can still be called back goes with the next round of the outbox. */
    @Transactional
    public void leaveAtOnce() {
        repository.leaveAtOnce();
    }

    /**
     * Calls a letter back, and the copy of it that waits. It is as if it had not been sent: an invoice is issued, unsent
     * and unseen; the steps that a reminder used up are due again.
     *
     * @throws ConflictException where it has left, or is no letter that can be called back
     */
    @Transactional
    public void callBack(long id) {
        Message message = rows.find(id).orElseThrow(() -> new NotFoundException("There is no message " + id + "."));
        if (!message.kind().canBeCalledBack()) {
            throw new ConflictException(
                    "A " + message.kind().word() + " says what is booked; it cannot be called back.");
        }
        // Sending, and taking an invoice back, take the same lock.
        clients.lock(message.clientId());
        repository.waitingCopyOf(id).ifPresent(repository::callBack);
        if (!repository.callBack(id)) {
            throw new ConflictException("It cannot be called back any more: it is "
                    + rows.find(id).orElseThrow().state().word() + ".");
        }
        if (message.kind() == MessageKind.REMINDER) {
            ReminderLetter letter = json.read(rows.reminder(id).orElseThrow(), ReminderLetter.class);
            publisher.publishEvent(new ReminderCalledBack(
                    ReminderGuard.neverLeft(message, letter),
                    repository.keptBackAct(id).flatMap(ActKey::read).orElse(null)));
        }
        happenings.tell(
                message.documentId(),
                message.clientId(),
                "Called back before it left: " + message.subject(),
                Happenings.About.letter(id));
    }
}
