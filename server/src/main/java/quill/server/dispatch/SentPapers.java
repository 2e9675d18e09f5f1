package quill.server.dispatch;

import java.time.LocalDate;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import quill.server.common.Downloads;
import quill.server.common.Hashes;
import quill.server.common.Texts;

/** Tables PAPER and MESSAGE_PAPER: the very bytes that went with a letter, kept for good. */
@Repository
class SentPapers {
    private final JdbcClient jdbc;

    SentPapers(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A paper as it was sent. @param name of its file */
    record Sent(String name, byte[] bytes) {}

    static String ofInvoice(String number) {
        return "invoice-" + Downloads.plain(number) + ".pdf";
    }

    static String ofReminder(LocalDate writtenOn) {
        return "reminder-" + writtenOn + ".pdf";
    }

    /** Keeps the paper of a letter, just before it leaves; one that was kept before stays. */
    @Transactional
    public void keep(long messageId, Sent paper) {
        String hash = Hashes.of(paper.bytes());
        jdbc.sql("INSERT INTO paper (hash, content) SELECT :hash, :content WHERE NOT EXISTS"
                        + " (SELECT 1 FROM paper WHERE hash = :hash)")
                .param("hash", hash)
                .param("content", paper.bytes())
                .update();
        jdbc.sql("INSERT INTO message_paper (message_id, name, hash) SELECT :id, :name, :hash WHERE NOT EXISTS"
                        + " (SELECT 1 FROM message_paper WHERE message_id = :id)")
                .param("id", messageId)
                .param("name", Texts.fit(paper.name(), 120))
                .param("hash", hash)
                .update();
    }

    Optional<Sent> find(long messageId) {
        return jdbc.sql("""
                SELECT m.name, p.content FROM message_paper m JOIN paper p ON p.hash = m.hash
                 WHERE m.message_id = :id
                """)
                .param("id", messageId)
                .query((rs, n) -> new Sent(rs.getString(1), rs.getBytes(2)))
                .optional();
    }
}
