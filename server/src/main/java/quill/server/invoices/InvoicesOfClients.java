package quill.server.invoices;

import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import quill.core.document.TypedDraft;
import quill.server.common.ClientRows;
import quill.server.common.Json;

/**
 * Invoices where two records of one client become one. What was issued keeps the name on its paper; a draft is for the
 * client that stays, and a window that still has it open for the other one is told.
 */
@Component
class InvoicesOfClients implements ClientRows {
    private final JdbcClient jdbc;
    private final Json json;

    InvoicesOfClients(JdbcClient jdbc, Json json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    private record Draft(long id, String typed) {}

    @Override
    public void move(long from, long into, String name) {
        List<Draft> drafts = jdbc.sql("""
                SELECT i.id, t.typed FROM invoice i JOIN invoice_text t ON t.invoice_id = i.id
                 WHERE i.client_id = :from AND i.bucket = 'draft'
                """)
                .param("from", from)
                .query((rs, n) -> new Draft(rs.getLong("id"), rs.getString("typed")))
                .list();
        for (Draft d : drafts) {
            TypedDraft typed = json.read(d.typed(), TypedDraft.class).forClient(into);
            jdbc.sql("UPDATE invoice_text SET typed = :typed WHERE invoice_id = :id")
                    .param("typed", json.write(typed))
                    .param("id", d.id())
                    .update();
        }
        jdbc.sql("""
                UPDATE invoice
                   SET client_id = :into, client_name = :name,
                       version = CASE WHEN bucket = 'draft' THEN version + 1 ELSE version END
                 WHERE client_id = :from
                """)
                .param("into", into)
                .param("name", name)
                .param("from", from)
                .update();
    }
}
