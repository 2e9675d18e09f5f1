package quill.server.dispatch;

import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.letter.Channel;
import quill.server.QuillSettings;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.debts.AgreedTerms;
import quill.server.documents.Document;
import quill.server.letters.Written;

/** Tells a client that installments are agreed anew. */
@Service
public class ArrangedLetters {
    private final Letters letters;
    private final MessageQueue queue;
    private final ClientsService clients;
    private final Destinations destinations;
    private final QuillSettings settings;

    ArrangedLetters(
            Letters letters,
            MessageQueue queue,
            ClientsService clients,
            Destinations destinations,
            QuillSettings settings) {
        this.letters = letters;
        this.queue = queue;
        this.clients = clients;
        this.destinations = destinations;
        this.settings = settings;
    }

    /** Whom a letter about a document goes to. */
    public Client.Recipient recipient(Document document) {
        return clients.client(document.clientId()).forInvoices();
    }

    /**
     * Queues the letter; none where the client has no address and none was typed.
     *
     * @param change what is agreed anew, in a sentence
     * @param before what was agreed of it
     * @return the letter's key, or null where there is none
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public String tell(Document document, String change, List<AgreedTerms.Earlier> before, Slip typed) {
        Slip slip = Slip.checked(typed);
        if (slip.leavesAt() != null || slip.channel() == Channel.TEXT) {
            throw new RefusedException("slip.at", slip.at(), "this letter goes by e-mail, and at once");
        }
        Client client = clients.client(document.clientId());
        if (slip.toOr(client.forInvoices().email()).isBlank()) {
            return null;
        }
        String to = destinations.of(client, client.forInvoices(), slip);
        slip.check(() -> letters.arranged(document, change, before, slip.plain().once()));
        Written written = letters.arranged(document, change, before, slip.once());
        String key = "arranged:" + document.id() + ":" + UUID.randomUUID();
        queue.add(
                MessageDraft.of(key, MessageKind.ARRANGED, client.id(), document.id(), to, written)
                        .copiedTo(slip.others())
                        .held(settings.callBackSeconds(), null),
                slip);
        destinations.keep(client, slip, to);
        return key;
    }
}
