package quill.server.dispatch;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.letter.LetterKind;
import quill.server.audit.Actor;
import quill.server.common.ClientRows;
import quill.server.common.Ids;
import quill.server.common.Texts;
import quill.server.letters.LetterWriting;
import quill.server.letters.Written;

/** Tables MESSAGE, MESSAGE_TEXT and MESSAGE_DOCUMENT: the outbox and, once sent, what was said to whom. */
@Repository
class MessageRepository {
    private final JdbcClient jdbc;

    MessageRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A message that is to be sent. @param later what its sender changed of one that is written on its day; else null */
    record Outgoing(
            long id,
            String messageId,
            ClientId clientId,
            DocumentId documentId,
            Message.Addresses addresses,
            Written written,
            String reminder,
            LetterWriting.ThisOnce later,
            Instant madeAt,
            Actor madeBy,
            int tries) {
        /** The same with other words. */
        Outgoing saying(Written other) {
            return new Outgoing(
                    id, messageId, clientId, documentId, addresses, other, reminder, later, madeAt, madeBy, tries);
        }
    }

    /** Queues a letter once for its key; a second call with the same key does nothing. @return whether it was queued */
    boolean queue(MessageDraft d, String messageId, Actor madeBy, LocalDate today, Instant now) {
        boolean queued = insert(d, messageId, madeBy, today, now);
        if (queued) {
            jdbc.sql("""
                    INSERT INTO message_text (message_id, html, text, code, reminder)
                    SELECT id, :html, :text, :code, :reminder FROM message WHERE what_key = :key
                    """)
                    .param("html", d.written().html())
                    .param("text", d.written().text())
                    .param("code", d.written().code())
                    .param("reminder", d.reminder())
                    .param("key", d.whatKey())
                    .update();
            d.documents()
                    .forEach(document -> jdbc.sql("""
                    INSERT INTO message_document (message_id, document_id)
                    SELECT id, :document FROM message WHERE what_key = :key
                    """)
                            .param("document", document)
                            .param("key", d.whatKey())
                            .update());
        }
        return queued;
    }

    long idOf(String key) {
        return jdbc.sql("SELECT id FROM message WHERE what_key = :key")
                .param("key", key)
                .query(Long.class)
                .single();
    }

    private boolean insert(MessageDraft d, String messageId, Actor madeBy, LocalDate today, Instant now) {
        return jdbc.sql("""
                        INSERT INTO message (what_key, message_id, kind, letter, client_id, document_id, to_address, copies_to,
                          subject, state, next_try_at, made_on, made_at, made_by_kind, made_by, kept_back_act,
                          channel, leave_at, own_subject, own_line)
                        SELECT :key, :messageId, :kind, :letter, :client, :document, :to, :copies, :subject,
                               'waiting', DATEADD('SECOND', :hold, CURRENT_TIMESTAMP), :today, :now, :byKind, :by, :keptBack,
                               :channel, :leaveAt, :ownSubject, :ownLine
                         WHERE NOT EXISTS (SELECT 1 FROM message WHERE what_key = :key)
                        """)
                        .param("key", d.whatKey())
                        .param("messageId", messageId)
                        .param("byKind", madeBy.kind())
                        .param("by", madeBy.name())
                        .param("kind", d.kind())
                        .param("letter", d.written().letter())
                        .param("client", d.clientId())
                        .param("document", d.main())
                        .param("to", d.to())
                        .param("copies", String.join(" ", d.copiesTo()))
                        .param("subject", Texts.fit(d.written().subject(), 500))
                        .param("hold", d.held().seconds())
                        .param("keptBack", d.held().keptBackAct())
                        .param("channel", d.channel())
                        .param("leaveAt", d.held().leaveAt())
                        .param("ownSubject", d.held().once().subject())
                        .param("ownLine", d.held().once().line())
                        .param("today", today)
                        .param("now", now)
                        .update()
                == 1;
    }

