package quill.server.invoices;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.server.common.Rows;
import quill.server.common.StoredWord;
import quill.server.common.Texts;

/** Tables INVOICE, INVOICE_TEXT and EARLIER_TEXT. Holds no rules; the caller opens the transaction. */
@Repository
class InvoiceRepository {
    private static final String SELECT = """
            SELECT id, client_id, client_name, bucket, number, subject, currency, total_minor, open_minor, next_due_on,
                   issued_on, typed, fixed, replaces_id, voided_on, version
              FROM invoice JOIN invoice_text ON invoice_id = id
            """;
    /** Rows of an index show no text of the document: it stays unread. */
    private static final String SELECT_ROW = """
            SELECT id, client_id, client_name, bucket, number, subject, currency, total_minor, open_minor, next_due_on,
                   issued_on, '' AS typed, '' AS fixed, replaces_id, voided_on, version
              FROM invoice
            """;

    private final JdbcClient jdbc;

    InvoiceRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insertDraft(Invoice i, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO invoice (client_id, client_name, bucket, subject, currency, total_minor, replaces_id,
                  made_at)
                VALUES (:client, :clientName, 'draft', :subject, :currency, :total, :replaces, :now)
                """)
                .param("client", i.clientId())
                .param("clientName", i.clientName())
                .param("subject", i.subject())
                .param("currency", i.currency())
                .param("total", i.totalMinor())
                .param("replaces", i.replacesId())
                .param("now", now)
                .update(key, "id");
        long id = key.getKey().longValue();
        jdbc.sql("INSERT INTO invoice_text (invoice_id, typed) VALUES (:id, :typed)")
                .param("id", id)
                .param("typed", i.typed())
                .update();
        return id;
    }

    /** @return rows changed: none where it is no draft any more, or of another version */
    int updateDraft(Invoice i) {
        int rows = jdbc.sql("""
                UPDATE invoice
                   SET client_id = :client, client_name = :clientName, subject = :subject, currency = :currency,
                       total_minor = :total, version = version + 1
                 WHERE id = :id AND version = :version AND bucket = 'draft'
                """)
                .param("client", i.clientId())
                .param("clientName", i.clientName())
                .param("subject", i.subject())
                .param("currency", i.currency())
                .param("total", i.totalMinor())
                .param("id", i.id())
                .param("version", i.version())
                .update();
        if (rows == 1) {
            jdbc.sql("UPDATE invoice_text SET typed = :typed WHERE invoice_id = :id")
                    .param("typed", i.typed())
                    .param("id", i.id())
                    .update();
        }
        return rows;
    }

    /** Keeps others from changing an invoice until this transaction ends. */
    void lock(long id) {
        jdbc.sql("SELECT id FROM invoice WHERE id = :id FOR UPDATE")
                .param("id", id)
                .query(Long.class)
                .optional();
    }

    int deleteDraft(long id, int version) {
        return jdbc.sql("""
                DELETE FROM invoice WHERE id = :id AND version = :version AND bucket = 'draft' AND number IS NULL
                """).param("id", id).param("version", version).update();
    }

    /** Notes the place of an invoice's number among the others. */
    void place(long id, NumberSeries.Given given) {
        jdbc.sql("UPDATE invoice SET series = :series, seq = :seq WHERE id = :id")
                .param("series", given.series())
                .param("seq", given.sequence())
                .param("id", id)
                .update();
    }

    int issue(long id, int version, String number, LocalDate on, long total, String fixed) {
        int rows = jdbc.sql("""
                UPDATE invoice
                   SET bucket = 'open', number = :number, issued_on = :on, total_minor = :total, open_minor = :total,
                       version = version + 1
                 WHERE id = :id AND version = :version AND bucket = 'draft'
                """)
                .param("number", number)
                .param("on", on)
                .param("total", total)
                .param("id", id)
                .param("version", version)
                .update();
        if (rows == 1) {
            fix(id, fixed);
        }
        return rows;
    }

    private void fix(long id, String fixed) {
        jdbc.sql("UPDATE invoice_text SET fixed = :fixed WHERE invoice_id = :id")
                .param("fixed", fixed)
                .param("id", id)
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

    /** Drafts, latest first, from before an id. */
    List<Invoice> drafts(String filter, long beforeId, int most) {
        String like = like(filter);
        return jdbc.sql(SELECT_ROW + " WHERE bucket = 'draft' AND id < :beforeId" + (like == null ? "" : FILTER)
                        + " ORDER BY id DESC LIMIT :most")
                .param("beforeId", beforeId)
                .param("filter", like == null ? "" : like)
                .param("most", most)
                .query(InvoiceRepository::invoice)
                .list();
    }

    /** Open ones whose next due date lies in a range, soonest first, from after a key. */
    List<Invoice> open(String filter, LocalDate from, LocalDate to, LocalDate afterOn, long afterId, int most) {
        String like = like(filter);
        return jdbc.sql(SELECT_ROW
                        + " WHERE bucket = 'open' AND next_due_on BETWEEN :from AND :to"
                        + " AND (next_due_on > :afterOn OR (next_due_on = :afterOn AND id > :afterId))"
                        + (like == null ? "" : FILTER) + " ORDER BY bucket, next_due_on, id LIMIT :most")
                .param("from", from)
                .param("to", to)
                .param("afterOn", afterOn)
                .param("afterId", afterId)
                .param("filter", like == null ? "" : like)
                .param("most", most)
                .query(InvoiceRepository::invoice)
                .list();
    }

    List<Long> latestOpenNotGiven() {
        return jdbc.sql("""
                SELECT id FROM invoice
                 WHERE id > (SELECT MAX(id) FROM invoice) - 2000 AND bucket = 'open' AND given_on IS NULL
                 ORDER BY id DESC
                """).query(Long.class).list();
    }

    boolean give(long id, LocalDate on) {
        return jdbc.sql("UPDATE invoice SET given_on = :on WHERE id = :id AND given_on IS NULL AND bucket <> 'draft'")
                        .param("on", on)
                        .param("id", id)
                        .update()
                == 1;
    }

    /** Open ones of some clients. */
    List<Invoice> openOf(Collection<Long> clientIds) {
        return jdbc.sql(SELECT_ROW + " WHERE client_id IN (:clients) AND bucket = 'open' ORDER BY next_due_on, id")
                .param("clients", clientIds)
                .query(InvoiceRepository::invoice)
                .list();
    }

    /** What some clients settled since a day, latest first. */
    List<Invoice> settledOf(Collection<Long> clientIds, LocalDate since, int most) {
        // A join, since an IN list would read all that these clients ever settled.
        return jdbc.sql(SELECT_ROW + """
                  JOIN UNNEST(CAST(:clients AS BIGINT ARRAY)) AS c (of_client) ON client_id = c.of_client
                 WHERE bucket = 'settled' AND settled_on >= :since
                 ORDER BY settled_on DESC, id DESC LIMIT :most
                """)
                .param("clients", clientIds.toArray(Long[]::new))
                .param("since", since)
                .param("most", most)
                .query(InvoiceRepository::invoice)
                .list();
    }

    /** Clients who owe nothing and settled something since a day, latest first. */
    List<Long> settledClients(LocalDate since) {
        return jdbc.sql("""
                SELECT client_id, MAX(settled_on) AS latest FROM invoice v
                 WHERE bucket = 'settled' AND settled_on >= :since
                   AND NOT EXISTS (SELECT 1 FROM invoice o WHERE o.client_id = v.client_id AND o.bucket = 'open')
                 GROUP BY client_id ORDER BY latest DESC, client_id
                """)
                .param("since", since)
                .query((rs, n) -> rs.getLong("client_id"))
                .list();
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

    static final String FILTER = """
             AND (LOWER(client_name) LIKE :filter ESCAPE '!' OR LOWER(COALESCE(number, '')) LIKE :filter ESCAPE '!'
              OR LOWER(subject) LIKE :filter ESCAPE '!')
            """;

    static String like(String filter) {
        if (filter == null || filter.isBlank()) {
            return null;
        }
        String plain = filter.strip().toLowerCase(java.util.Locale.ROOT);
        return "%" + Texts.inLike(plain) + "%";
    }

    /** Keeps what an invoice said before it was taken back, and makes it a draft that keeps its number. */
    void takeBack(Invoice i, String why, String who, LocalDate today) {
        jdbc.sql("""
                INSERT INTO earlier_text (invoice_id, number, issued_on, fixed, taken_back_on, why, who)
                VALUES (:invoice, :number, :issued, :fixed, :on, :why, :who)
                """)
                .param("invoice", i.id())
                .param("number", i.number())
                .param("issued", i.issuedOn())
                .param("fixed", i.fixed())
                .param("on", today)
                .param("why", why)
                .param("who", who)
                .update();
        jdbc.sql("""
                UPDATE invoice
                   SET bucket = 'draft', issued_on = NULL, open_minor = 0, next_due_on = NULL,
                       settled_on = NULL, version = version + 1
                 WHERE id = :id
                """).param("id", i.id()).update();
        fix(i.id(), null);
    }

    /** What an invoice said before, oldest first. */
    List<EarlierText> earlierTexts(long invoiceId) {
        return jdbc.sql("""
                SELECT id, issued_on, fixed, taken_back_on, why, who FROM earlier_text WHERE invoice_id = :invoice
                 ORDER BY id
                """)
                .param("invoice", invoiceId)
                .query((rs, n) -> new EarlierText(
                        rs.getLong("id"),
                        rs.getDate("issued_on").toLocalDate(),
                        rs.getString("fixed"),
                        rs.getDate("taken_back_on").toLocalDate(),
                        rs.getString("why"),
                        rs.getString("who")))
                .list();
    }

    record EarlierText(long id, LocalDate issuedOn, String fixed, LocalDate takenBackOn, String why, String who) {}

    void markVoid(long id, LocalDate on) {
        jdbc.sql("""
                UPDATE invoice
                   SET bucket = 'settled', open_minor = 0, next_due_on = NULL, settled_on = :on, voided_on = :on,
                       version = version + 1
                 WHERE id = :id
                """).param("on", on).param("id", id).update();
    }

    private static Invoice invoice(ResultSet rs, int row) throws SQLException {
        long total = rs.getLong("total_minor");
        Long totalMinor = rs.wasNull() ? null : total;
        return new Invoice(
                rs.getLong("id"),
                rs.getObject("client_id", Long.class),
                rs.getString("client_name"),
                StoredWord.of(Bucket.class, rs.getString("bucket")),
                rs.getString("number"),
                rs.getString("subject"),
                rs.getString("currency"),
                totalMinor,
                rs.getLong("open_minor"),
                Rows.date(rs, "next_due_on"),
                Rows.date(rs, "issued_on"),
                rs.getString("typed"),
                rs.getString("fixed"),
                rs.getObject("replaces_id", Long.class),
                Rows.date(rs, "voided_on"),
                rs.getInt("version"));
    }
}
