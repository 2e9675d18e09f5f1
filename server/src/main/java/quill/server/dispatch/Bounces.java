package quill.server.dispatch;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.audit.Happenings;
import quill.server.common.Changes;
import quill.server.common.Ids;
import quill.server.common.News;
import quill.server.common.StoredWord;
import quill.server.common.Texts;

/** Letters that came back: tables RETURNED_MAIL and MAILBOX_READ, and the state of the message. Each report counts once. */
@Repository
class Bounces {
    private static final int LONGEST_ADDRESS = 200;
    private final JdbcClient jdbc;
    private final Happenings happenings;
    private final Changes changes;
    private final ApplicationEventPublisher publisher;

    Bounces(JdbcClient jdbc, Happenings happenings, Changes changes, ApplicationEventPublisher publisher) {
        this.jdbc = jdbc;
        this.happenings = happenings;
        this.changes = changes;
        this.publisher = publisher;
    }

    /** How far a mailbox was read; 0 where its numbers count anew. */
    long readUpTo(long validity) {
        return jdbc.sql("SELECT last_uid FROM mailbox_read WHERE validity = :validity")
                .param("validity", validity)
                .query(Long.class)
                .optional()
                .orElse(0L);
    }

    @Transactional
    public void keepReadUpTo(long validity, long uid) {
        jdbc.sql("MERGE INTO mailbox_read (id, validity, last_uid) KEY (id) VALUES (1, :validity, :uid)")
                .param("validity", validity)
                .param("uid", uid)
                .update();
    }

    private record Returned(
            long id, MessageKind kind, MessageState state, ClientId clientId, DocumentId documentId, String subject) {}

    /**
     * Notes a report.
     *
     * @return whether it is dealt with; false where its letter is being sent at this moment, so that it is read again
     */
    @Transactional
    public boolean note(DeliveryReport report) {
        Optional<Returned> found = find(report.about());
        if (report.failed().isEmpty() || found.isEmpty() || isKnown(report.id())) {
            return true;
        }
        Returned letter = found.get();
        if (letter.state() == MessageState.SENDING) {
            return false;
        }
        DeliveryReport.Failed failed = report.failed().get(0);
        jdbc.sql("""
                INSERT INTO returned_mail (report_id, message_id, address, read_at)
                VALUES (:report, :message, :address, :now)
                """)
                .param("report", report.id())
                .param("message", letter.id())
                .param("address", Texts.fit(failed.address(), LONGEST_ADDRESS))
                .param("now", Instant.now())
                .update();
        int moved = jdbc.sql("""
                UPDATE message SET state = 'bounced', came_back_from = :address, error = :why
                 WHERE id = :id AND state IN ('sent', 'opened', 'uncertain')
                """)
                .param("address", Texts.fit(failed.address(), LONGEST_ADDRESS))
                .param("why", Texts.fit("It came back from " + failed.address() + ": " + failed.why(), 400))
                .param("id", letter.id())
                .update();
        if (moved == 1) {
            happenings.tell(
                    letter.documentId(),
                    letter.clientId(),
                    "Came back from " + failed.address() + ": " + letter.subject(),
                    Happenings.About.letter(letter.id()));
            changes.letter(letter.documentId(), letter.clientId());
            if (letter.clientId() != null && letter.kind() != MessageKind.COPY) {
                publisher.publishEvent(new News(
                        News.Kind.UNDELIVERED,
                        "A letter came back from " + failed.address() + ": " + letter.subject(),
                        null,
                        letter.clientId(),
                        letter.documentId()));
            }
        }
        return true;
    }

    private Optional<Returned> find(String messageId) {
        return jdbc.sql("SELECT id, kind, state, client_id, document_id, subject FROM message WHERE message_id = :id")
                .param("id", messageId)
                .query((rs, n) -> new Returned(
                        rs.getLong("id"),
                        StoredWord.of(MessageKind.class, rs.getString("kind")),
                        StoredWord.of(MessageState.class, rs.getString("state")),
                        Ids.client(rs, "client_id"),
                        Ids.document(rs, "document_id"),
                        rs.getString("subject")))
                .optional();
    }

    private boolean isKnown(String reportId) {
        return jdbc.sql("SELECT COUNT(*) FROM returned_mail WHERE report_id = :id")
                        .param("id", reportId)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    /** Addresses that a letter came back from, of which nobody has decided yet. */
    List<String> open() {
        return jdbc.sql("SELECT DISTINCT came_back_from FROM message WHERE state = 'bounced' AND NOT seen_to")
                .query(String.class)
                .list();
    }
}
