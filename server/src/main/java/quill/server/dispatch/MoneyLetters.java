package quill.server.dispatch;

import java.time.LocalDate;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.core.ledger.Appropriation;
import quill.core.ledger.OnTop;
import quill.server.books.BooksService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.creditnotes.Crediting;
import quill.server.debts.Debts;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;
import quill.server.invoices.InvoicesService;
import quill.server.letters.Written;

/** Letters about money that came, went back, or is asked for no more. */
@Service
public class MoneyLetters {
    private final MessageRepository repository;
    private final Letters letters;
    private final MessageQueue queue;
    private final InvoicesService invoices;
    private final Crediting crediting;
    private final ClientsService clients;
    private final BooksService books;
    private final Debts debts;

    MoneyLetters(
            MessageRepository repository,
            Letters letters,
            MessageQueue queue,
            InvoicesService invoices,
            Crediting crediting,
            ClientsService clients,
            BooksService books,
            Debts debts) {
        this.repository = repository;
        this.letters = letters;
        this.queue = queue;
        this.invoices = invoices;
        this.crediting = crediting;
        this.clients = clients;
        this.books = books;
        this.debts = debts;
    }

    /** Takes an invoice back, whole or in part, and tells the client, if it has an address. */
    @Transactional
    public Crediting.Written credit(DocumentId id, Crediting.Wanted wanted) {
        Crediting.Written note = crediting.write(id, wanted);
        Document invoice = invoices.invoice(id);
        Client client = clients.client(invoice.clientId());
        if (!client.email().isEmpty()) {
            CurrencyUnit currency = CurrencyUnit.of(invoice.currency());
            Written written = letters.creditNote(
                    invoice,
                    note.note(),
                    new DocumentFacts.Became(
                            note.settled(),
                            books.creditOf(client.id(), currency),
                            debts.waitingCreditOf(client.id(), currency)));
            String key = "credit note:" + note.note().id();
            queue.add(
                    draft(key, MessageKind.CREDIT_NOTE, client, invoice, written)
                            .about(List.of(note.note().id()))
                            .with(List.of(Enclosed.creditNote(
                                    note.note().id(), note.note().number()))),
                    Slip.PLAIN);
        }
        return note;
    }

    /**
     * Money that arrived.
     *
     * @param way how it came, in words
     * @param settled every debt that it settled, with what it gave to it
     * @param onTop what came beside it
     * @param credit what no debt took
     */
    public record Arrived(
            long paymentId,
            Money paid,
            String way,
            LocalDate on,
            List<Appropriation.Part> settled,
            Money credit,
            OnTop onTop) {}

    /** Queues the receipt of a payment, once for each payment. @param invoiceId whose page it leads to */
    @Transactional
    public void receipt(DocumentId invoiceId, Arrived a) {
        Document invoice = invoices.invoice(invoiceId);
        Client client = clients.client(invoice.clientId());
        Client.Recipient payer = client.forReceipts();
        if (!payer.email().isEmpty()) {
            Written written = letters.receipt(invoice, payer, a);
            String key = "receipt:" + a.paymentId();
            queue.add(
                    MessageDraft.of(key, MessageKind.RECEIPT, client.id(), invoice.id(), payer.email(), written)
                            .with(papers(invoice))
                            .about(a.settled().stream()
                                    .map(p -> p.debt().document())
                                    .toList()),
                    Slip.PLAIN);
        }
    }

    /** A deposit invoice comes about with the money: it goes along with the receipt. */
    private static List<Enclosed> papers(Document invoice) {
        return invoice.kind() == DocumentKind.DEPOSIT_INVOICE
                ? List.of(Enclosed.invoice(invoice.id(), invoice.number()))
                : List.of();
    }

    /**
     * A payment was undone: its receipt is held back if it still waits; where it may have gone, a letter says that it
     * was a mistake and what is open now.
     */
    @Transactional
    public void takeReceiptBack(long paymentId, DocumentId invoiceId, Money amount) {
        if (repository.holdBack("receipt:" + paymentId) || !repository.exists("receipt:" + paymentId)) {
            return;
        }
        Document invoice = invoices.invoice(invoiceId);
        Client client = clients.client(invoice.clientId());
        Client.Recipient payer = client.forReceipts();
        Written written = letters.correction(invoice, payer, amount);
        queue.add(
                MessageDraft.of(
                        "undone:" + paymentId,
                        MessageKind.CORRECTION,
                        client.id(),
                        invoice.id(),
                        payer.email(),
                        written),
                Slip.PLAIN);
    }

    /**
     * A payment did not come through: whoever gets receipts is told, once. A receipt that still waits is held back.
     *
     * @param key of what happened
     * @param paymentId 0 where none was booked of it
     */
    @Transactional
    public void cameBack(String key, long paymentId, DocumentId invoiceId, Money amount, String why) {
        repository.holdBack("receipt:" + paymentId);
        Document invoice = invoices.invoice(invoiceId);
        Client client = clients.client(invoice.clientId());
        Client.Recipient payer = client.forReceipts();
        if (!payer.email().isEmpty()) {
            Written written = letters.cameBack(invoice, payer, amount, why);
            queue.add(
                    MessageDraft.of(
                            "came back:" + key,
                            MessageKind.CAME_BACK,
                            client.id(),
                            invoice.id(),
                            payer.email(),
                            written),
                    Slip.PLAIN);
        }
    }

    private static MessageDraft draft(String key, MessageKind kind, Client client, Document invoice, Written written) {
        return MessageDraft.of(key, kind, client.id(), invoice.id(), client.email(), written);
    }
}
