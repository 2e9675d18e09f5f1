package quill.server.dispatch;

import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import quill.core.reminder.WaitingLetter;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Json;
import quill.server.debts.Debts;
import quill.server.dispatch.MessageRepository.Outgoing;

/**
 * Looks once more just before a reminder leaves. One that waited, since the mail server did not answer, is set aside
 * where its money has come meanwhile, or its day has passed: the next letter says what is open then. A person who sends
 * one again decides about its day, not about money that has come.
 */
@Component
class ReminderGuard {
    private final MessageRepository repository;
    private final MessageRows rows;
    private final ClientsService clients;
    private final Debts debts;
    private final Happenings happenings;
    private final ApplicationEventPublisher publisher;
    private final BusinessClock clock;
    private final Json json;

    ReminderGuard(
            MessageRepository repository,
            MessageRows rows,
            ClientsService clients,
            Debts debts,
            Happenings happenings,
            ApplicationEventPublisher publisher,
            BusinessClock clock,
            Json json) {
        this.repository = repository;
        this.rows = rows;
        this.clients = clients;
        this.debts = debts;
        this.happenings = happenings;
        this.publisher = publisher;
        this.clock = clock;
        this.json = json;
    }

    /** Marks a letter as being sent if it may leave; a reminder only while it is true. @return whether it may */
    @Transactional
    public boolean mayLeave(Outgoing outgoing) {
        Message message = rows.find(outgoing.id()).orElseThrow();
        if (outgoing.reminder() != null) {
            clients.lock(message.clientId());
            ReminderLetter letter = json.read(outgoing.reminder(), ReminderLetter.class);
            WaitingLetter.Fate fate = waiting(message, letter).on(clock.today(), debts::openOf);
            if (fate != WaitingLetter.Fate.LEAVES) {
                setAside(message, letter, fate);
                return false;
            }
        }
        return repository.move(outgoing.id(), MessageState.WAITING, MessageState.SENDING, null, null, 0);
    }

    private WaitingLetter waiting(Message message, ReminderLetter letter) {
        return new WaitingLetter(letter.writtenOn(), repository.isByHand(message.id()), rows.asked(message.id()));
    }

    private void setAside(Message message, ReminderLetter letter, WaitingLetter.Fate fate) {
        String why = fate.why();
        if (!repository.move(message.id(), MessageState.WAITING, MessageState.SET_ASIDE, why, null, 0)) {
            return;
        }
        happenings.tell(
                message.documentId(),
                message.clientId(),
                "Reminder not sent. " + why,
                Happenings.About.letter(message.id()));
        if (fate == WaitingLetter.Fate.DAY_HAS_PASSED && message.kind() == MessageKind.REMINDER) {
            publisher.publishEvent(neverLeft(message, letter));
        }
    }

    /** What a letter that never leaves had used up. */
    static ReminderExpired neverLeft(Message message, ReminderLetter letter) {
        Map<Long, Integer> steps = new LinkedHashMap<>();
        letter.rows().stream().filter(r -> r.step() != null).forEach(r -> steps.put(r.debtId(), r.step()));
        return new ReminderExpired(message.clientId(), letter.writtenOn(), steps);
    }
}