    /** What is to be sent. @param now by the business's clock */
    List<Outgoing> due(LocalDateTime now) {
        return jdbc.sql("""
                SELECT m.id, m.letter, m.message_id, m.client_id, m.document_id, m.to_address, m.copies_to,
                       m.channel, m.came_back_from, m.leave_at, m.own_subject, m.own_line, m.subject, t.html, t.text, t.code, t.reminder, m.made_at, m.made_by_kind, m.made_by, m.tries
                  FROM message m JOIN message_text t ON t.message_id = m.id
                 WHERE m.state = 'waiting' AND m.next_try_at <= CURRENT_TIMESTAMP
                   AND (m.leave_at IS NULL OR m.leave_at <= :now)
                 ORDER BY m.next_try_at, m.id LIMIT 50
                """)
                .param("now", now)
                .query((rs, n) -> new Outgoing(
                        rs.getLong("id"),
                        rs.getString("message_id"),
                        Ids.client(rs, "client_id"),
                        Ids.document(rs, "document_id"),
                        MessageRows.addresses(rs),
                        new Written(
                                LetterKind.valueOf(rs.getString("letter")),
                                rs.getString("subject"),
                                rs.getString("html"),
                                rs.getString("text"),
                                rs.getString("code")),
                        rs.getString("reminder"),
                        rs.getObject("leave_at") == null
                                ? null
                                : new LetterWriting.ThisOnce(rs.getString("own_subject"), rs.getString("own_line")),
                        rs.getObject("made_at", Instant.class),
                        Actor.of(rs.getString("made_by_kind"), rs.getString("made_by")),
                        rs.getInt("tries")))
                .list();
    }

