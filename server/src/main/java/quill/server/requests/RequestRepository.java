package quill.server.requests;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.jdbc.core.RowMapper;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.DocumentId;
import quill.server.common.Ids;
import quill.server.common.Rows;

/** Table REQUEST. Holds no rules; the caller opens the transaction. */
@Repository
class RequestRepository {
    private static final String SELECT =
            "SELECT id, document_id, currency, amount_minor, open_minor, asked_on, words, withdrawn_on FROM request ";
    private static final RowMapper<Row> ROW = (rs, n) -> {
        CurrencyUnit currency = CurrencyUnit.of(rs.getString("currency"));
        long open = rs.getLong("open_minor");
        Money then = rs.wasNull() ? null : Money.ofMinor(currency, open);
        return new Row(
                rs.getLong("id"),
                Ids.document(rs, "document_id"),
                Money.ofMinor(currency, rs.getLong("amount_minor")),
                then,
                rs.getDate("asked_on").toLocalDate(),
                rs.getString("words"),
                Rows.date(rs, "withdrawn_on"));
    };

    private final JdbcClient jdbc;

    RequestRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @param open what was open on an invoice then; null for a quote */
    record Row(
            long id,
            DocumentId documentId,
            Money amount,
            Money open,
            LocalDate askedOn,
            String words,
            LocalDate withdrawnOn) {}

    long insert(
            String requestKey, DocumentId document, Money amount, Money open, String words, LocalDate on, Instant at) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO request (request_key, document_id, currency, amount_minor, open_minor, asked_on, asked_at, words)
                VALUES (:key, :document, :currency, :amount, :open, :on, :at, :words)
                """)
                .param("key", requestKey)
                .param("document", document)
                .param("currency", amount.getCurrencyUnit().getCode())
                .param("amount", amount)
                .param("open", open)
                .param("on", on)
                .param("at", at)
                .param("words", words)
                .update(key, "id");
        return key.getKey().longValue();
    }

    /** Oldest first. */
    List<Row> of(DocumentId document) {
        return jdbc.sql(SELECT + "WHERE document_id = :document ORDER BY id")
                .param("document", document)
                .query(ROW)
                .list();
    }

    Optional<Row> byKey(String requestKey) {
        return jdbc.sql(SELECT + "WHERE request_key = :key")
                .param("key", requestKey)
                .query(ROW)
                .optional();
    }

    Optional<Row> find(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id").param("id", id).query(ROW).optional();
    }

    /** Those on quotes, which have no open amount of their own, that nobody withdrew; the latest first. */
    List<Row> standingOnQuotes(int most) {
        return jdbc.sql(SELECT + "WHERE withdrawn_on IS NULL AND open_minor IS NULL ORDER BY id DESC LIMIT :most")
                .param("most", most)
                .query(ROW)
                .list();
    }

    /** @return whether nobody had before */
    boolean withdraw(long id, LocalDate on) {
        return jdbc.sql("UPDATE request SET withdrawn_on = :on WHERE id = :id AND withdrawn_on IS NULL")
                        .param("on", on)
                        .param("id", id)
                        .update()
                == 1;
    }
}
