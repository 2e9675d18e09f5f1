package quill.server.invoices;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.server.common.Rows;

/** Tables INVOICE, CREDIT_NOTE and NUMBER_SERIES. Holds no rules; the caller opens the transaction. */
@Repository
class InvoiceRepository {
    private static final String SELECT = """
            SELECT id, client_id, client_name, bucket, number, subject, currency, total_minor, open_minor, next_due_on,
                   issued_on, typed, fixed, token, replaces_id, version
              FROM invoice
            """;
    /** Rows of an index show no text of the document: the large columns stay unread. */
    private static final String SELECT_ROW = """
            SELECT id, client_id, client_name, bucket, number, subject, currency, total_minor, open_minor, next_due_on,
                   issued_on, '' AS typed, '' AS fixed, token, replaces_id, version
              FROM invoice
            """;

    private final JdbcClient jdbc;

    InvoiceRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    record CreditNote(String number, LocalDate issuedOn, String reason, String currency, long totalMinor) {}

    long insertDraft(Invoice i, LocalDateTime now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO invoice (client_id, client_name, bucket, subject, currency, total_minor, typed, token,
                  replaces_id, made_at)
                VALUES (:client, :clientName, 'draft', :subject, :currency, :total, :typed, :token, :replaces, :now)
                """)
                .param("client", i.clientId())
                .param("clientName", i.clientName())
                .param("subject", i.subject())
                .param("currency", i.currency())
                .param("total", i.totalMinor())
                .param("typed", i.typed())
                .param("token", i.token())
                .param("replaces", i.replacesId())
                .param("now", Timestamp.valueOf(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    /** @return rows changed: none where it is no draft any more, or of another version */
    int updateDraft(Invoice i) {
        return jdbc.sql("""
                UPDATE invoice
                   SET client_id = :client, client_name = :clientName, subject = :subject, currency = :currency,
                       total_minor = :total, typed = :typed, version = version + 1
                 WHERE id = :id AND version = :version AND bucket = 'draft'
                """)
                .param("client", i.clientId())
                .param("clientName", i.clientName())
                .param("subject", i.subject())
                .param("currency", i.currency())
                .param("total", i.totalMinor())
                .param("typed", i.typed())
                .param("id", i.id())
                .param("version", i.version())
                .update();
    }

    int deleteDraft(long id, int version) {
        return jdbc.sql("DELETE FROM invoice WHERE id = :id AND version = :version AND bucket = 'draft'")
                .param("id", id)
                .param("version", version)
                .update();
    }

    int issue(long id, int version, String number, LocalDate on, long total, String fixed) {
        return jdbc.sql("""
                UPDATE invoice
                   SET bucket = 'open', number = :number, issued_on = :on, total_minor = :total, open_minor = :total,
                       fixed = :fixed, version = version + 1
                 WHERE id = :id AND version = :version AND bucket = 'draft'
                """)
                .param("number", number)
                .param("on", on)
                .param("total", total)
                .param("fixed", fixed)
                .param("id", id)
                .param("version", version)
                .update();
    }

    void refresh(long id, long open, LocalDate nextDue, LocalDate today) {
        jdbc.sql("""
                UPDATE invoice
                   SET open_minor = :open, next_due_on = :nextDue,
                       bucket = CASE WHEN :open > 0 THEN 'open' ELSE 'settled' END,
                       settled_on = CASE WHEN :open > 0 THEN NULL ELSE :today END
                 WHERE id = :id AND bucket <> 'draft'
                """)
                .param("open", open)
                .param("nextDue", nextDue)
                .param("today", today)
                .param("id", id)
                .update();
    }

    Optional<Invoice> find(long id) {
        return jdbc.sql(SELECT + " WHERE id = :id")
                .param("id", id)
                .query(InvoiceRepository::invoice)
                .optional();
    }

    Optional<Invoice> byToken(String token) {
        return jdbc.sql(SELECT + " WHERE token = :token AND bucket <> 'draft'")
                .param("token", token)
                .query(InvoiceRepository::invoice)
                .optional();
    }

    List<Invoice> drafts(String filter) {
        return rows("bucket = 'draft'", "ORDER BY id DESC", filter, 500);
    }

    List<Invoice> open(String filter) {
        return rows("bucket = 'open'", "ORDER BY next_due_on, id", filter, 2000);
    }

    /** Settled ones, latest first, from before a key. */
    List<Invoice> settled(String filter, LocalDate beforeOn, long beforeId, int most) {
        String like = like(filter);
        return jdbc.sql(SELECT_ROW
                        + " WHERE bucket = 'settled' AND (settled_on < :beforeOn OR (settled_on = :beforeOn AND id <"
                        + " :beforeId))" + (like == null ? "" : FILTER)
                        + " ORDER BY bucket, settled_on DESC, id DESC LIMIT :most")
                .param("beforeOn", beforeOn)
                .param("beforeId", beforeId)
                .param("filter", like == null ? "" : like)
                .param("most", most)
                .query(InvoiceRepository::invoice)
                .list();
    }

    /** What was settled since a day, latest first. Ordered by all columns of the index, or it would be sorted anew. */
    List<Invoice> settledSince(LocalDate since, int most) {
        return jdbc.sql(SELECT_ROW + """
                 WHERE bucket = 'settled' AND settled_on >= :since
                 ORDER BY bucket, settled_on DESC, id DESC LIMIT :most
                """)
                .param("since", since)
                .param("most", most)
                .query(InvoiceRepository::invoice)
                .list();
    }

    List<Invoice> ofClient(long clientId) {
        return jdbc.sql(SELECT_ROW + " WHERE client_id = :client ORDER BY id DESC LIMIT 1000")
                .param("client", clientId)
                .query(InvoiceRepository::invoice)
                .list();
    }

    List<Invoice> some(Collection<Long> ids) {
        return jdbc.sql(SELECT_ROW + " WHERE id IN (:ids)")
                .param("ids", ids)
                .query(InvoiceRepository::invoice)
                .list();
    }

    LocalDate settledOn(long id) {
        return jdbc.sql("SELECT settled_on FROM invoice WHERE id = :id")
                .param("id", id)
                .query((rs, n) -> rs.getDate(1).toLocalDate())
                .single();
    }

    private static final String FILTER = """
             AND (LOWER(client_name) LIKE :filter ESCAPE '!' OR LOWER(COALESCE(number, '')) LIKE :filter ESCAPE '!'
              OR LOWER(subject) LIKE :filter ESCAPE '!')
            """;

    private List<Invoice> rows(String which, String order, String filter, int most) {
        String like = like(filter);
        return jdbc.sql(SELECT_ROW + " WHERE " + which + (like == null ? "" : FILTER) + order + " LIMIT :most")
                .param("filter", like == null ? "" : like)
                .param("most", most)
                .query(InvoiceRepository::invoice)
                .list();
    }

    private static String like(String filter) {
        if (filter == null || filter.isBlank()) {
            return null;
        }
        String plain = filter.strip().toLowerCase(java.util.Locale.ROOT);
        return "%" + plain.replace("!", "!!").replace("%", "!%").replace("_", "!_") + "%";
    }

    /** The next number of a series; the row stays locked until the transaction ends, so that no gap can open. */
    int nextNumber(String kind, int series) {
        for (int attempt = 0; ; attempt++) {
            int rows = jdbc.sql("UPDATE number_series SET last = last + 1 WHERE kind = :kind AND series = :series")
                    .param("kind", kind)
                    .param("series", series)
                    .update();
            if (rows == 1) {
                return jdbc.sql("SELECT last FROM number_series WHERE kind = :kind AND series = :series")
                        .param("kind", kind)
                        .param("series", series)
                        .query(Integer.class)
                        .single();
            }
            try {
                jdbc.sql("INSERT INTO number_series (kind, series, last) VALUES (:kind, :series, 0)")
                        .param("kind", kind)
                        .param("series", series)
                        .update();
            } catch (DuplicateKeyException e) {
                if (attempt > 2) {
                    throw e;
                }
            }
        }
    }

    void insertCreditNote(long invoiceId, CreditNote note) {
        jdbc.sql("""
                INSERT INTO credit_note (number, invoice_id, issued_on, reason, currency, total_minor)
                VALUES (:number, :invoice, :on, :reason, :currency, :total)
                """)
                .param("number", note.number())
                .param("invoice", invoiceId)
                .param("on", note.issuedOn())
                .param("reason", note.reason())
                .param("currency", note.currency())
                .param("total", note.totalMinor())
                .update();
    }

    Optional<CreditNote> creditNoteOf(long invoiceId) {
        return jdbc.sql("""
                SELECT number, issued_on, reason, currency, total_minor FROM credit_note WHERE invoice_id = :invoice
                """)
                .param("invoice", invoiceId)
                .query((rs, n) -> new CreditNote(
                        rs.getString(1), rs.getDate(2).toLocalDate(), rs.getString(3), rs.getString(4), rs.getLong(5)))
                .optional();
    }

    private static Invoice invoice(ResultSet rs, int row) throws SQLException {
        long total = rs.getLong("total_minor");
        Long totalMinor = rs.wasNull() ? null : total;
        return new Invoice(
                rs.getLong("id"),
                rs.getObject("client_id", Long.class),
                rs.getString("client_name"),
                rs.getString("bucket"),
                rs.getString("number"),
                rs.getString("subject"),
                rs.getString("currency"),
                totalMinor,
                rs.getLong("open_minor"),
                Rows.date(rs, "next_due_on"),
                Rows.date(rs, "issued_on"),
                rs.getString("typed"),
                rs.getString("fixed"),
                rs.getString("token"),
                rs.getObject("replaces_id", Long.class),
                rs.getInt("version"));
    }
}
