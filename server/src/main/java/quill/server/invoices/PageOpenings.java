package quill.server.invoices;

import java.time.LocalDate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.server.audit.Happenings;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;

/** Notes once a day that a client opened an invoice's page. Mail carries nothing that tells us. Table PAGE_OPENING. */
@Service
public class PageOpenings {
    private final JdbcClient jdbc;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;

    PageOpenings(JdbcClient jdbc, Happenings happenings, Changes changes, BusinessClock clock) {
        this.jdbc = jdbc;
        this.happenings = happenings;
        this.changes = changes;
        this.clock = clock;
    }

    /** Notes it, unless somebody signed in looks at it or it was noted today. */
    @Transactional
    public void opened(Invoice invoice) {
        if (Happenings.person().isPresent()) {
            return; // The business looks at its own page.
        }
        LocalDate today = clock.today();
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

    /** Whether a client ever opened the page of an invoice. */
    public boolean wasOpened(long invoiceId) {
        return jdbc.sql("SELECT COUNT(*) FROM page_opening WHERE invoice_id = :invoice")
                        .param("invoice", invoiceId)
                        .query(Integer.class)
                        .single()
                > 0;
    }
}
