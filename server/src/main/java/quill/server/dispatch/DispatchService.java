package quill.server.dispatch;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.acts.Act;
import quill.core.ledger.Appropriation;
import quill.core.money.Amounts;
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
    private final ReminderLetters reminders;
    private final Json json;
    private final InvoicesService invoices;
    private final CreditNotes notes;
    private final ClientsService clients;
    private final BooksService books;
    private final Debts debts;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;

    DispatchService(
            MessageRepository repository,
            Letters letters,
            ReminderLetters reminders,
            Json json,
            InvoicesService invoices,
            CreditNotes notes,
            ClientsService clients,
            BooksService books,
            Debts debts,
            Happenings happenings,
            Changes changes,
            BusinessClock clock) {
        this.repository = repository;
        this.letters = letters;
        this.reminders = reminders;
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

    /** Issues a draft and queues the letter in one step: both happen or neither. */
    @Transactional
    public Invoice issueAndSend(long id, int version) {
        Invoice draft = invoices.invoice(id);
        if (draft.clientId() != null && clients.client(draft.clientId()).email().isEmpty()) {
            throw new RefusedException(
                    "client.email", "", "this client has no e-mail address; add one, or issue without sending");
        }
        Invoice issued = invoices.issue(id, version);
        send(issued, "invoice:" + id);
        return issued;
    }

    /** Sends an issued invoice once more. @param key the caller's own, so that a repeated request sends once */
    @Transactional
    public void sendAgain(long id, String key) {
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
        send(invoice, "again:" + id + ":" + key);
    }

    private void send(Invoice invoice, String key) {
        Client client = clients.client(invoice.clientId());
        if (client.email().isEmpty()) {
            throw new RefusedException("client.email", "", "this client has no e-mail address; add one first");
        }
        queue(key, "invoice", client, invoice, letters.invoice(invoice), "invoice");
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
            queue(
                    "credit note:" + note.note().id(),
                    "credit note",
                    client,
                    invoice,
                    written,
                    "credit note",
                    note.note().id());
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
        if (!client.email().isEmpty()) {
            Written written = letters.receipt(invoice, a.settled(), a.paid(), a.way(), a.on(), a.credit());
            queue("receipt:" + a.paymentId(), "receipt", client, invoice, written, "none");
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
        queue("undone:" + paymentId, "correction", client, invoice, letters.correction(invoice, amount), "none");
    }

    /**
     * Queues a reminder, within the transaction that notes its steps as used up.
     *
     * @return whether it was queued: false where a letter has this key already
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public boolean remind(String key, Act.Reminder act) {
        Client client = clients.client(act.client());
        ReminderLetter letter = reminders.letter(act, client);
        Written written = reminders.written(letter);
        Set<Long> about =
                act.asked().stream().map(i -> i.debt().document()).collect(Collectors.toCollection(LinkedHashSet::new));
        boolean queued = repository.queue(
                new MessageRepository.Draft(
                        key,
                        "reminder",
                        client.id(),
                        act.main().document(),
                        client.email(),
                        written.subject(),
                        written.html(),
                        written.text(),
                        "none",
                        null,
                        json.write(letter),
                        about,
                        letters.newMessageId(),
                        Happenings.person().orElse(Happenings.BY_ITSELF)),
                clock.today(),
                LocalDateTime.now(clock));
        if (queued) {
            String what = "Reminder written (" + act.step().tone().words() + ", step "
                    + act.step().words() + "): " + Amounts.grouped(act.amount());
            about.forEach(invoice -> happenings.note(invoice, client.id(), what));
            about.forEach(invoice -> changes.say(invoice, client.id()));
        }
        return queued;
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

    /** Reminders to these clients since a day, oldest first. */
    public List<Message> reminders(Collection<Long> clientIds, LocalDate since) {
        return clientIds.isEmpty() ? List.of() : repository.reminders(clientIds, since);
    }

    /** All messages to a client, newest first. */
    public List<Message> ofClient(long clientId) {
        return repository.ofClient(clientId);
    }

    private void queue(String key, String kind, Client client, Invoice invoice, Written written, String attachment) {
        queue(key, kind, client, invoice, written, attachment, null);
    }

    private void queue(
            String key, String kind, Client client, Invoice invoice, Written written, String attachment, Long noteId) {
        boolean queued = repository.queue(
                new MessageRepository.Draft(
                        key,
                        kind,
                        client.id(),
                        invoice.id(),
                        client.email(),
                        written.subject(),
                        written.html(),
                        written.text(),
                        attachment,
                        noteId,
                        null,
                        List.of(),
                        letters.newMessageId(),
                        Happenings.person().orElse(Happenings.BY_ITSELF)),
                clock.today(),
                LocalDateTime.now(clock));
        if (queued) {
            changes.say(invoice.id(), client.id());
        }
    }

    /** Messages about an invoice, newest first. */
    public List<Message> ofInvoice(long invoiceId) {
        return repository.ofInvoice(invoiceId);
    }

    /** Open invoices that were issued but never sent, nor given to their client otherwise; latest first. */
    public List<Invoice> unsent(int most) {
        List<Long> ids = repository.unsentInvoices(most);
        Map<Long, Invoice> byId = invoices.some(ids);
        return ids.stream().map(byId::get).toList();
    }

    /** A person gave an invoice to its client otherwise: on paper, by another program. */
    @Transactional
    public void givenOtherwise(long id) {
        Invoice invoice = invoices.invoice(id);
        if (!repository.given(id, clock.today())) {
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
        happenings.note(message.invoiceId(), message.clientId(), words + message.subject());
        changes.say(message.invoiceId(), message.clientId());
    }
}
