package quill.server.dispatch;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.letter.LetterKind;
import quill.server.QuillSettings;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.letters.LetterFacts;
import quill.server.letters.LetterWriting;
import quill.server.letters.Written;

/** Sends quotes, and the record of an acceptance. */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class QuoteLetters {
    private final LetterWriting writing;
    private final DocumentFacts facts;
    private final SlipSending sending;
    private final MessageQueue queue;
    private final ClientsService clients;
    private final Attachments attachments;
    private final QuillSettings settings;

    QuoteLetters(
            LetterWriting writing,
            DocumentFacts facts,
            SlipSending sending,
            MessageQueue queue,
            ClientsService clients,
            Attachments attachments,
            QuillSettings settings) {
        this.writing = writing;
        this.facts = facts;
        this.sending = sending;
        this.queue = queue;
        this.clients = clients;
        this.attachments = attachments;
        this.settings = settings;
    }

    /** Whom a quote's letters go to. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Client.Recipient recipient(Document quote) {
        return quote.clientId() == null
                ? new Client.Recipient("", "", "", false)
                : clients.client(quote.clientId()).forInvoices();
    }

    /**
     * Queues the letter that brings an issued quote.
     *
     * @param key the caller's own: a second sending of the same key does nothing
     * @param typed as a person wants it, to be called back for a while; null for plainly, at once
     * @return the letter's key
     * @throws quill.core.RefusedException where it goes nowhere
     */
    public String send(Document quote, LocalDate validUntil, String key, Slip typed) {
        Slip slip = Slip.checked(typed);
        SlipSending.atOnceByMail(slip);
        String what = "quote:" + quote.id() + ":" + key;
        List<Enclosed> papers = new ArrayList<>(List.of(Enclosed.quote(quote.id(), quote.number())));
        attachments.of(quote.id()).stream()
                .filter(Attachments.Attachment::sent)
                .map(Enclosed::file)
                .forEach(papers::add);
        LetterFacts said = facts.quote(quote, validUntil, null, null);
        int hold = typed == null ? 0 : settings.callBackSeconds();
        sending.send(
                new SlipSending.Letter(what, MessageKind.QUOTE, quote, papers, hold),
                slip,
                as -> writing.write(LetterKind.QUOTE, false, said, as.once()));
        return what;
    }

    /** Queues the record of an acceptance, once; none where the client has no address. @param next what is asked for now, in a sentence, or null @param asked the same as a sum, or null */
    public void accepted(Document quote, LocalDate validUntil, String by, String next, Money asked) {
        Client client = clients.client(quote.clientId());
        String to = client.forInvoices().email();
        if (to.isBlank()) {
            return;
        }
        Written written = writing.write(
                LetterKind.ACCEPTED,
                false,
                facts.accepted(quote, validUntil, by, next, asked),
                LetterWriting.ThisOnce.NOTHING);
        queue.add(
                MessageDraft.of("accepted:" + quote.id(), MessageKind.ACCEPTED, client.id(), quote.id(), to, written)
                        .with(List.of(Enclosed.acceptance(quote.id(), quote.number()))),
                Slip.PLAIN);
    }
}
