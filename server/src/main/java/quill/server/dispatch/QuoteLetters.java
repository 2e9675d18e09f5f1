package quill.server.dispatch;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.letter.Channel;
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
    private final MessageRepository repository;
    private final MessageQueue queue;
    private final ClientsService clients;
    private final Destinations destinations;
    private final Attachments attachments;
    private final QuillSettings settings;

    QuoteLetters(
            LetterWriting writing,
            DocumentFacts facts,
            MessageRepository repository,
            MessageQueue queue,
            ClientsService clients,
            Destinations destinations,
            Attachments attachments,
            QuillSettings settings) {
        this.writing = writing;
        this.facts = facts;
        this.repository = repository;
        this.queue = queue;
        this.clients = clients;
        this.destinations = destinations;
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
     * @throws RefusedException where it goes nowhere
     */
    public String send(Document quote, LocalDate validUntil, String key, Slip typed) {
        Slip slip = Slip.checked(typed);
        if (slip.leavesAt() != null || slip.channel() == Channel.TEXT) {
            throw new RefusedException("slip.at", slip.at(), "a quote goes by e-mail, and at once");
        }
        Client client = clients.client(quote.clientId());
        String to = destinations.of(client, client.forInvoices(), slip);
        String what = "quote:" + quote.id() + ":" + key;
        if (repository.exists(what)) {
            return what;
        }
        LetterFacts said = facts.quote(quote, validUntil, null, null);
        slip.check(
                () -> writing.write(LetterKind.QUOTE, false, said, slip.plain().once()));
        Written written = writing.write(LetterKind.QUOTE, false, said, slip.once());
        List<Enclosed> papers = new ArrayList<>(List.of(Enclosed.quote(quote.id(), quote.number())));
        attachments.of(quote.id()).stream()
                .filter(Attachments.Attachment::sent)
                .map(Enclosed::file)
                .forEach(papers::add);
        queue.add(
                MessageDraft.of(what, MessageKind.QUOTE, client.id(), quote.id(), to, written)
                        .with(slip.papers(papers))
                        .copiedTo(slip.others())
                        .held(typed == null ? 0 : settings.callBackSeconds(), null),
                slip);
        destinations.keep(client, slip, to);
        return what;
    }

    /** Queues the record of an acceptance, once; none where the client has no address. @param next what is asked for now, or null */
    public void accepted(Document quote, LocalDate validUntil, String by, String next) {
        Client client = clients.client(quote.clientId());
        String to = client.forInvoices().email();
        if (to.isBlank()) {
            return;
        }
        Written written = writing.write(
                LetterKind.ACCEPTED, false, facts.quote(quote, validUntil, by, next), LetterWriting.ThisOnce.NOTHING);
        queue.add(
                MessageDraft.of("accepted:" + quote.id(), MessageKind.ACCEPTED, client.id(), quote.id(), to, written)
                        .with(List.of(Enclosed.acceptance(quote.id(), quote.number()))),
                Slip.PLAIN);
    }
}
