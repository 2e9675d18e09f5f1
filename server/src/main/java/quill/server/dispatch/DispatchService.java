package quill.server.dispatch;

import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.ledger.Appropriation;
import quill.server.QuillSettings;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Json;
import quill.server.common.NotFoundException;
import quill.server.debts.Debts;
import quill.server.dispatch.Letters.Written;
import quill.server.invoices.CreditNotes;
import quill.server.invoices.Invoice;
import quill.server.invoices.InvoicesService;

/** What leaves for a client is a row first, written in the transaction that gives the reason for it. */
@Service
public class DispatchService {
    private final MessageRepository repository;
    private final Letters letters;
    private final MessageQueue queue;
    private final Json json;
    private final InvoicesService invoices;
    private final CreditNotes notes;
    private final ClientsService clients;
    private final BooksService books;
    private final Debts debts;
    private final Happenings happenings;
    private final Changes changes;
    private final QuillSettings settings;
    private final BusinessClock clock;

    DispatchService(
            MessageRepository repository,
            Letters letters,
            MessageQueue queue,
            Json json,
            InvoicesService invoices,
            CreditNotes notes,
            ClientsService clients,
            BooksService books,
            Debts debts,
            Happenings happenings,
            Changes changes,
            QuillSettings settings,
            BusinessClock clock) {
        this.settings = settings;
        this.repository = repository;
        this.letters = letters;
        this.queue = queue;
        this.json = json;
        this.invoices = invoices;
        this.notes = notes;
        this.clients = clients;
        this.books = books;
        this.debts = debts;
        this.happenings = happenings;
        this.changes = changes;
        this.clock = clock;
    }

    /** Issues a draft and queues the letter, which leaves at once: both happen or neither. */
    @Transactional
    public Invoice issueAndSend(long id, int version) {
        return issueAndSend(id, version, Slip.PLAIN, 0);
    }

    /** The same as a person wants it, to be called back for a while. */
    @Transactional
    public Invoice issueAndSend(long id, int version, Slip slip) {
        return issueAndSend(id, version, Slip.checked(slip), settings.callBackSeconds());
    }

    private Invoice issueAndSend(long id, int version, Slip slip, int hold) {
        Invoice draft = invoices.invoice(id);
        if (draft.clientId() != null
                && slip.toOr(clients.client(draft.clientId()).email()).isEmpty()) {
            throw new RefusedException(
                    "client.email",
                    "",
                    "this client has no e-mail address; add one, write one for this once, or issue without sending");
        }
        Invoice issued = invoices.issue(id, version);
        send(issued, "invoice:" + id, slip, hold);
        return issued;
    }

    /** Sends an issued invoice once more, at once. @param key the caller's own, so that a repeated request sends once */
    @Transactional
    public void sendAgain(long id, String key) {
        sendAgain(id, key, Slip.PLAIN, 0);
    }

    /** The same as a person wants it, to be called back for a while. */
    @Transactional
    public void sendAgain(long id, String key, Slip slip) {
        sendAgain(id, key, Slip.checked(slip), settings.callBackSeconds());
    }

    private void sendAgain(long id, String key, Slip slip, int hold) {
        Long clientId = invoices.invoice(id).clientId();
        if (clientId != null) {
            clients.lock(clientId);
        }
        Invoice invoice = invoices.invoice(id);
        if (invoice.isDraft()) {
            throw new ConflictException("A draft cannot be sent; issue it first.");
        }
        if (invoice.voidedOn() != null) {
            throw new ConflictException("This invoice was voided; it is sent to nobody.");
        }
        if (key == null || !key.matches("[A-Za-z0-9-]{8,60}")) {
            throw new RefusedException("key", key, "must be 8 to 60 letters, digits and hyphens, new for each sending");
        }
        send(invoice, "again:" + id + ":" + key, slip, hold);
    }

    /** Issues and sends to be looked at, in a transaction that is rolled back. @return the letter's key */
    String issueToLook(long id, int version, Slip slip) {
        issueAndSend(id, version, slip, 0);
        return "invoice:" + id;
    }

    /** The same for one that is issued. */
    String sendToLook(long id, Slip slip) {
        String key = "look-" + UUID.randomUUID();
        sendAgain(id, key, slip, 0);
        return "again:" + id + ":" + key;
    }

    /** Where an invoice goes; empty where its client has no address, or a draft none yet. */
    String addressFor(Invoice invoice) {
        return invoice.clientId() == null
                ? ""
                : clients.client(invoice.clientId()).email();
    }

    private void send(Invoice invoice, String key, Slip slip, int hold) {
        Client client = clients.client(invoice.clientId());
        String to = slip.toOr(client.email());
        if (to.isEmpty()) {
            throw new RefusedException(
                    "client.email", "", "this client has no e-mail address; add one, or write one for this once");
        }
        if (repository.exists(key)) {
            return; // This very sending was asked for before, and its answer was lost.
        }
        slip.check(() -> letters.invoice(invoice, Slip.PLAIN));
        Written written = letters.invoice(invoice, slip);
        queue.add(
                MessageDraft.of(key, "invoice", client.id(), invoice.id(), to, written, "invoice")
                        .held(hold, null),
                slip);
        changes.say(invoice.id(), client.id());
    }

