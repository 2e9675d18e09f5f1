package quill.server.documents;

import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.DocumentId;

/** Table DOCUMENT_RELATION: what one document is to another. Only added to, by the caller's transaction. */
@Repository
public class Relations {
    private final JdbcClient jdbc;

    Relations(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * What a credit note takes of an invoice.
     *
     * @param whole whether nothing of it is left then
     * @param taken all that was taken up to and with it, as JSON
     */
    public record Taking(String why, boolean whole, String taken) {}

    /** A credit note by its id, with what it takes. */
    public record Correction(DocumentId noteId, DocumentId invoiceId, Taking taking) {}

    /** Notes what one document is to another. */
    public void add(DocumentId from, RelationKind kind, DocumentId to) {
        jdbc.sql("INSERT INTO document_relation (from_id, to_id, kind) VALUES (:from, :to, :kind)")
                .param("from", from)
                .param("to", to)
                .param("kind", kind)
                .update();
    }

    /** The same, where it is not noted yet. */
    public void addOnce(DocumentId from, RelationKind kind, DocumentId to) {
        if (!sources(to, kind).contains(from)) {
            add(from, kind, to);
        }
    }

    /** Notes what a credit note takes of an invoice. */
    public void corrects(DocumentId note, DocumentId invoice, Taking taking) {
        jdbc.sql("""
                INSERT INTO document_relation (from_id, to_id, kind, why, whole, taken)
                VALUES (:from, :to, :kind, :why, :whole, :taken)
                """)
                .param("from", note)
                .param("to", invoice)
                .param("kind", RelationKind.CORRECTS)
                .param("why", taking.why())
                .param("whole", taking.whole())
                .param("taken", taking.taken())
                .update();
    }

    /** To which other document it is that, if to any. */
    public Optional<DocumentId> target(DocumentId from, RelationKind kind) {
        return jdbc.sql("SELECT to_id FROM document_relation WHERE from_id = :from AND kind = :kind")
                .param("from", from)
                .param("kind", kind)
                .query((rs, n) -> new DocumentId(rs.getLong(1)))
                .optional();
    }

    /** Which other documents are that to it, oldest first. */
    public List<DocumentId> sources(DocumentId to, RelationKind kind) {
        return jdbc.sql("SELECT from_id FROM document_relation WHERE to_id = :to AND kind = :kind ORDER BY from_id")
                .param("to", to)
                .param("kind", kind)
                .query((rs, n) -> new DocumentId(rs.getLong(1)))
                .list();
    }

    /** What credit notes took of an invoice, oldest first. */
    public List<Correction> corrections(DocumentId invoiceId) {
        return corrections("to_id", invoiceId);
    }

    /** What a credit note takes, and of which invoice; empty for what is no credit note. */
    public Optional<Correction> correction(DocumentId noteId) {
        return corrections("from_id", noteId).stream().findFirst();
    }

    private List<Correction> corrections(String end, DocumentId id) {
        return jdbc.sql("SELECT from_id, to_id, why, whole, taken FROM document_relation WHERE " + end
                        + " = :id AND kind = :kind ORDER BY from_id")
                .param("id", id)
                .param("kind", RelationKind.CORRECTS)
                .query((rs, n) -> new Correction(
                        new DocumentId(rs.getLong(1)),
                        new DocumentId(rs.getLong(2)),
                        new Taking(rs.getString(3), rs.getBoolean(4), rs.getString(5))))
                .list();
    }
}
