package quill.server.documents;

import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.server.common.ReadOnce;
import quill.server.common.ValueJson;

/**
 * Table DOCUMENT_CONTENT: what was typed into a document, and what it said when it was issued. What was issued is only
 * added to; what was typed is written over while it is a draft and stays as it was from then on.
 */
@Repository
class DocumentContents {
    private static final String TABLE = "document_content";
    private static final int TYPED_FORMAT = 1;
    /** A later one goes on reading what was written in this. */
    static final int ISSUED_FORMAT = 2;

    private final JdbcClient jdbc;
    private final ValueJson json;

    DocumentContents(JdbcClient jdbc, ValueJson json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /** What is typed from a version of the document on. */
    void typed(DocumentId id, int version, String body) {
        add(id, "typed", version, TYPED_FORMAT, body);
    }

    /** What it says, issued as this version. */
    void issued(DocumentId id, int version, IssuedDocument document) {
        add(id, "issued", version, ISSUED_FORMAT, json.write(document));
    }

    private void add(DocumentId id, String stage, int version, int format, String body) {
        jdbc.sql("""
                INSERT INTO document_content (document_id, stage, version, format, body)
                VALUES (:id, :stage, :version, :format, :body)
                """)
                .param("id", id)
                .param("stage", stage)
                .param("version", version)
                .param("format", format)
                .param("body", body)
                .update();
    }

    /** Writes over what is typed into a draft. */
    void retype(DocumentId id, String body) {
        jdbc.sql("""
                UPDATE document_content SET body = :body
                 WHERE document_id = :id AND stage = 'typed'
                   AND version = (SELECT MAX(t.version) FROM document_content t
                                   WHERE t.document_id = :id AND t.stage = 'typed')
                """).param("body", body).param("id", id).update();
    }

    /** What was typed last; nothing for what the product wrote itself. */
    Optional<String> typed(DocumentId id) {
        return ReadOnce.of(
                TABLE,
                id,
                () -> jdbc.sql("""
                SELECT body FROM document_content WHERE document_id = :id AND stage = 'typed'
                 ORDER BY version DESC LIMIT 1
                """).param("id", id).query(String.class).optional());
    }

    /** What it said when it was issued as a version. */
    IssuedDocument issued(DocumentId id, int version) {
        return ReadOnce.of(
                TABLE,
                List.of(id, version),
                () -> jdbc.sql("""
                SELECT format, body FROM document_content
                 WHERE document_id = :id AND stage = 'issued' AND version = :version
                """)
                        .param("id", id)
                        .param("version", version)
                        .query((rs, n) -> read(rs.getInt("format"), rs.getString("body")))
                        .single());
    }

    /** What it said when it was issued first. */
    IssuedDocument firstIssued(DocumentId id) {
        return jdbc.sql("""
                SELECT format, body FROM document_content WHERE document_id = :id AND stage = 'issued'
                 ORDER BY version LIMIT 1
                """)
                .param("id", id)
                .query((rs, n) -> read(rs.getInt("format"), rs.getString("body")))
                .single();
    }

    private IssuedDocument read(int format, String body) {
        return read(json, format, body);
    }

    /** The first format knew of no jobs. */
    static IssuedDocument read(ValueJson json, int format, String body) {
        return switch (format) {
            case 1 -> json.read(body, IssuedDocument.class, "job");
            case ISSUED_FORMAT -> json.read(body, IssuedDocument.class);
            default -> throw new IllegalStateException("a document is kept in format " + format + ", of a later build");
        };
    }
}
