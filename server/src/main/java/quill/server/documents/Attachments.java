package quill.server.documents;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.apache.tika.Tika;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;

/** Files kept with a document, table ATTACHMENT. What a file is, is told by its bytes, not by its name. */
@Service
public class Attachments {
    /** Most that one file may have; the multipart limit in quill.properties says the same. */
    static final int MOST_BYTES = 10 * 1024 * 1024;

    private static final int MOST_IN_ALL = 20 * 1024 * 1024;
    private static final int MOST_FILES = 20;
    private static final int MOST_NAME = 120;
    /** The types that EN 16931 lets an invoice carry (BT-125), and plain text. */
    private static final Map<String, String> TYPES = Map.of(
            "pdf", "application/pdf",
            "png", "image/png",
            "jpg", "image/jpeg",
            "jpeg", "image/jpeg",
            "csv", "text/csv",
            "txt", "text/plain",
            "xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            "ods", "application/vnd.oasis.opendocument.spreadsheet");

    private final JdbcClient jdbc;
    private final DocumentRepository documents;
    private final Tika tika = new Tika();

    Attachments(JdbcClient jdbc, DocumentRepository documents) {
        this.jdbc = jdbc;
        this.documents = documents;
    }

    /** A file without its bytes. @param sent whether it goes along with the document */
    public record Attachment(long id, DocumentId documentId, String name, String type, int size, boolean sent) {}

    /** A file with its bytes. */
    public record Content(Attachment file, byte[] bytes) {}

    /** A document's files, in the order in which they were added. */
    public List<Attachment> of(DocumentId documentId) {
        return jdbc.sql(
                        "SELECT id, document_id, name, type, size, sent FROM attachment WHERE document_id = :i ORDER BY id")
                .param("i", documentId)
                .query((rs, n) -> new Attachment(
                        rs.getLong(1),
                        new DocumentId(rs.getLong(2)),
                        rs.getString(3),
                        rs.getString(4),
                        rs.getInt(5),
                        rs.getBoolean(6)))
                .list();
    }

    /** The files that go along with a document, whole. */
    public List<Content> sentWith(DocumentId documentId) {
        return of(documentId).stream()
                .filter(Attachment::sent)
                .map(a -> content(a.documentId(), a.id()))
                .toList();
    }

    /** One file of a document. @throws NotFoundException if it has none of that id */
    public Content content(DocumentId documentId, long id) {
        Attachment file = of(documentId).stream()
                .filter(a -> a.id() == id)
                .findFirst()
                .orElseThrow(() -> new NotFoundException("This document has no file " + id + "."));
        byte[] bytes = jdbc.sql("SELECT content FROM attachment WHERE id = :id")
                .param("id", id)
                .query((rs, n) -> rs.getBytes(1))
                .single();
        return new Content(file, bytes);
    }

    /**
     * Keeps a file with a draft.
     *
     * @throws RefusedException naming {@code file}, where it is too large, of no type that is kept, or not what its
     *     name says
     */
    @Transactional
    public Attachment add(DocumentId documentId, String name, byte[] bytes) {
        draft(documentId);
        String plain = name(name);
        List<Attachment> before = of(documentId);
        int size = before.stream().mapToInt(Attachment::size).sum();
        if (bytes.length == 0) {
            throw new RefusedException("file", plain, "is empty");
        }
        if (bytes.length > MOST_BYTES || size + bytes.length > MOST_IN_ALL || before.size() >= MOST_FILES) {
            throw new RefusedException(
                    "file", plain, "a file may have 10 MB, and all of a document 20 MB in at most 20 files");
        }
        String type = type(plain, bytes);
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO attachment (document_id, name, type, size, sent, content)
                VALUES (:document, :name, :type, :size, TRUE, :content)
                """)
                .param("document", documentId)
                .param("name", plain)
                .param("type", type)
                .param("size", bytes.length)
                .param("content", bytes)
                .update(key, "id");
        return new Attachment(key.getKey().longValue(), documentId, plain, type, bytes.length, true);
    }

    private static String name(String typed) {
        String name = typed == null
                ? ""
                : typed.replaceAll(".*[/\\\\]", "").replaceAll("\\p{Cntrl}", "").strip();
        if (name.isEmpty() || name.length() > MOST_NAME) {
            throw new RefusedException("file", name, "give it a name of at most " + MOST_NAME + " characters");
        }
        return name;
    }

    private String type(String name, byte[] bytes) {
        String ending = name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        String expected = TYPES.get(ending);
        if (expected == null) {
            throw new RefusedException("file", name, "must be a PDF, PNG, JPEG, CSV, text, XLSX or ODS file");
        }
        String found = found(name, bytes);
        if (!found.equals(expected)) {
            throw new RefusedException(
                    "file", name, "is not what its name says: its content is " + found + ", not " + expected);
        }
        return expected;
    }

    private String found(String name, byte[] bytes) {
        try {
            return tika.detect(new ByteArrayInputStream(bytes), name);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Whether it goes along with the document. */
    @Transactional
    public void send(DocumentId documentId, long id, boolean sent) {
        draft(documentId);
        int rows = jdbc.sql("UPDATE attachment SET sent = :sent WHERE id = :id AND document_id = :document")
                .param("sent", sent)
                .param("id", id)
                .param("document", documentId)
                .update();
        if (rows != 1) {
            throw new NotFoundException("This document has no file " + id + ".");
        }
    }

    /** Takes a file off a draft. */
    @Transactional
    public void remove(DocumentId documentId, long id) {
        draft(documentId);
        jdbc.sql("DELETE FROM attachment WHERE id = :id AND document_id = :document")
                .param("id", id)
                .param("document", documentId)
                .update();
    }

    @Transactional(propagation = Propagation.MANDATORY)
    public void removeAll(DocumentId documentId) {
        jdbc.sql("DELETE FROM attachment WHERE document_id = :document")
                .param("document", documentId)
                .update();
    }

    @Transactional(propagation = Propagation.MANDATORY)
    public void copy(DocumentId from, DocumentId to) {
        jdbc.sql("""
                INSERT INTO attachment (document_id, name, type, size, sent, content)
                SELECT :to, name, type, size, sent, content FROM attachment WHERE document_id = :from ORDER BY id
                """).param("to", to).param("from", from).update();
    }

    /** Keeps the document's row until the transaction ends, so that no file changes while it is being issued. */
    private void draft(DocumentId documentId) {
        documents.lock(documentId);
        Document document = documents
                .find(documentId)
                .orElseThrow(() -> new NotFoundException("There is no document " + documentId + "."));
        if (!document.isDraft()) {
            throw new ConflictException("The files of an issued document stay as they are.");
        }
    }
}
