package quill.server.dispatch;

import java.util.List;
import org.joda.money.CurrencyUnit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.letter.LetterField;
import quill.core.letter.LetterKind;
import quill.server.business.Business;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.letters.LetterFacts;
import quill.server.letters.LetterWriting;

/** The letters that ask a client to let a card or a mandate be kept. */
@Service
public class MethodLetters {
    private final LetterWriting writing;
    private final LetterBasics basics;
    private final MessageQueue queue;
    private final MessageRepository messages;
    private final BusinessService business;

    MethodLetters(
            LetterWriting writing,
            LetterBasics basics,
            MessageQueue queue,
            MessageRepository messages,
            BusinessService business) {
        this.writing = writing;
        this.basics = basics;
        this.queue = queue;
        this.messages = messages;
        this.business = business;
    }

    /** Queues the letter, once for each request. @return whether one goes, or went: there is an address */
    @Transactional(propagation = Propagation.MANDATORY)
    public boolean ask(long requestId, Client client, String page) {
        Client.Recipient to = client.forInvoices();
        String key = keyOf(requestId);
        if (to.email().isEmpty()) {
            return false;
        }
        if (!messages.exists(key)) {
            queue.add(
                    MessageDraft.about(
                            key,
                            MessageKind.ASK_TO_KEEP,
                            client.id(),
                            to.email(),
                            writing.write(
                                    LetterKind.ASK_TO_KEEP,
                                    to.payer(),
                                    facts(client, to.name(), page),
                                    LetterWriting.ThisOnce.NOTHING)),
                    Slip.PLAIN);
        }
        return true;
    }

    /** What such a letter says. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public LetterFacts facts(Client client, String contact, String page) {
        Business from = basics.from(CurrencyUnit.of(business.business().currency()));
        LetterFacts.Values values = basics.values(from, client.name(), contact).put(LetterField.PAGE, page);
        return new LetterFacts(from, values.all(), List.of(), "", List.of(), List.of());
    }

    /** It is asked no more: its letter is held back where it still waits. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void withdrawn(long requestId) {
        messages.holdBack(keyOf(requestId));
    }

    private static String keyOf(long requestId) {
        return "ask to keep:" + requestId;
    }
}
