package quill.server.chasing;

import java.time.LocalDate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;

/** Keeps a client, or an invoice, from being reminded for a while. */
@Service
public class Muting {
    private final ChasingRepository repository;
    private final ClientsService clients;
    private final InvoicesService invoices;
    private final Happenings happenings;
    private final BusinessClock clock;

    Muting(
            ChasingRepository repository,
            ClientsService clients,
            InvoicesService invoices,
            Happenings happenings,
            BusinessClock clock) {
        this.repository = repository;
        this.clients = clients;
        this.invoices = invoices;
        this.happenings = happenings;
        this.clock = clock;
    }

    /**
     * Keeps back everything for a client, or lets it go again.
     *
     * @param until the last day of it; empty or null until a person lets it go
     */
    @Transactional
    public void keepClientBack(ClientId clientId, boolean keptBack, String until) {
        clients.lock(clientId);
        LocalDate end = keptBack ? KeptUntil.read(until, clock.today()) : null;
        repository.lookAt(clientId);
        repository.keepBack(clientId, end);
        happenings.tell(null, clientId, KeptUntil.words(end));
    }

    /** Mutes a client: no reminder goes up to and with that day. An empty text takes the mute away. */
    @Transactional
    public void mute(ClientId clientId, String until) {
        clients.lock(clientId);
        LocalDate day = KeptUntil.lastDay(until, clock.today());
        repository.lookAt(clientId);
        repository.mute(clientId, day);
        happenings.tell(null, clientId, day == null ? "Reminders go again" : "No reminders until " + Texts.day(day));
    }

    /** Mutes an invoice. An empty text takes the mute away. */
    @Transactional
    public void muteInvoice(DocumentId invoiceId, String until) {
        Document invoice = invoices.invoice(invoiceId);
        if (invoice.isDraft()) {
            throw new ConflictException("A draft is not reminded of; there is nothing to mute.");
        }
        clients.lock(invoice.clientId());
        LocalDate day = KeptUntil.lastDay(until, clock.today());
        repository.lookAt(invoice.clientId());
        repository.muteInvoice(invoiceId, day);
        happenings.tell(
                invoiceId,
                invoice.clientId(),
                day == null ? "Reminders go again" : "No reminders until " + Texts.day(day));
    }
}
