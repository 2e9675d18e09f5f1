package quill.server.dispatch;

import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import quill.server.common.Hashes;
import quill.server.common.Ids;
import quill.server.common.StoredWord;
import quill.server.common.Texts;

/** Tables MESSAGE_ATTACHMENT and PAPER: what goes with a message, and the very bytes that went, kept for good. */
@Repository
class SentPapers {
    private static final int LONGEST_NAME = 160;
    private final JdbcClient jdbc;

    SentPapers(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A paper as it was sent. @param name of its file */
    record Sent(String name, byte[] bytes) {}

    /** Something that goes with a message. @param place in the order in which it is attached */
    record Placed(int place, Enclosed what) {}

    /** Notes what goes with a message, in its order. */
    void enclose(String key, List<Enclosed> all) {
        for (int i = 0; i < all.size(); i++) {
            Enclosed e = all.get(i);
            jdbc.sql("""
                    INSERT INTO message_attachment (message_id, place, kind, document_id, file_id, name)
                    SELECT id, :place, :kind, :document, :file, :name FROM message WHERE what_key = :key
                    """)
                    .param("place", i + 1)
                    .param("kind", e.kind())
                    .param("document", e.documentId())
                    .param("file", e.fileId())
                    .param("name", Texts.fit(e.name(), LONGEST_NAME))
                    .param("key", key)
                    .update();
        }
    }

    /** What goes with a message, in its order. */
    List<Placed> of(long messageId) {
        return jdbc.sql("""
                SELECT place, kind, document_id, file_id, name FROM message_attachment
                 WHERE message_id = :id ORDER BY place
                """)
                .param("id", messageId)
                .query((rs, n) -> new Placed(
                        rs.getInt("place"),
                        new Enclosed(
                                StoredWord.of(Enclosed.Kind.class, rs.getString("kind")),
                                Ids.document(rs, "document_id"),
                                rs.getObject("file_id", Long.class),
                                rs.getString("name"))))
                .list();
    }

    /** Keeps a paper just before it leaves; one that was kept before stays. */
    @Transactional
    public void keep(long messageId, int place, Sent paper) {
        String hash = Hashes.of(paper.bytes());
        jdbc.sql("INSERT INTO paper (hash, content) SELECT :hash, :content WHERE NOT EXISTS"
                        + " (SELECT 1 FROM paper WHERE hash = :hash)")
                .param("hash", hash)
                .param("content", paper.bytes())
                .update();
        jdbc.sql(
                        "UPDATE message_attachment SET hash = :hash WHERE message_id = :id AND place = :place AND hash IS NULL")
                .param("id", messageId)
                .param("place", place)
                .param("hash", hash)
                .update();
    }

    /** A paper that went with a message before. */
    Optional<Sent> find(long messageId, int place) {
        return jdbc.sql("""
                SELECT m.name, p.content FROM message_attachment m JOIN paper p ON p.hash = m.hash
                 WHERE m.message_id = :id AND m.place = :place
                """)
                .param("id", messageId)
                .param("place", place)
                .query((rs, n) -> new Sent(rs.getString(1), rs.getBytes(2)))
                .optional();
    }

    /** The first paper that went with a message. */
    Optional<Sent> first(long messageId) {
        return of(messageId).stream()
                .map(p -> find(messageId, p.place()))
                .flatMap(Optional::stream)
                .findFirst();
    }
}
