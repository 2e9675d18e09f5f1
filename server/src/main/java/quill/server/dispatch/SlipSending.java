package quill.server.dispatch;

import java.time.LocalDateTime;
import java.util.List;
import java.util.function.Function;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.letter.Channel;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.documents.Document;
import quill.server.letters.Written;

/** Queues one letter about a document, as a slip says: to whom, with which words, when. */
@Component
class SlipSending {
    private final MessageRepository repository;
    private final MessageQueue queue;
    private final ClientsService clients;
    private final Destinations destinations;

    SlipSending(MessageRepository repository, MessageQueue queue, ClientsService clients, Destinations destinations) {
        this.repository = repository;
        this.queue = queue;
        this.clients = clients;
        this.destinations = destinations;
    }

    /**
     * A letter.
     *
     * @param key what it is, once
     * @param papers what goes along unless the slip leaves it here
     * @param hold how many seconds it can be called back
     */
    record Letter(String key, MessageKind kind, Document about, List<Enclosed> papers, int hold) {}

    /**
     * Queues it, unless one of that key is there: then this very sending was asked for before, and its answer was lost.
     *
     * @param writing writes it for a slip; the plain one is written too where somebody has looked at it
     * @throws RefusedException where it goes nowhere
     */
    @Transactional(propagation = Propagation.MANDATORY)
    void send(Letter letter, Slip slip, Function<Slip, Written> writing) {
        Client client = clients.client(letter.about().clientId());
        String to = destinations.of(client, client.forInvoices(), slip);
        LocalDateTime at = destinations.leavesAt(slip);
        if (repository.exists(letter.key())) {
            return;
        }
        slip.check(() -> writing.apply(slip.plain()));
        Written written = writing.apply(slip);
        destinations.checkLength(slip, written.text());
        MessageDraft draft = MessageDraft.of(
                        letter.key(), letter.kind(), client.id(), letter.about().id(), to, written)
                .with(slip.papers(letter.papers()))
                .copiedTo(slip.others())
                .held(letter.hold(), null)
                .leaving(at, slip.once());
        queue.add(slip.isText() ? draft.byText() : draft, slip);
        destinations.keep(client, slip, to);
    }

    /** @throws RefusedException for a slip by text message, or for later: such a letter is not written anew when it leaves */
    static void atOnceByMail(Slip slip) {
        if (slip.leavesAt() != null || slip.channel() == Channel.TEXT) {
            throw new RefusedException("slip.at", slip.at(), "this letter goes by e-mail, and at once");
        }
    }
}
