package quill.server.dispatch;

import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.audit.Actor;
import quill.server.audit.Happenings;
import quill.server.common.ConflictException;
import quill.server.common.Json;
import quill.server.common.NotFoundException;

/** What was written to whom, and what a person decides about a letter that did not arrive. */
@Service
public class Correspondence {
    private final MessageRepository repository;
    private final Json json;
    private final Happenings happenings;

    Correspondence(MessageRepository repository, Json json, Happenings happenings) {
        this.repository = repository;
        this.json = json;
        this.happenings = happenings;
    }

    /** Whether a letter of this key was written before. */
    public boolean wasWritten(String key) {
        return repository.exists(key);
    }

    /** A reminder's letter, for its paper. @throws NotFoundException for a message that is none */
    ReminderLetter reminderLetter(long id) {
        return repository
                .reminder(id)
                .map(r -> json.read(r, ReminderLetter.class))
                .orElseThrow(() -> new NotFoundException("There is no reminder " + id + "."));
    }

    /** Reminders to these clients since a day, oldest first, but for those that never left. */
    public List<Message> reminders(Collection<ClientId> clientIds, LocalDate since) {
        return clientIds.isEmpty() ? List.of() : repository.reminders(clientIds, since);
    }

    /** The messages to a client, newest first. @param find a part of subject, text or address; empty or null for all */
    public List<Message> ofClient(ClientId clientId, String find) {
        return repository.ofClient(clientId, find == null ? "" : find.strip().toLowerCase(Locale.ROOT));
    }

    /** Messages about an invoice, newest first. */
    public List<Message> ofInvoice(DocumentId invoiceId) {
        return repository.ofInvoice(invoiceId);
    }

    /** Messages that failed, or of which nobody knows whether they arrived. */
    public List<Message> needingSomebody() {
        return repository.needingSomebody();
    }

    /** The letter itself. */
    public String html(long id) {
        String html = repository.html(id).orElseThrow(() -> new NotFoundException("There is no message " + id + "."));
        return SquareCode.into(html, repository.code(id).orElse(null));
    }

    /** A client opened the page of a document: the letters that lead there were opened, unless the business looks itself. */
    @Transactional
    public void opened(DocumentId documentId) {
        if (Happenings.actor() instanceof Actor.Person) {
            return;
        }
        for (long id : repository.unopened(documentId)) {
            repository.move(id, MessageState.SENT, MessageState.OPENED, null, null, 0);
        }
    }

    /** A person decides to send a failed or uncertain message again. */
    @Transactional
    public void retry(long id) {
        decide(id, MessageState.WAITING, "Sent again by hand: ");
        repository.byHand(id);
    }

    /** A person has dealt with a failed or uncertain message. */
    @Transactional
    public void setAside(long id) {
        decide(id, MessageState.SET_ASIDE, "Set aside: ");
    }

    private void decide(long id, MessageState to, String words) {
        Message message =
                repository.find(id).orElseThrow(() -> new NotFoundException("There is no message " + id + "."));
        boolean moved = repository.move(id, MessageState.UNCERTAIN, to, null, null, 0)
                || repository.move(id, MessageState.FAILED, to, null, null, 0);
        if (!moved) {
            throw new ConflictException("This message is " + message.state().word() + " now; nothing was changed.");
        }
        happenings.tell(
                message.documentId(), message.clientId(), words + message.subject(), Happenings.About.letter(id));
    }
}
