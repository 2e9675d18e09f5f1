package quill.server.dispatch;

import java.util.ArrayList;
import java.util.List;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.letter.Channel;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.ConflictException;
import quill.server.common.Phones;
import quill.server.common.Texts;

/** What a person decides about a message that did not arrive: it goes again, perhaps elsewhere, or is set aside. */
@Service
public class Mending {
    private final MessageRepository repository;
    private final Correspondence correspondence;
    private final DispatchService dispatch;
    private final Destinations destinations;
    private final Letters letters;
    private final ClientsService clients;
    private final Happenings happenings;
    private final ApplicationEventPublisher publisher;

    Mending(
            MessageRepository repository,
            Correspondence correspondence,
            DispatchService dispatch,
            Destinations destinations,
            Letters letters,
            ClientsService clients,
            Happenings happenings,
            ApplicationEventPublisher publisher) {
        this.repository = repository;
        this.correspondence = correspondence;
        this.dispatch = dispatch;
        this.destinations = destinations;
        this.letters = letters;
        this.clients = clients;
        this.happenings = happenings;
        this.publisher = publisher;
    }

    /**
     * Sends a message again. One that came back stays as it is, and another one goes: an invoice is written anew, a
     * receipt says again what it said, and the steps of a reminder are due again, so that the next one says what is open
     * then.
     *
     * @param to where it goes this time, which is kept with the client; null or empty for where it went
     */
    @Transactional
    public void sendAgain(long id, String to) {
        Message message = correspondence.message(id);
        if (message.clientId() != null) {
            clients.lock(message.clientId());
        }
        String wrong = message.addresses().cameBackFrom() == null
                ? message.addresses().to()
                : message.addresses().cameBackFrom();
        String right = to == null || to.isBlank() ? wrong : checked(message, to);
        if (message.state() == MessageState.BOUNCED) {
            if (!repository.seeTo(id)) {
                throw new ConflictException("Somebody has seen to this letter already.");
            }
            mend(message, wrong, right);
            again(message, right);
        } else {
            decide(message, MessageState.WAITING, "Sent again by hand: ");
            mend(message, wrong, right);
            repository.readdress(id, right);
            repository.byHand(id);
        }
    }

    private String checked(Message message, String to) {
        if (message.addresses().channel() == Channel.TEXT) {
            return destinations.number("to", to, clients.client(message.clientId()));
        }
        List<Problem> problems = new ArrayList<>();
        String plain = Texts.email("to", to, true, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return plain;
    }

    private void mend(Message message, String wrong, String right) {
        if (message.clientId() == null || message.kind() == MessageKind.COPY || wrong.equalsIgnoreCase(right)) {
            return;
        }
        if (message.addresses().channel() == Channel.TEXT) {
            clients.keepAddress(message.clientId(), null, Phones.shown(right));
        } else {
            clients.mendAddress(message.clientId(), wrong, right);
        }
        happenings.tell(
                message.documentId(),
                message.clientId(),
                "Address mended: " + right + ", not " + wrong,
                Happenings.About.letter(message.id()));
    }

    private void again(Message message, String right) {
        String key = "mended:" + message.id();
        switch (message.kind()) {
            case INVOICE ->
                dispatch.sendAgain(
                        message.documentId(),
                        "mended-" + message.id(),
                        Slip.to(right).by(message.addresses().channel()));
            case REMINDER ->
                publisher.publishEvent(ReminderGuard.neverLeft(message, correspondence.reminderLetter(message.id())));
            default -> repository.again(message.id(), key, letters.newMessageId(), right);
        }
        happenings.tell(
                message.documentId(),
                message.clientId(),
                message.kind() == MessageKind.REMINDER
                        ? "Reminded anew with the next run, since the letter came back: " + message.subject()
                        : "Sent again by hand, since it came back: " + message.subject(),
                Happenings.About.letter(message.id()));
    }

    /** A person has dealt with a message that did not arrive. */
    @Transactional
    public void setAside(long id) {
        Message message = correspondence.message(id);
        if (message.state() == MessageState.BOUNCED) {
            if (!repository.seeTo(id)) {
                throw new ConflictException("Somebody has seen to this letter already.");
            }
            happenings.tell(
                    message.documentId(),
                    message.clientId(),
                    "Seen to: " + message.subject(),
                    Happenings.About.letter(id));
            return;
        }
        decide(message, MessageState.SET_ASIDE, "Set aside: ");
    }

    private void decide(Message message, MessageState to, String words) {
        boolean moved = repository.move(message.id(), MessageState.UNCERTAIN, to, null, null, 0)
                || repository.move(message.id(), MessageState.FAILED, to, null, null, 0);
        if (!moved) {
            throw new ConflictException("This message is " + message.state().word() + " now; nothing was changed.");
        }
        happenings.tell(
                message.documentId(),
                message.clientId(),
                words + message.subject(),
                Happenings.About.letter(message.id()));
    }
}
