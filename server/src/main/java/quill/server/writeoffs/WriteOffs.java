package quill.server.writeoffs;

import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.debts.Settling;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.requests.Requests;

/**
 * Gives up what is open of an invoice, and takes that back. What is given up goes to bad debts; income and tax stay as they
 * were invoiced (whether a tax can be reclaimed for it is for the bookkeeper to say). The client is told nothing.
 */
@Service
public class WriteOffs {
    private final InvoicesService invoices;
    private final Settling settling;
    private final Requests requests;
    private final ClientsService clients;
    private final Happenings happenings;
    private final Changes changes;

    WriteOffs(
            InvoicesService invoices,
            Settling settling,
            Requests requests,
            ClientsService clients,
            Happenings happenings,
            Changes changes) {
        this.invoices = invoices;
        this.settling = settling;
        this.requests = requests;
        this.clients = clients;
        this.happenings = happenings;
        this.changes = changes;
    }

    /**
     * Gives up all that is open of an invoice, its late fees too.
     *
     * @param seen what was open on screen, as a plain amount
     * @throws RefusedException naming {@code reason}
     * @throws ConflictException where nothing is open, or another sum
     */
    @Transactional
    public void writeOff(DocumentId id, String seen, String why) {
        String reason = Texts.reason("reason", why);
        clients.lock(invoices.invoice(id).clientId());
        Document invoice = invoices.invoice(id);
        if (invoice.isDraft() || invoice.voidedOn() != null || invoice.openMinor() == 0) {
            throw new ConflictException("Nothing is open of this invoice, so there is nothing to write off.");
        }
        Money open = invoice.open();
        if (!Amounts.plain(open).equals(seen)) {
            throw new ConflictException(
                    Amounts.grouped(open) + " is open by now. Look at it again; nothing was written off.");
        }
        requests.of(invoice).stream()
                .filter(a -> a.missing().isPositive())
                .forEach(a -> requests.withdraw(invoice, a.id()));
        settling.writeOff(invoice.clientId(), id, open.getCurrencyUnit());
        tell(invoice, Amounts.grouped(open) + " written off: " + reason);
    }

    /**
     * What was given up is owed again, as when money comes after all; client credit that there is settles it at once.
     *
     * @throws ConflictException where nothing of it was written off
     */
    @Transactional
    public void oweAgain(DocumentId id) {
        clients.lock(invoices.invoice(id).clientId());
        Document invoice = invoices.invoice(id);
        CurrencyUnit currency = CurrencyUnit.of(invoice.currency());
        Money given = settling.writtenOff(id, currency);
        if (!given.isPositive()) {
            throw new ConflictException("Nothing of this invoice was written off.");
        }
        settling.oweAgain(invoice.clientId(), id, currency);
        tell(invoice, Amounts.grouped(given) + " is owed again after it was written off");
    }

    private void tell(Document invoice, String what) {
        happenings.tell(invoice.id(), invoice.clientId(), what);
        changes.say(invoice.id(), invoice.clientId());
    }
}
