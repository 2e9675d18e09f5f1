package quill.server.dispatch;

import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.server.QuillSettings;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.debts.AgreedTerms;
import quill.server.documents.Document;

/** Tells a client that installments are agreed anew. */
@Service
public class ArrangedLetters {
    private final Letters letters;
    private final SlipSending sending;
    private final ClientsService clients;
    private final QuillSettings settings;

    ArrangedLetters(Letters letters, SlipSending sending, ClientsService clients, QuillSettings settings) {
        this.letters = letters;
        this.sending = sending;
        this.clients = clients;
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
        SlipSending.atOnceByMail(slip);
        if (slip.toOr(recipient(document).email()).isBlank()) {
            return null;
        }
        String key = "arranged:" + document.id() + ":" + UUID.randomUUID();
        sending.send(
                new SlipSending.Letter(key, MessageKind.ARRANGED, document, List.of(), settings.callBackSeconds()),
                slip,
                as -> letters.arranged(document, change, before, as.once()));
        return key;
    }
}
