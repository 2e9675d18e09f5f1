package quill.server.dispatch;

import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.QuillSettings;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;

/** What leaves for a client is a row first, written in the transaction that gives the reason for it. */
@Service
public class DispatchService {
    private final SlipSending sending;
    private final Letters letters;
    private final InvoicesService invoices;
    private final ClientsService clients;
    private final Attachments attachments;
    private final Destinations destinations;
    private final QuillSettings settings;

    DispatchService(
            SlipSending sending,
            Letters letters,
            InvoicesService invoices,
            ClientsService clients,
            Attachments attachments,
            Destinations destinations,
            QuillSettings settings) {
        this.sending = sending;
        this.letters = letters;
        this.invoices = invoices;
        this.clients = clients;
        this.attachments = attachments;
        this.destinations = destinations;
        this.settings = settings;
    }

    /** Issues a draft and queues the letter, which leaves at once: both happen or neither. */
    @Transactional
    public Document issueAndSend(DocumentId id, int version) {
        return issueAndSend(id, version, Slip.PLAIN, 0);
    }

    /** The same as a person wants it, to be called back for a while. */
    @Transactional
    public Document issueAndSend(DocumentId id, int version, Slip slip) {
        return issueAndSend(id, version, Slip.checked(slip), settings.callBackSeconds());
    }

    private Document issueAndSend(DocumentId id, int version, Slip slip, int hold) {
        Document draft = invoices.invoice(id);
        if (draft.clientId() != null) {
            // Refused before anything is issued.
            Client client = clients.client(draft.clientId());
            destinations.of(client, client.forInvoices(), slip);
            destinations.leavesAt(slip);
        }
        Document issued = invoices.issue(id, version);
        send(issued, "invoice:" + id, slip, hold);
        return issued;
    }

    /** Sends an issued invoice once more, at once. @param key the caller's own, so that a repeated request sends once */
    @Transactional
    public void sendAgain(DocumentId id, String key) {
        sendAgain(id, key, Slip.PLAIN, 0);
    }

    /** The same as a person wants it, to be called back for a while. */
    @Transactional
    public void sendAgain(DocumentId id, String key, Slip slip) {
        sendAgain(id, key, Slip.checked(slip), settings.callBackSeconds());
    }

    private void sendAgain(DocumentId id, String key, Slip slip, int hold) {
        ClientId clientId = invoices.invoice(id).clientId();
        if (clientId != null) {
            clients.lock(clientId);
        }
        Document invoice = invoices.invoice(id);
        if (invoice.isDraft()) {
            throw new ConflictException("A draft cannot be sent; issue it first.");
        }
        if (invoice.voidedOn() != null) {
            throw new ConflictException("This invoice was voided; it is sent to nobody.");
        }
        Texts.key(key, "sending");
        send(invoice, "again:" + id + ":" + key, slip, hold);
    }

    /** Issues and sends to be looked at, in a transaction that is rolled back. @return the letter's key */
    String issueToLook(DocumentId id, int version, Slip slip) {
        issueAndSend(id, version, slip, 0);
        return "invoice:" + id;
    }

    /** The same for one that is issued. */
    String sendToLook(DocumentId id, Slip slip) {
        String key = "look-" + UUID.randomUUID();
        sendAgain(id, key, slip, 0);
        return "again:" + id + ":" + key;
    }

    /** Whom an invoice goes to; nobody while a draft has no client. */
    Client.Recipient recipient(Document invoice) {
        return invoice.clientId() == null
                ? new Client.Recipient("", "", "", false)
                : clients.client(invoice.clientId()).forInvoices();
    }

    private void send(Document invoice, String key, Slip slip, int hold) {
        sending.send(
                new SlipSending.Letter(key, MessageKind.INVOICE, invoice, enclosed(invoice), hold),
                slip,
                as -> letters.invoice(invoice, as));
    }

    /** The paper of an invoice, and the files that go along with it. */
    private List<Enclosed> enclosed(Document invoice) {
        List<Enclosed> all = new ArrayList<>();
        all.add(Enclosed.invoice(invoice.id(), invoice.number()));
        attachments.of(invoice.id()).stream()
                .filter(Attachments.Attachment::sent)
                .map(Enclosed::file)
                .forEach(all::add);
        return all;
    }
}
