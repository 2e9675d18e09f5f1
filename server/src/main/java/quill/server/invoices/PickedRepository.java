package quill.server.invoices;

import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.Optional;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.DocumentId;

/** Tables PICKED_PLAN, INVOICE_ACCEPTANCE and PAGE_SETTING. Holds no rules; the caller opens the transaction. */
@Repository
class PickedRepository {
    private final JdbcClient jdbc;

    PickedRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @return whether nothing was picked before */
    boolean pick(DocumentId invoice, int installments, LocalDate on, Instant at, String address) {
        try {
            return jdbc.sql("""
                    INSERT INTO picked_plan (document_id, installments, picked_on, picked_at, address)
                    VALUES (:id, :installments, :on, :at, :address)
                    """)
                            .param("id", invoice)
                            .param("installments", installments)
                            .param("on", on)
                            .param("at", at)
                            .param("address", address)
                            .update()
                    == 1;
        } catch (DuplicateKeyException e) {
            return false;
        }
    }

    Optional<Plans.Picked> picked(DocumentId invoice) {
        return jdbc.sql("SELECT installments, picked_on FROM picked_plan WHERE document_id = :id")
                .param("id", invoice)
                .query((rs, n) -> new Plans.Picked(rs.getInt(1), rs.getDate(2).toLocalDate()))
                .optional();
    }

    /** @return whether nobody had before */
    boolean accept(DocumentId invoice, Plans.Accepted a) {
        try {
            return jdbc.sql("""
                    INSERT INTO invoice_acceptance (document_id, name, accepted_on, accepted_at, address, seal)
                    VALUES (:id, :name, :on, :at, :address, :seal)
                    """)
                            .param("id", invoice)
                            .param("name", a.name())
                            .param("on", a.on())
                            .param("at", a.at())
                            .param("address", a.address())
                            .param("seal", a.seal())
                            .update()
                    == 1;
        } catch (DuplicateKeyException e) {
            return false;
        }
    }

    Optional<Plans.Accepted> accepted(DocumentId invoice) {
        return jdbc.sql("""
                SELECT name, accepted_on, accepted_at, address, seal FROM invoice_acceptance WHERE document_id = :id
                """)
                .param("id", invoice)
                .query((rs, n) -> new Plans.Accepted(
                        rs.getString(1),
                        rs.getDate(2).toLocalDate(),
                        rs.getObject(3, OffsetDateTime.class).toInstant(),
                        rs.getString(4),
                        rs.getString(5)))
                .optional();
    }

    /** An invoice that is a draft again, or void, has nothing picked or accepted. */
    void forget(DocumentId invoice) {
        jdbc.sql("DELETE FROM picked_plan WHERE document_id = :id")
                .param("id", invoice)
                .update();
        jdbc.sql("DELETE FROM invoice_acceptance WHERE document_id = :id")
                .param("id", invoice)
                .update();
    }

    boolean otherAmounts() {
        return jdbc.sql("SELECT other_amounts FROM page_setting WHERE id = 1")
                .query(Boolean.class)
                .optional()
                .orElse(false);
    }

    void allowOtherAmounts(boolean allowed) {
        jdbc.sql("MERGE INTO page_setting (id, other_amounts) KEY (id) VALUES (1, :allowed)")
                .param("allowed", allowed)
                .update();
    }
}