    /** Takes an invoice back, whole or in part, and tells the client, if it has an address. */
    @Transactional
    public CreditNotes.Written credit(long id, CreditNotes.Wanted wanted) {
        CreditNotes.Written note = notes.write(id, wanted);
        Invoice invoice = invoices.invoice(id);
        Client client = clients.client(invoice.clientId());
        if (!client.email().isEmpty()) {
            CurrencyUnit currency = CurrencyUnit.of(invoice.currency());
            Written written = letters.creditNote(
                    invoice,
                    note.note(),
                    books.creditOf(client.id(), currency),
                    debts.waitingCreditOf(client.id(), currency));
            String key = "credit note:" + note.note().id();
            queue(draft(key, "credit note", client, invoice, written, "credit note")
                    .withNote(note.note().id()));
        }
        return note;
    }

    /**
     * Money that arrived.
     *
     * @param way how it came, in words
     * @param settled every debt that it settled, with what it gave to it
     * @param credit what no debt took
     */
    public record Arrived(
            long paymentId, Money paid, String way, LocalDate on, List<Appropriation.Part> settled, Money credit) {}

    /** Queues the receipt of a payment, once for each payment. @param invoiceId whose page it leads to */
    @Transactional
    public void receipt(long invoiceId, Arrived a) {
        Invoice invoice = invoices.invoice(invoiceId);
        Client client = clients.client(invoice.clientId());
        Client.Recipient payer = client.forReceipts();
        if (!payer.email().isEmpty()) {
            Written written =
                    letters.receipt(invoice, payer.name(), a.settled(), a.paid(), a.way(), a.on(), a.credit());
            String key = "receipt:" + a.paymentId();
            queue(MessageDraft.of(key, "receipt", client.id(), invoice.id(), payer.email(), written, "none"));
        }
    }

    /**
     * A payment was undone: its receipt is held back if it still waits; where it may have gone, a letter says that it
     * was a mistake and what is open now.
     */
    @Transactional
    public void takeReceiptBack(long paymentId, long invoiceId, Money amount) {
        if (repository.holdBack("receipt:" + paymentId) || !repository.exists("receipt:" + paymentId)) {
            return;
        }
        Invoice invoice = invoices.invoice(invoiceId);
        Client client = clients.client(invoice.clientId());
        Client.Recipient payer = client.forReceipts();
        Written written = letters.correction(invoice, payer.name(), amount);
        queue(MessageDraft.of(
                "undone:" + paymentId, "correction", client.id(), invoice.id(), payer.email(), written, "none"));
    }

    /**
     * Told within the transaction that sets a reminder aside which never left.
     *
     * @param steps of the plan, by debt
     * @param asked the debts that it asked for
     */
    public record ReminderExpired(long clientId, LocalDate writtenOn, Map<Long, Integer> steps, List<Long> asked) {}

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
    public List<Message> reminders(Collection<Long> clientIds, LocalDate since) {
        return clientIds.isEmpty() ? List.of() : repository.reminders(clientIds, since);
    }

    /** All messages to a client, newest first. */
    public List<Message> ofClient(long clientId) {
        return repository.ofClient(clientId);
    }

    private static MessageDraft draft(
            String key, String kind, Client client, Invoice invoice, Written written, String attachment) {
        return MessageDraft.of(key, kind, client.id(), invoice.id(), client.email(), written, attachment);
    }

    private void queue(MessageDraft draft) {
        if (queue.add(draft, Slip.PLAIN)) {
            changes.say(draft.invoiceId(), draft.clientId());
        }
    }

    /** Messages about an invoice, newest first. */
    public List<Message> ofInvoice(long invoiceId) {
        return repository.ofInvoice(invoiceId);
    }

    /** Open invoices that were issued but never sent, nor given to their client otherwise; latest first. */
    public List<Invoice> unsent(int most) {
        List<Long> candidates = invoices.latestOpenNotGiven();
        Set<Long> mailed = repository.mailed(candidates);
        List<Long> ids = candidates.stream()
                .filter(id -> !mailed.contains(id))
                .limit(most)
                .toList();
        Map<Long, Invoice> byId = invoices.some(ids);
        return ids.stream().map(byId::get).toList();
    }

    /** A person gave an invoice to its client otherwise: on paper, by another program. */
    @Transactional
    public void givenOtherwise(long id) {
        Invoice invoice = invoices.invoice(id);
        if (!invoices.give(id)) {
            throw new ConflictException("That was noted already, or it is a draft.");
        }
        happenings.note(id, invoice.clientId(), "Given to the client otherwise than by mail from here");
        changes.say(id, invoice.clientId());
    }

    /** Messages that failed, or of which nobody knows whether they arrived. */
    public List<Message> needingSomebody() {
        return repository.needingSomebody();
    }

    /** The letter itself. */
    public String html(long id) {
        String html = repository.html(id).orElseThrow(() -> new NotFoundException("There is no message " + id + "."));
        return repository
                .reminder(id)
                .map(r -> json.read(r, ReminderLetter.class))
                .map(l ->
                        html.replace("cid:code", SquareCode.inline(l.transfer().code())))
                .orElse(html);
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
            throw new ConflictException("This message is " + message.state() + " now; nothing was changed.");
        }
        happenings.note(
                message.invoiceId(), message.clientId(), words + message.subject(), Happenings.About.letter(id));
        changes.say(message.invoiceId(), message.clientId());
    }
}
