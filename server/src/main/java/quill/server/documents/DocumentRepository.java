package quill.server.documents;

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
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.Ids;
import quill.server.common.ReadOnce;
import quill.server.common.Rows;
import quill.server.common.StoredWord;

/** Tables DOCUMENT and DOCUMENT_TAKEN_BACK. Holds no rules; the caller opens the transaction. */
@Repository
class DocumentRepository {
    /** For whoever reads documents: the columns that {@link #document} takes. */
    static final String SELECT = """
            SELECT id, version, kind, state, client_id, client_name, subject, currency, total_minor, number, issued_on,
                   issued_version, open_minor, next_due_on, voided_on
              FROM document
            """;

    private final JdbcClient jdbc;

    DocumentRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A new draft, as its first version. */
    DocumentId insertDraft(DocumentKind kind, Document.Head head, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        head(jdbc.sql("""
                INSERT INTO document (kind, state, client_id, client_name, subject, currency, total_minor, made_at)
                VALUES (:kind, 'draft', :client, :clientName, :subject, :currency, :total, :now)
                """), head).param("kind", kind).param("now", now).update(key, "id");
        return new DocumentId(key.getKey().longValue());
    }

    /** @return rows changed: none where it is no draft any more, or of another version */
    int updateDraft(DocumentId id, int version, Document.Head head) {
        return head(jdbc.sql("""
                UPDATE document
                   SET client_id = :client, client_name = :clientName, subject = :subject, currency = :currency,
                       total_minor = :total, version = version + 1
                 WHERE id = :id AND version = :version AND state = 'draft'
                """), head)
                .param("id", id)
                .param("version", version)
                .update();
    }

    private static JdbcClient.StatementSpec head(JdbcClient.StatementSpec sql, Document.Head head) {
        return sql.param("client", head.clientId())
                .param("clientName", head.clientName())
                .param("subject", head.subject())
                .param("currency", head.currency())
                .param("total", head.totalMinor());
    }

    /** Keeps others from changing a document until this transaction ends. */
    void lock(DocumentId id) {
        jdbc.sql("SELECT id FROM document WHERE id = :id FOR UPDATE")
                .param("id", id)
                .query(Long.class)
                .optional();
    }

    int deleteDraft(DocumentId id, int version) {
        return jdbc.sql("""
                DELETE FROM document WHERE id = :id AND version = :version AND state = 'draft' AND number IS NULL
                """).param("id", id).param("version", version).update();
    }

    /** The number of a draft that is about to be issued, and its place among the others. */
    void number(DocumentId id, NumberSeries.Given given) {
        jdbc.sql("UPDATE document SET number = :number, series = :series, seq = :seq WHERE id = :id")
                .param("number", given.number())
                .param("series", given.series())
                .param("seq", given.sequence())
                .param("id", id)
                .update();
    }

    /** What a draft becomes on its day of issue. @param asked what is owed by it from then on */
    record Issuing(DocumentState state, LocalDate on, int text, long total, long asked) {}

    int issue(DocumentId id, int version, Issuing as) {
        return jdbc.sql("""
                UPDATE document
                   SET state = :state, issued_on = :on, issued_version = :text, total_minor = :total,
                       open_minor = :asked, version = version + 1
                 WHERE id = :id AND version = :version AND state = 'draft'
                """)
                .param("state", as.state())
                .param("on", as.on())
                .param("text", as.text())
                .param("total", as.total())
                .param("asked", as.asked())
                .param("id", id)
                .param("version", version)
                .update();
    }

    /** @return rows changed: none where it is not open any more */
    int answer(DocumentId id, int version, DocumentState answer, int text, Long total) {
        return jdbc.sql("""
                UPDATE document
                   SET state = :state, issued_version = :text, total_minor = :total, version = version + 1
                 WHERE id = :id AND version = :version AND state = 'open' AND kind = 'quote'
                """)
                .param("state", answer)
                .param("text", text)
                .param("total", total)
                .param("id", id)
                .param("version", version)
                .update();
    }

    /** Those of a kind and state, newest first. */
    List<Document> of(DocumentKind kind, DocumentState state, int most) {
        return jdbc.sql(SELECT + " WHERE kind = :kind AND state = :state ORDER BY id DESC LIMIT :most")
                .param("kind", kind)
                .param("state", state)
                .param("most", most)
                .query(DocumentRepository::document)
                .list();
    }

    /** Those of a kind and state to which no other is this, newest first. */
    List<Document> without(RelationKind relation, DocumentKind of, DocumentKind kind, DocumentState state, int most) {
        return jdbc.sql(SELECT + """
                 WHERE kind = :kind AND state = :state
                   AND NOT EXISTS (SELECT 1 FROM document_relation r JOIN document o ON o.id = r.from_id
                                    WHERE r.to_id = document.id AND r.kind = :relation AND o.kind = :of)
                 ORDER BY id DESC LIMIT :most
                """)
                .param("kind", kind)
                .param("state", state)
                .param("relation", relation)
                .param("of", of)
                .param("most", most)
                .query(DocumentRepository::document)
                .list();
    }

