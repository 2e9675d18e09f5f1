package quill.server.documents;

import java.time.LocalDate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.server.audit.Actor;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.NotFoundException;
import quill.server.links.Links;

/** Notes once a day that a client opened a document's page. Mail carries nothing that tells us. Table PAGE_OPENING. */
@Service
public class PageOpenings {
    private final JdbcClient jdbc;
    private final DocumentRepository repository;
    private final ClientsService clients;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;

    PageOpenings(
            JdbcClient jdbc,
            DocumentRepository repository,
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
    public void opened(Document document) {
        LocalDate today = clock.today();
        if (Happenings.actor() instanceof Actor.Person || wasOpened(document.id(), today)) {
            return; // The business looks at its own page.
        }
        // Taking back holds the same lock: a document is never opened and taken back at once.
        clients.lock(document.clientId());
        if (repository.find(document.id()).filter(i -> !i.isDraft()).isEmpty()) {
            throw Links.unknown();
        }
        int rows = jdbc.sql("""
                INSERT INTO page_opening (document_id, opened_on)
                SELECT :document, :on
                 WHERE NOT EXISTS (SELECT 1 FROM page_opening WHERE document_id = :document AND opened_on = :on)
                """)
                .param("document", document.id())
                .param("on", today)
                .update();
        if (rows == 1) {
            Happenings.asClient(
                    document.clientName(),
                    () -> happenings.note(document.id(), document.clientId(), "The client opened the page"));
            changes.say(null, document.clientId());
        }
    }

    private boolean wasOpened(DocumentId documentId, LocalDate on) {
        return jdbc.sql("SELECT COUNT(*) FROM page_opening WHERE document_id = :document AND opened_on = :on")
                        .param("document", documentId)
                        .param("on", on)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    /** Whether a client ever opened the page of an document. */
    public boolean wasOpened(DocumentId documentId) {
        return jdbc.sql("SELECT COUNT(*) FROM page_opening WHERE document_id = :document")
                        .param("document", documentId)
                        .query(Integer.class)
                        .single()
                > 0;
    }
}