    /** Whether a letter that names an invoice left, or may have left. */
    boolean anyLeft(DocumentId invoiceId) {
        return jdbc.sql("""
                                SELECT COUNT(*) FROM message m
                                 WHERE state IN (:left) AND kind <> 'copy'
                                   AND id IN (SELECT message_id FROM message_document WHERE document_id = :invoice)
                                """)
                        .param("left", MessageState.LEFT)
                        .param("invoice", invoiceId)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    /** Which of these invoices were mailed, and not called back. */
    Set<DocumentId> mailed(Collection<DocumentId> invoiceIds) {
        return new HashSet<>(jdbc.sql("""
                        SELECT DISTINCT m.document_id FROM UNNEST(CAST(:invoices AS BIGINT ARRAY)) AS v (id)
                          JOIN message_document d ON d.document_id = v.id
                          JOIN message m ON m.id = d.message_id AND m.kind = 'invoice' AND NOT m.called_back
                        """)
                .param("invoices", Ids.array(invoiceIds))
                .query((rs, n) -> new DocumentId(rs.getLong(1)))
                .list());
    }

    /** Writes one that waits anew, on the day on which it leaves. @return whether it still waited */
    boolean rewrite(long id, Written written) {
        boolean waits = jdbc.sql("UPDATE message SET subject = :subject WHERE id = :id AND state = 'waiting'")
                        .param("subject", Texts.fit(written.subject(), 500))
                        .param("id", id)
                        .update()
                == 1;
        if (waits) {
            jdbc.sql("UPDATE message_text SET html = :html, text = :text, code = :code WHERE message_id = :id")
                    .param("html", written.html())
                    .param("text", written.text())
                    .param("code", written.code())
                    .param("id", id)
                    .update();
        }
        return waits;
    }

    /** Moves from one state to another, if it is still in the first. @return whether it was */
    boolean move(long id, MessageState from, MessageState to, String error, LocalDate sentOn, int waitSeconds) {
        return jdbc.sql("""
                        UPDATE message
                           SET state = :to, error = :error, sent_on = COALESCE(:sentOn, sent_on),
                               tries = tries + CASE WHEN :from = 'waiting' THEN 1 ELSE 0 END,
                               next_try_at = DATEADD('SECOND', :wait, CURRENT_TIMESTAMP)
                         WHERE id = :id AND state = :from
                        """)
                        .param("to", to)
                        .param("error", Texts.fit(error, 400))
                        .param("sentOn", sentOn)
                        .param("from", from)
                        .param("wait", waitSeconds)
                        .param("id", id)
                        .update()
                == 1;
    }

    /** Keeps a letter from leaving. @return whether it was still waiting */
    boolean holdBack(String whatKey) {
        return jdbc.sql("UPDATE message SET state = 'set aside' WHERE what_key = :key AND state = 'waiting'")
                        .param("key", whatKey)
                        .update()
                == 1;
    }

    /** A letter as it was queued, within the transaction that did so. */
    record Looked(long id, String subject, String text, LetterKind letter, DocumentId documentId) {}

    Optional<Looked> looked(String key) {
        return jdbc.sql("""
                SELECT m.id, m.subject, t.text, m.letter, m.document_id
                  FROM message m JOIN message_text t ON t.message_id = m.id
                 WHERE m.what_key = :key
                """)
                .param("key", key)
                .query((rs, n) -> new Looked(
                        rs.getLong("id"),
                        rs.getString("subject"),
                        rs.getString("text"),
                        LetterKind.valueOf(rs.getString("letter")),
                        Ids.document(rs, "document_id")))
                .optional();
    }

    /** Lets what can still be called back go with the next round. */
    void leaveAtOnce() {
        jdbc.sql("""
                UPDATE message SET next_try_at = CURRENT_TIMESTAMP
                 WHERE state = 'waiting' AND tries = 0 AND next_try_at > CURRENT_TIMESTAMP
                """).update();
    }

    /** Sets aside what has not left, and frees its key. @return whether it was still waiting */
    boolean callBack(long id) {
        return setAside("Called back before it left.", "id = :which AND state = 'waiting'", id) == 1;
    }

    /** Sets aside what has not left of an invoice that is taken back. Reminders are asked anew before they leave. */
    void setAsideUnsent(DocumentId invoiceId) {
        setAside(
                "Its invoice was taken back before it left.",
                "document_id = :which AND state IN ('waiting', 'failed') AND kind <> 'reminder'",
                invoiceId);
    }

    private int setAside(String why, String where, Object which) {
        return jdbc.sql("""
                        UPDATE message
                           SET state = 'set aside', called_back = TRUE, what_key = 'called back:' || id, error = :why
                         WHERE\s""" + where).param("why", why).param("which", which).update();
    }

    /** The copy to oneself of a letter, where it still waits. */
    Optional<Long> waitingCopyOf(long id) {
        return jdbc.sql("""
                SELECT c.id FROM message c JOIN message m ON c.what_key LIKE 'copy:' || m.what_key || ':%'
                 WHERE m.id = :id AND c.state = 'waiting'
                """).param("id", id).query(Long.class).optional();
    }

    /** Where the letter went that this one is a copy of; empty where it is none. */
    Optional<String> copyOfOneTo(long id) {
        return jdbc.sql("""
                SELECT m.to_address FROM message m JOIN message c ON c.what_key LIKE 'copy:' || m.what_key || ':%'
                 WHERE c.id = :id AND c.kind = 'copy'
                """).param("id", id).query(String.class).optional();
    }

    /** The act that was kept back before a person sent it all the same. */
    Optional<String> keptBackAct(long id) {
        return jdbc.sql("SELECT kept_back_act FROM message WHERE id = :id AND kept_back_act IS NOT NULL")
                .param("id", id)
                .query(String.class)
                .optional();
    }

    /** It goes elsewhere. */
    void readdress(long id, String to) {
        jdbc.sql("UPDATE message SET to_address = :to WHERE id = :id")
                .param("to", to)
                .param("id", id)
                .update();
    }

    /** A person has dealt with one that came back. @return whether nobody had yet */
    boolean seeTo(long id) {
        // The key of a reminder is its day's: it is given free, so that the client can be reminded anew on that day.
        return jdbc.sql("""
                        UPDATE message SET seen_to = TRUE,
                               what_key = CASE WHEN kind = 'reminder' THEN 'came back:' || id ELSE what_key END
                         WHERE id = :id AND state = 'bounced' AND NOT seen_to
                        """).param("id", id).update() == 1;
    }

    /** The same message once more, to another address: a row of its own, with the same words and papers. */
    void again(long id, String key, String messageId, String to) {
        jdbc.sql("""
                INSERT INTO message (what_key, message_id, kind, letter, client_id, document_id, to_address, subject, state,
                  next_try_at, made_on, made_at, made_by_kind, made_by, channel)
                SELECT :key, :messageId, kind, letter, client_id, document_id, :to, subject, 'waiting',
                       CURRENT_TIMESTAMP, made_on, made_at, made_by_kind, made_by, channel
                  FROM message WHERE id = :id
                """)
                .param("key", key)
                .param("messageId", messageId)
                .param("to", to)
                .param("id", id)
                .update();
        long copy = idOf(key);
        for (String rows : List.of(
                "message_text (message_id, html, text, code, reminder) SELECT :copy, html, text, code, reminder FROM message_text",
                "message_document (message_id, document_id) SELECT :copy, document_id FROM message_document",
                "message_attachment (message_id, place, kind, document_id, file_id, name, hash)"
                        + " SELECT :copy, place, kind, document_id, file_id, name, hash FROM message_attachment")) {
            jdbc.sql("INSERT INTO " + rows + " WHERE message_id = :id")
                    .param("copy", copy)
                    .param("id", id)
                    .update();
        }
    }

    /** A person decided that it goes, whatever its day. */
    void byHand(long id) {
        jdbc.sql("UPDATE message SET by_hand = TRUE WHERE id = :id")
                .param("id", id)
                .update();
    }

    boolean isByHand(long id) {
        return jdbc.sql("SELECT by_hand FROM message WHERE id = :id")
                .param("id", id)
                .query(Boolean.class)
                .single();
    }

    boolean exists(String whatKey) {
        return jdbc.sql("SELECT COUNT(*) FROM message WHERE what_key = :key")
                        .param("key", whatKey)
                        .query(Long.class)
                        .single()
                > 0;
    }

    /** Whatever was on its way when the process ended: nobody knows whether it arrived. */
    int interruptedAreUncertain(String why) {
        return jdbc.sql("UPDATE message SET state = 'uncertain', error = :why WHERE state = 'sending'")
                .param("why", Character.toUpperCase(why.charAt(0)) + why.substring(1) + ".")
                .update();
    }

    /** What a letter's square code carries; empty where none is drawn. */
    Optional<String> code(long id) {
        return jdbc.sql("SELECT code FROM message_text WHERE message_id = :id AND code IS NOT NULL")
                .param("id", id)
                .query(String.class)
                .optional();
    }

    /** Letters that arrived, name a document, and lead to its page, of which nobody knows yet whether it was opened. */
    List<Long> unopened(DocumentId documentId) {
        return jdbc.sql("""
                SELECT m.id FROM message_document d JOIN message m ON m.id = d.message_id
                 WHERE d.document_id = :document AND m.state = 'sent' AND m.kind <> 'copy'
                """).param("document", documentId).query(Long.class).list();
    }

    /** The first day on which an invoice was mailed. */
    Optional<LocalDate> firstSent(DocumentId invoiceId) {
        return jdbc.sql("""
                SELECT MIN(sent_on) FROM message
                 WHERE id IN (SELECT message_id FROM message_document WHERE document_id = :invoice)
                   AND kind = 'invoice' AND state IN ('sent', 'opened')
                """)
                .param("invoice", invoiceId)
                .query((rs, n) -> Optional.ofNullable(rs.getObject(1, LocalDate.class)))
                .single();
    }

    @Bean
    ClientRows messagesOfClients() {
        return ClientRows.of(jdbc, "message");
    }
}