    boolean give(DocumentId id, LocalDate on) {
        return jdbc.sql("UPDATE document SET given_on = :on WHERE id = :id AND given_on IS NULL AND state <> 'draft'")
                        .param("on", on)
                        .param("id", id)
                        .update()
                == 1;
    }

    Optional<Document> find(DocumentId id) {
        return ReadOnce.of(
                "document",
                id,
                () -> jdbc.sql(SELECT + " WHERE id = :id")
                        .param("id", id)
                        .query(DocumentRepository::document)
                        .optional());
    }

    List<Document> latest(DocumentKind kind, ClientId clientId, int most) {
        return jdbc.sql(SELECT + """
                 WHERE kind = :kind AND issued_on IS NOT NULL AND voided_on IS NULL
                   AND (:client = 0 OR client_id = :client)
                 ORDER BY listed_on DESC, id DESC LIMIT :most
                """)
                .param("kind", kind)
                .param("client", clientId == null ? 0L : clientId.value())
                .param("most", most)
                .query(DocumentRepository::document)
                .list();
    }

    List<Document> some(Collection<DocumentId> ids) {
        return jdbc.sql(SELECT + " JOIN UNNEST(CAST(:ids AS BIGINT ARRAY)) AS given (one) ON one = id")
                .param("ids", Ids.array(ids))
                .query(DocumentRepository::document)
                .list();
    }

    /** When and why an issued document became a draft again. @param text under which it was kept what it said */
    record TakenBack(ClientId clientId, LocalDate issuedOn, int text, LocalDate on, String why, String who) {}

    /** Makes an issued document a draft that keeps its number, and notes what it said until then. */
    void takeBack(Document d, String why, String who, LocalDate today) {
        jdbc.sql("""
                INSERT INTO document_taken_back (document_id, client_id, issued_on, issued_version, taken_back_on, why, who)
                VALUES (:document, :client, :issued, :text, :on, :why, :who)
                """)
                .param("document", d.id())
                .param("client", d.clientId())
                .param("issued", d.issue().on())
                .param("text", d.issue().version())
                .param("on", today)
                .param("why", why)
                .param("who", who)
                .update();
        jdbc.sql("""
                UPDATE document
                   SET state = 'draft', issued_on = NULL, issued_version = NULL, open_minor = 0, next_due_on = NULL,
                       settled_on = NULL, version = version + 1
                 WHERE id = :id
                """).param("id", d.id()).update();
    }

    /** How often it was taken back, oldest first. */
    List<TakenBack> takenBack(DocumentId id) {
        return jdbc.sql("""
                SELECT client_id, issued_on, issued_version, taken_back_on, why, who FROM document_taken_back
                 WHERE document_id = :document ORDER BY id
                """)
                .param("document", id)
                .query((rs, n) -> new TakenBack(
                        new ClientId(rs.getLong("client_id")),
                        Rows.date(rs, "issued_on"),
                        rs.getInt("issued_version"),
                        Rows.date(rs, "taken_back_on"),
                        rs.getString("why"),
                        rs.getString("who")))
                .list();
    }

    void markVoid(DocumentId id, LocalDate on) {
        jdbc.sql("""
                UPDATE document
                   SET state = 'void', open_minor = 0, next_due_on = NULL, settled_on = :on, voided_on = :on,
                       version = version + 1
                 WHERE id = :id
                """).param("on", on).param("id", id).update();
    }

    /** All documents of one client become another's; a window that still has a draft open for the first is told. */
    void move(ClientId from, ClientId into, String name) {
        jdbc.sql("""
                UPDATE document
                   SET client_id = :into, client_name = :name,
                       version = CASE WHEN state = 'draft' THEN version + 1 ELSE version END
                 WHERE client_id = :from
                """)
                .param("into", into)
                .param("name", name)
                .param("from", from)
                .update();
        jdbc.sql("UPDATE document_taken_back SET client_id = :into WHERE client_id = :from")
                .param("into", into)
                .param("from", from)
                .update();
    }

    List<DocumentId> draftsOf(ClientId clientId) {
        return jdbc.sql("SELECT id FROM document WHERE client_id = :client AND state = 'draft'")
                .param("client", clientId)
                .query((rs, n) -> new DocumentId(rs.getLong(1)))
                .list();
    }

    static Document document(ResultSet rs, int row) throws SQLException {
        long total = rs.getLong("total_minor");
        Long totalMinor = rs.wasNull() ? null : total;
        LocalDate issuedOn = Rows.date(rs, "issued_on");
        return new Document(
                new DocumentId(rs.getLong("id")),
                rs.getInt("version"),
                StoredWord.of(DocumentKind.class, rs.getString("kind")),
                StoredWord.of(DocumentState.class, rs.getString("state")),
                new Document.Head(
                        Ids.client(rs, "client_id"),
                        rs.getString("client_name"),
                        rs.getString("subject"),
                        rs.getString("currency"),
                        totalMinor),
                rs.getString("number"),
                issuedOn == null
                        ? null
                        : new Document.Issue(
                                issuedOn,
                                rs.getInt("issued_version"),
                                rs.getLong("open_minor"),
                                Rows.date(rs, "next_due_on"),
                                Rows.date(rs, "voided_on")));
    }
}
