package quill.server.quotes;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.document.TypedDraft;
import quill.core.id.DocumentId;
import quill.server.common.Ids;
import quill.server.common.Json;
import quill.server.common.Rows;

/** Tables QUOTE, QUOTE_ANSWER and QUOTE_QUESTION. Holds no rules; the caller opens the transaction. */
@Repository
class QuoteRepository {
    private final JdbcClient jdbc;
    private final Json json;

    QuoteRepository(JdbcClient jdbc, Json json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /** What a quote says beside its lines. @param conditions as HTML that is safe @param offered as it was typed */
    record Terms(LocalDate validUntil, String conditions, TypedDraft offered) {}

    void insert(DocumentId id, Terms terms) {
        jdbc.sql("""
                INSERT INTO quote (document_id, valid_until, conditions, offered)
                VALUES (:id, :until, :conditions, :offered)
                """)
                .param("id", id)
                .param("until", terms.validUntil())
                .param("conditions", terms.conditions())
                .param("offered", json.write(terms.offered()))
                .update();
    }

    Terms terms(DocumentId id) {
        return jdbc.sql("SELECT valid_until, conditions, offered FROM quote WHERE document_id = :id")
                .param("id", id)
                .query((rs, n) -> new Terms(
                        rs.getDate(1).toLocalDate(), rs.getString(2), json.read(rs.getString(3), TypedDraft.class)))
                .single();
    }

    /** Until when these hold. */
    Map<DocumentId, LocalDate> until(Collection<DocumentId> ids) {
        Map<DocumentId, LocalDate> until = new HashMap<>();
        jdbc.sql("""
                SELECT document_id, valid_until FROM quote
                  JOIN UNNEST(CAST(:ids AS BIGINT ARRAY)) AS given (one) ON one = document_id
                """).param("ids", Ids.array(ids)).query(rs -> {
            until.put(new DocumentId(rs.getLong(1)), rs.getDate(2).toLocalDate());
        });
        return until;
    }

    /** Those that hold until a day in a range, the soonest first. */
    Map<DocumentId, LocalDate> runningOut(LocalDate from, LocalDate to) {
        Map<DocumentId, LocalDate> until = new LinkedHashMap<>();
        jdbc.sql("""
                SELECT document_id, valid_until FROM quote WHERE valid_until BETWEEN :from AND :to
                 ORDER BY valid_until, document_id
                """).param("from", from).param("to", to).query(rs -> {
            until.put(new DocumentId(rs.getLong(1)), rs.getDate(2).toLocalDate());
        });
        return until;
    }

    void answer(DocumentId id, QuoteAnswer a) {
        jdbc.sql("""
                INSERT INTO quote_answer (document_id, accepted, by_hand, name, answered_on, answered_at, address, reason,
                  ticked, seal)
                VALUES (:id, :accepted, :byHand, :name, :on, :at, :address, :reason, :ticked, :seal)
                """)
                .param("id", id)
                .param("accepted", a.accepted())
                .param("byHand", a.byHand())
                .param("name", a.name())
                .param("on", a.on())
                .param("at", a.at())
                .param("address", a.address())
                .param("reason", a.reason())
                .param("ticked", a.ticked().stream().map(String::valueOf).collect(Collectors.joining(" ")))
                .param("seal", a.seal())
                .update();
    }

    Optional<QuoteAnswer> answer(DocumentId id) {
        return jdbc.sql("""
                SELECT accepted, by_hand, name, answered_on, answered_at, address, reason, ticked, seal
                  FROM quote_answer WHERE document_id = :id
                """).param("id", id).query(QuoteRepository::answer).optional();
    }

    private static QuoteAnswer answer(ResultSet rs, int n) throws SQLException {
        return new QuoteAnswer(
                rs.getBoolean("accepted"),
                rs.getBoolean("by_hand"),
                rs.getString("name"),
                rs.getDate("answered_on").toLocalDate(),
                rs.getObject("answered_at", OffsetDateTime.class).toInstant(),
                rs.getString("address"),
                rs.getString("reason"),
                Arrays.stream(rs.getString("ticked").split(" "))
                        .filter(t -> !t.isEmpty())
                        .map(Integer::valueOf)
                        .toList(),
                rs.getString("seal"));
    }

    /** A question that was asked on a quote's page. @param seenToOn null until somebody did */
    record Question(long id, DocumentId documentId, LocalDate askedOn, String text, LocalDate seenToOn) {}

    long ask(DocumentId id, LocalDate on, Instant at, String text) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO quote_question (document_id, asked_on, asked_at, text) VALUES (:id, :on, :at, :text)
                """)
                .param("id", id)
                .param("on", on)
                .param("at", at)
                .param("text", text)
                .update(key, "id");
        return key.getKey().longValue();
    }

    List<Question> questions(DocumentId id) {
        return jdbc.sql("""
                SELECT id, document_id, asked_on, text, seen_to_on FROM quote_question WHERE document_id = :id ORDER BY id
                """).param("id", id).query(QuoteRepository::question).list();
    }

    /** Questions that nobody has seen to, oldest first. */
    List<Question> open(int most) {
        return jdbc.sql("""
                SELECT id, document_id, asked_on, text, seen_to_on FROM quote_question
                 WHERE seen_to_on IS NULL ORDER BY id LIMIT :most
                """)
                .param("most", most)
                .query(QuoteRepository::question)
                .list();
    }

    private static Question question(ResultSet rs, int n) throws SQLException {
        return new Question(
                rs.getLong("id"),
                Ids.document(rs, "document_id"),
                rs.getDate("asked_on").toLocalDate(),
                rs.getString("text"),
                Rows.date(rs, "seen_to_on"));
    }

    /** @return whether nobody had before */
    boolean seeTo(long questionId, LocalDate on) {
        return jdbc.sql("UPDATE quote_question SET seen_to_on = :on WHERE id = :id AND seen_to_on IS NULL")
                        .param("on", on)
                        .param("id", questionId)
                        .update()
                == 1;
    }
}
