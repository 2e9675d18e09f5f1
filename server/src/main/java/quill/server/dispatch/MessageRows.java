package quill.server.dispatch;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.letter.Channel;
import quill.server.common.Ids;
import quill.server.common.Rows;
import quill.server.common.StoredWord;

/** Table MESSAGE as people see it: what was said to whom, and how it stands. */
@Repository
class MessageRows {
    private static final String SELECT = """
            SELECT id, kind, client_id, document_id, to_address, copies_to, subject, state, error, made_on, sent_on, called_back, channel, leave_at,
                   came_back_from,
                   CASE WHEN state = 'waiting' AND tries = 0 AND next_try_at > CURRENT_TIMESTAMP
                        THEN CAST(EXTRACT(EPOCH FROM next_try_at) - EXTRACT(EPOCH FROM CURRENT_TIMESTAMP) AS INT) END leaves_in
              FROM message
            """;

    private final JdbcClient jdbc;

    MessageRows(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<Message> find(long id) {
        return jdbc.sql(SELECT + " WHERE id = :id")
                .param("id", id)
                .query(MessageRows::message)
                .optional();
    }

    List<Message> ofKeys(List<String> keys) {
        return jdbc.sql(SELECT + " WHERE what_key IN (:keys) ORDER BY id")
                .param("keys", keys)
                .query(MessageRows::message)
                .list();
    }

    List<Message> ofInvoice(DocumentId invoiceId) {
        return jdbc.sql(SELECT + """
                 WHERE id IN (SELECT message_id FROM message_document WHERE document_id = :invoice)
                 ORDER BY id DESC
                """)
                .param("invoice", invoiceId)
                .query(MessageRows::message)
                .list();
    }

    /** @param find a part of the subject, the text or the address, in small letters; empty for all */
    List<Message> ofClient(ClientId clientId, String find) {
        return jdbc.sql(SELECT + """
                 WHERE client_id = :client
                   AND (:find = '' OR LOCATE(:find, LOWER(subject)) > 0 OR LOCATE(:find, LOWER(to_address)) > 0
                        OR id IN (SELECT t.message_id FROM message o JOIN message_text t ON t.message_id = o.id
                                   WHERE o.client_id = :client AND LOCATE(:find, LOWER(t.text)) > 0))
                 ORDER BY id DESC LIMIT 200
                """)
                .param("client", clientId)
                .param("find", find)
                .query(MessageRows::message)
                .list();
    }

    List<Message> reminders(Collection<ClientId> clientIds, LocalDate since) {
        return jdbc.sql(SELECT + """
                 WHERE client_id IN (:clients) AND kind = 'reminder' AND state <> 'set aside' AND made_on >= :since
                 ORDER BY id
                """)
                .param("clients", clientIds)
                .param("since", since)
                .query(MessageRows::message)
                .list();
    }

    /** What a letter asks for, by debt. */
    Map<Long, Money> asked(long messageId) {
        Map<Long, Money> asked = new HashMap<>();
        jdbc.sql("SELECT debt_id, currency, asked_minor FROM message_debt WHERE message_id = :message")
                .param("message", messageId)
                .query(rs -> {
                    asked.put(rs.getLong(1), Money.ofMinor(CurrencyUnit.of(rs.getString(2)), rs.getLong(3)));
                });
        return asked;
    }

    Optional<String> reminder(long id) {
        return jdbc.sql("SELECT reminder FROM message_text WHERE message_id = :id AND reminder IS NOT NULL")
                .param("id", id)
                .query(String.class)
                .optional();
    }

    Optional<String> html(long id) {
        return jdbc.sql("SELECT html FROM message_text WHERE message_id = :id")
                .param("id", id)
                .query(String.class)
                .optional();
    }

    /** Letters that leave at a moment that a person chose, the first one first. */
    List<Message> later() {
        return jdbc.sql(SELECT
                        + " WHERE state = 'waiting' AND leave_at IS NOT NULL AND kind <> 'copy' ORDER BY leave_at, id")
                .query(MessageRows::message)
                .list();
    }

    /** Letters that wait for nothing but the time in which they can be called back. */
    List<Message> leaving() {
        return jdbc.sql(SELECT + """
                 WHERE state = 'waiting' AND tries = 0 AND next_try_at > CURRENT_TIMESTAMP AND kind <> 'copy'
                   AND leave_at IS NULL ORDER BY id
                """).query(MessageRows::message).list();
    }

    List<Message> needingSomebody() {
        return jdbc.sql(SELECT
                        + " WHERE state IN ('uncertain', 'failed') OR state = 'bounced' AND NOT seen_to ORDER BY id")
                .query(MessageRows::message)
                .list();
    }

    static Message.Addresses addresses(ResultSet rs) throws SQLException {
        String copies = rs.getString("copies_to");
        return new Message.Addresses(
                Channel.valueOf(rs.getString("channel")),
                rs.getString("to_address"),
                copies.isEmpty() ? List.of() : List.of(copies.split(" ")),
                rs.getString("came_back_from"));
    }

    private static Message.Leaves leaves(ResultSet rs) throws SQLException {
        Integer in = rs.getObject("leaves_in", Integer.class);
        LocalDateTime at =
                "waiting".equals(rs.getString("state")) ? rs.getObject("leave_at", LocalDateTime.class) : null;
        return in == null && at == null ? null : new Message.Leaves(at == null ? in : null, at);
    }

    private static Message message(ResultSet rs, int row) throws SQLException {
        return new Message(
                rs.getLong("id"),
                StoredWord.of(MessageKind.class, rs.getString("kind")),
                Ids.client(rs, "client_id"),
                Ids.document(rs, "document_id"),
                addresses(rs),
                rs.getString("subject"),
                StoredWord.of(MessageState.class, rs.getString("state")),
                rs.getString("error"),
                rs.getDate("made_on").toLocalDate(),
                Rows.date(rs, "sent_on"),
                rs.getBoolean("called_back"),
                leaves(rs));
    }
}
