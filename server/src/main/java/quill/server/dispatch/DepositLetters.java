package quill.server.dispatch;

import java.time.LocalDate;
import java.util.List;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.core.letter.LetterKind;
import quill.server.QuillSettings;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.letters.LetterFacts;
import quill.server.letters.LetterWriting;
import quill.server.letters.Written;

/** Asks for money before it falls due, and says that a deposit on a quote came. */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class DepositLetters {
    private final MessageRepository repository;
    private final LetterWriting writing;
    private final DepositFacts facts;
    private final SlipSending sending;
    private final MessageQueue queue;
    private final Documents documents;
    private final ClientsService clients;
    private final QuillSettings settings;

    DepositLetters(
            MessageRepository repository,
            LetterWriting writing,
            DepositFacts facts,
            SlipSending sending,
            MessageQueue queue,
            Documents documents,
            ClientsService clients,
            QuillSettings settings) {
        this.repository = repository;
        this.writing = writing;
        this.facts = facts;
        this.sending = sending;
        this.queue = queue;
        this.documents = documents;
        this.clients = clients;
        this.settings = settings;
    }

    /** Whom a request goes to. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Client.Recipient recipient(Document document) {
        return clients.client(document.clientId()).forInvoices();
    }

    /**
     * Queues the letter that asks, once for each request.
     *
     * @param asked what for
     * @return the letter's key, or null where the client has no address and none was typed
     */
    public String ask(Document document, long requestId, DepositFacts.Asking asked, Slip typed) {
        Slip slip = Slip.checked(typed);
        SlipSending.atOnceByMail(slip);
        if (slip.toOr(recipient(document).email()).isBlank()) {
            return null;
        }
        String key = keyOf(requestId);
        LetterFacts said = facts.request(document, asked);
        sending.send(
                new SlipSending.Letter(key, MessageKind.REQUEST, document, List.of(), settings.callBackSeconds()),
                slip,
                as -> writing.write(LetterKind.REQUEST, false, said, as.once()));
        return key;
    }

    private static String keyOf(long requestId) {
        return "request:" + requestId;
    }

    /** It is asked for no more: its letter is held back where it still waits. */
    public void withdrawn(long requestId) {
        repository.holdBack(keyOf(requestId));
    }

    /** Queues the receipt of a deposit that is held for a quote, once for each payment. @param missing of what is asked for */
    public void deposit(DocumentId quoteId, long paymentId, Money amount, String way, LocalDate on, Money missing) {
        Document quote = documents.find(quoteId).orElseThrow();
        Client.Recipient payer = clients.client(quote.clientId()).forReceipts();
        queue(
                "receipt:" + paymentId,
                MessageKind.RECEIPT,
                LetterKind.RECEIPT,
                quote,
                payer,
                facts.deposit(quote, payer.name(), new DepositFacts.Came(amount, way, on, missing)));
    }

    /** It was recorded by mistake: its receipt is held back, or a letter says so. */
    public void undone(DocumentId quoteId, long paymentId, Money amount, Money missing) {
        if (repository.holdBack("receipt:" + paymentId) || !repository.exists("receipt:" + paymentId)) {
            return;
        }
        Document quote = documents.find(quoteId).orElseThrow();
        Client.Recipient payer = clients.client(quote.clientId()).forReceipts();
        queue(
                "undone:" + paymentId,
                MessageKind.CORRECTION,
                LetterKind.CORRECTION,
                quote,
                payer,
                facts.depositUndone(quote, payer.name(), amount, missing));
    }

    private void queue(
            String key, MessageKind kind, LetterKind letter, Document quote, Client.Recipient payer, LetterFacts said) {
        if (!payer.email().isEmpty()) {
            Written written = writing.write(letter, payer.payer(), said, LetterWriting.ThisOnce.NOTHING);
            queue.add(MessageDraft.of(key, kind, quote.clientId(), quote.id(), payer.email(), written), Slip.PLAIN);
        }
    }
}
