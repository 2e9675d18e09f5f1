package quill.server.dispatch;

import org.springframework.stereotype.Component;
import quill.core.letter.Channel;
import quill.server.audit.Happenings;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.dispatch.MessageRepository.Outgoing;

/** Notes what became of a message that was handed over. */
@Component
class Outcomes {
    private static final int MOST_TRIES = 12;
    private final MessageRepository repository;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;

    Outcomes(MessageRepository repository, Happenings happenings, Changes changes, BusinessClock clock) {
        this.repository = repository;
        this.happenings = happenings;
        this.changes = changes;
        this.clock = clock;
    }

    /** It was taken. */
    void sent(Outgoing outgoing) {
        repository.move(outgoing.id(), MessageState.SENDING, MessageState.SENT, null, clock.today(), 0);
        String how = outgoing.addresses().channel() == Channel.TEXT ? "Sent by text message to " : "Sent to ";
        Happenings.as(
                outgoing.madeBy(),
                () -> happenings.note(
                        outgoing.documentId(),
                        outgoing.clientId(),
                        how + outgoing.addresses().words() + ": "
                                + outgoing.written().subject(),
                        Happenings.About.letter(outgoing.id())));
        changes.letter(outgoing.documentId(), outgoing.clientId());
    }

    /** It was clearly refused, for good. */
    void refused(Outgoing outgoing, String why) {
        repository.move(outgoing.id(), MessageState.SENDING, MessageState.FAILED, "Refused: " + why, null, 0);
        changes.letter(outgoing.documentId(), outgoing.clientId());
    }

    /** Nobody knows: no answer came. */
    void unknown(Outgoing outgoing, String why) {
        repository.move(outgoing.id(), MessageState.SENDING, MessageState.UNCERTAIN, "No answer came: " + why, null, 0);
        changes.letter(outgoing.documentId(), outgoing.clientId());
    }

    /** It did not leave, and is tried again, ever later, until that was tried often enough. @param from its state now */
    void tryAgain(Outgoing outgoing, MessageState from, String why) {
        boolean tooOften = outgoing.tries() >= MOST_TRIES;
        int wait = Math.min(3600, 2 << Math.min(outgoing.tries(), 10));
        repository.move(outgoing.id(), from, tooOften ? MessageState.FAILED : MessageState.WAITING, why, null, wait);
        if (tooOften || from == MessageState.SENDING) {
            changes.letter(outgoing.documentId(), outgoing.clientId());
        }
    }
}
