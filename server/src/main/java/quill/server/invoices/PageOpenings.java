package quill.server.invoices;

import java.time.LocalDate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.NotFoundException;
import quill.server.links.Links;

/** Notes once a day that a client opened an invoice's page. Mail carries nothing that tells us. Table PAGE_OPENING. */
@Service
public class PageOpenings {
    private final JdbcClient jdbc;
    private final InvoiceRepository repository;
    private final ClientsService clients;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;

    PageOpenings(
            JdbcClient jdbc,
            InvoiceRepository repository,
            ClientsService clients,
            Happenings happenings,
            Changes changes,
            BusinessClock clock) {
        this.jdbc = jdbc;
        this.repository = repository;
        this.clients = clients;
        this.happenings = happenings;
        this.changes = changes;
        this.clock = clock;
    }

    /**
     * Notes it, unless somebody signed in looks at it or it was noted today.
     *
     * @throws NotFoundException where it was taken back at this moment: whoever opens it first, opens nothing
     */
    @Transactional
    public void opened(Invoice invoice) {
        LocalDate today = clock.today();
        if (Happenings.person().isPresent() || wasOpened(invoice.id(), today)) {
            return; // The business looks at its own page.
        }
        // Taking back holds the same lock: an invoice is never opened and taken back at once.
        clients.lock(invoice.clientId());
        if (repository.find(invoice.id()).filter(i -> !i.isDraft()).isEmpty()) {
            throw Links.unknown();
        }
        int rows =
                jdbc.sql("""
                INSERT INTO page_opening (invoice_id, opened_on)
                SELECT :invoice, :on
                 WHERE NOT EXISTS (SELECT 1 FROM page_opening WHERE invoice_id = :invoice AND opened_on = :on)
                """).param("invoice", invoice.id()).param("on", today).update();
        if (rows == 1) {
            Happenings.asClient(
                    invoice.clientName(),
                    () -> happenings.note(invoice.id(), invoice.clientId(), "The client opened the page"));
            changes.say(null, invoice.clientId());
        }
    }

    private boolean wasOpened(long invoiceId, LocalDate on) {
        return jdbc.sql("SELECT COUNT(*) FROM page_opening WHERE invoice_id = :invoice AND opened_on = :on")
                        .param("invoice", invoiceId)
                        .param("on", on)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    /** Whether a client ever opened the page of an invoice. */
    public boolean wasOpened(long invoiceId) {
        return jdbc.sql("SELECT COUNT(*) FROM page_opening WHERE invoice_id = :invoice")
                        .param("invoice", invoiceId)
                        .query(Integer.class)
                        .single()
                > 0;
    }
}
