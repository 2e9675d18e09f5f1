package quill.server.dispatch;

import java.time.LocalDate;
import java.util.List;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.core.ledger.Appropriation;
import quill.core.ledger.OnTop;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
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
    private final ClientsService clients;
    private final ReceiptSettings receipts;

    MoneyLetters(
            MessageRepository repository,
            Letters letters,
            MessageQueue queue,
            InvoicesService invoices,
            ClientsService clients,
            ReceiptSettings receipts) {
        this.repository = repository;
        this.letters = letters;
        this.queue = queue;
        this.invoices = invoices;
        this.clients = clients;
        this.receipts = receipts;
    }

    /**
     * Money that arrived.
     *
     * @param way how it came, in words
     * @param settled every debt that it settled, with what it gave to it
     * @param onTop what came beside it
     * @param credit what no debt took
     * @param marked how many invoices go along with its receipt, marked paid
     */
    public record Arrived(
            long paymentId,
            Money paid,
            String way,
            LocalDate on,
            List<Appropriation.Part> settled,
            Money credit,
            OnTop onTop,
            int marked) {
        /** The same, where the receipt goes alone. */
        public Arrived(
                long paymentId,
                Money paid,
                String way,
                LocalDate on,
                List<Appropriation.Part> settled,
                Money credit,
                OnTop onTop) {
            this(paymentId, paid, way, on, settled, credit, onTop, 0);
        }

        private Arrived with(int invoices) {
            return new Arrived(paymentId, paid, way, on, settled, credit, onTop, invoices);
        }
    }

    /** Queues the receipt of a payment, once for each payment. @param invoiceId whose page it leads to */
    @Transactional
    public void receipt(DocumentId invoiceId, Arrived a) {
        Document invoice = invoices.invoice(invoiceId);
        Client client = clients.client(invoice.clientId());
        Client.Recipient payer = client.forReceipts();
        if (!payer.email().isEmpty()) {
            List<Enclosed> marked = marked(a.settled());
            Written written = letters.receipt(invoice, payer, a.with(marked.size()));
            // A deposit invoice comes about with the money: it goes along with the receipt in any case.
            List<Enclosed> papers = invoice.kind() == DocumentKind.DEPOSIT_INVOICE
                    ? List.of(Enclosed.invoice(invoice.id(), invoice.number()))
                    : marked;
            String key = "receipt:" + a.paymentId();
            queue.add(
                    MessageDraft.of(key, MessageKind.RECEIPT, client.id(), invoice.id(), payer.email(), written)
                            .with(papers)
                            .about(a.settled().stream()
                                    .map(p -> p.debt().document())
                                    .toList()),
                    Slip.PLAIN);
        }
    }

    /** Whether whoever pays an invoice is sent anything. */
    public boolean areReceiptsSent() {
        return receipts.areSent();
    }

    /** The invoices that are paid with it, where they are to be sent marked so. */
    private List<Enclosed> marked(List<Appropriation.Part> settled) {
        if (receipts.gets() != PayerGets.MARKED_INVOICE) {
            return List.of();
        }
        return settled.stream()
                .map(p -> p.debt().document())
                .distinct()
                .map(invoices::invoice)
                .filter(i -> i.kind() != DocumentKind.DEPOSIT_INVOICE && i.openMinor() == 0)
                .map(i -> Enclosed.invoice(i.id(), i.number()))
                .toList();
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
}
