package quill.server.dispatch;

import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.audit.Actor;
import quill.server.audit.Happenings;
import quill.server.common.Json;
import quill.server.common.NotFoundException;

/** What was written to whom. */
@Service
public class Correspondence {
    private final MessageRepository repository;
    private final MessageRows rows;
    private final Json json;
    private final Bounces bounces;

    Correspondence(MessageRepository repository, MessageRows rows, Json json, Bounces bounces) {
        this.repository = repository;
        this.rows = rows;
        this.json = json;
        this.bounces = bounces;
    }

    /** Whether a letter of this key was written before. */
    public boolean wasWritten(String key) {
        return repository.exists(key);
    }

    /** @throws NotFoundException if there is none of that id */
    Message message(long id) {
        return rows.find(id).orElseThrow(() -> new NotFoundException("There is no message " + id + "."));
    }

    /** A reminder's letter, for its paper. @throws NotFoundException for a message that is none */
    ReminderLetter reminderLetter(long id) {
        return rows.reminder(id)
                .map(r -> json.read(r, ReminderLetter.class))
                .orElseThrow(() -> new NotFoundException("There is no reminder " + id + "."));
    }

    /** Reminders to these clients since a day, oldest first, but for those that never left. */
    public List<Message> reminders(Collection<ClientId> clientIds, LocalDate since) {
        return clientIds.isEmpty() ? List.of() : rows.reminders(clientIds, since);
    }

    /** The messages to a client, newest first. @param find a part of subject, text or address; empty or null for all */
    public List<Message> ofClient(ClientId clientId, String find) {
        return rows.ofClient(clientId, find == null ? "" : find.strip().toLowerCase(Locale.ROOT));
    }

    /** Messages about an invoice, newest first. */
    public List<Message> ofInvoice(DocumentId invoiceId) {
        return rows.ofInvoice(invoiceId);
    }

    /** Messages that say of a payment that it came, or that this was a mistake. */
    public List<Message> ofPayment(long paymentId) {
        return rows.ofKeys(List.of("receipt:" + paymentId, "undone:" + paymentId));
    }

    /** Messages that failed or came back, or of which nobody knows whether they arrived. */
    public List<Message> needingSomebody() {
        return rows.needingSomebody();
    }

    /** The letter itself. */
    public String html(long id) {
        String html = rows.html(id).orElseThrow(() -> new NotFoundException("There is no message " + id + "."));
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

    /** Addresses that a letter came back from, and nobody has seen to that yet; in small letters. */
    public Set<String> bouncing() {
        return bounces.open().stream().map(a -> a.toLowerCase(Locale.ROOT)).collect(Collectors.toSet());
    }
}
