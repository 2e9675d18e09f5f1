package quill.server.dispatch;

import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.server.clients.ClientsService;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.documents.Document;
import quill.server.documents.PageOpenings;
import quill.server.invoices.InvoicesService;

/**
 * What can still be done with an issued invoice that nobody has seen: it goes back to a draft that keeps its number,
 * or it is voided. Once it was sent, or its page opened, only a credit note corrects it.
 */
@Service
public class Withdrawals {
    private final ClientsService clients;
    private final InvoicesService invoices;
    private final MessageRepository messages;
    private final PageOpenings openings;

    Withdrawals(ClientsService clients, InvoicesService invoices, MessageRepository messages, PageOpenings openings) {
        this.clients = clients;
        this.invoices = invoices;
        this.messages = messages;
        this.openings = openings;
    }

    /** Whether nobody outside has seen the invoice. */
    public boolean isUnseen(DocumentId id) {
        return !messages.anyLeft(id) && !openings.wasOpened(id);
    }

    /**
     * Takes an invoice back to a draft that keeps its number; what it said stays readable.
     *
     * @throws ConflictException once it was sent or opened, or anything is booked against it
     */
    @Transactional
    public void takeBack(DocumentId id, String why) {
        withdraw(id, why, false);
    }

    /** Voids an invoice: its number stays, marked void. @throws ConflictException as for taking it back */
    @Transactional
    public void voidIt(DocumentId id, String why) {
        withdraw(id, why, true);
    }

    private void withdraw(DocumentId id, String why, boolean forGood) {
        String reason = Texts.reason("reason", why);
        Document invoice = invoices.invoice(id);
        if (invoice.clientId() != null) {
            // Sending takes the same lock: an invoice is never on its way and taken back at once.
            clients.lock(invoice.clientId());
        }
        // First: from here on no letter that waits can leave, and what is leaving already is counted.
        messages.setAsideUnsent(id);
        if (!isUnseen(id)) {
            throw new ConflictException("This invoice was sent or opened already; only a credit note takes it back.");
        }
        invoices.withdraw(id, reason, forGood);
    }
}
