package quill.server.dispatch;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.Changes;
import quill.server.dispatch.MessageRepository.Outgoing;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.letters.Phrases;
import quill.server.letters.Written;

/** Letters that leave at a moment that a person chose: each is written anew then, so that it says what is so on its day. */
@Service
public class LaterLetters {
    private final MessageRepository repository;
    private final MessageRows rows;
    private final Letters letters;
    private final Phrases phrases;
    private final InvoicesService invoices;
    private final ClientsService clients;
    private final Happenings happenings;
    private final Changes changes;

    LaterLetters(
            MessageRepository repository,
            MessageRows rows,
            Letters letters,
            Phrases phrases,
            InvoicesService invoices,
            ClientsService clients,
            Happenings happenings,
            Changes changes) {
        this.repository = repository;
        this.rows = rows;
        this.letters = letters;
        this.phrases = phrases;
        this.invoices = invoices;
        this.clients = clients;
        this.happenings = happenings;
        this.changes = changes;
    }

    /** All that wait for their moment, the first one first. */
    public List<Message> waiting() {
        return rows.later();
    }

    /** The moments at which one leaves, after one and up to another, in order. */
    public List<LocalDateTime> moments(LocalDateTime after, LocalDateTime until) {
        return rows.later().stream()
                .map(m -> m.leaves().at())
                .filter(at -> at.isAfter(after) && !at.isAfter(until))
                .distinct()
                .toList();
    }

    /**
     * A letter as it is today; null where it does not go any more: it was called back a moment ago, or its invoice is
     * nothing to anybody now.
     */
    @Transactional
    Outgoing writtenNow(Outgoing outgoing) {
        clients.lock(outgoing.clientId());
        Document invoice = invoices.invoice(outgoing.documentId());
        if (invoice.voidedOn() != null || invoice.isDraft()) {
            String why = "Its invoice was " + (invoice.isDraft() ? "taken back" : "voided") + " before it left.";
            repository.move(outgoing.id(), MessageState.WAITING, MessageState.SET_ASIDE, why, null, 0);
            happenings.tell(
                    outgoing.documentId(),
                    outgoing.clientId(),
                    "Letter not sent. " + why,
                    Happenings.About.letter(outgoing.id()));
            changes.letter(outgoing.documentId(), outgoing.clientId());
            return null;
        }
        Written now = letters.invoice(invoice, outgoing.written().letter().isText(), outgoing.later());
        Optional<String> copyOf = repository.copyOfOneTo(outgoing.id());
        if (copyOf.isPresent()) {
            now = now.called(phrases.say("copy", Map.of("to", copyOf.get(), "subject", now.subject())));
        }
        return repository.rewrite(outgoing.id(), now) ? outgoing.saying(now) : null;
    }
}
