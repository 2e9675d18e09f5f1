package quill.server.invoices;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;

/** Tables CREDIT_NOTE and CREDIT_NOTE_TEXT. Holds no rules; the caller opens the transaction. */
@Repository
class CreditNoteRepository {
    private static final String SELECT = """
            SELECT id, number, invoice_id, issued_on, reason, currency, total_minor, whole, fixed, taken
              FROM credit_note JOIN credit_note_text ON credit_note_id = id
            """;
    private final JdbcClient jdbc;

    CreditNoteRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(CreditNote n) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO credit_note (number, invoice_id, issued_on, reason, currency, total_minor, whole)
                VALUES (:number, :invoice, :on, :reason, :currency, :total, :whole)
                """)
                .param("number", n.number())
                .param("invoice", n.invoiceId())
                .param("on", n.issuedOn())
                .param("reason", n.reason())
                .param("currency", n.total().getCurrencyUnit().getCode())
                .param("total", n.total().getAmountMinorLong())
                .param("whole", n.whole())
                .update(key, "id");
        long id = key.getKey().longValue();
        jdbc.sql("INSERT INTO credit_note_text (credit_note_id, fixed, taken) VALUES (:id, :fixed, :taken)")
                .param("id", id)
                .param("fixed", n.fixed())
                .param("taken", n.taken())
                .update();
        return id;
    }

    Optional<CreditNote> find(long id) {
        return jdbc.sql(SELECT + " WHERE id = :id")
                .param("id", id)
                .query(CreditNoteRepository::note)
                .optional();
    }

    /** An invoice's credit notes, oldest first. */
    List<CreditNote> of(long invoiceId) {
        return jdbc.sql(SELECT + " WHERE invoice_id = :invoice ORDER BY id")
                .param("invoice", invoiceId)
                .query(CreditNoteRepository::note)
                .list();
    }

    private static CreditNote note(ResultSet rs, int row) throws SQLException {
        return new CreditNote(
                rs.getLong("id"),
                rs.getString("number"),
                rs.getLong("invoice_id"),
                rs.getDate("issued_on").toLocalDate(),
                rs.getString("reason"),
                Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("total_minor")),
                rs.getBoolean("whole"),
                rs.getString("fixed"),
                rs.getString("taken"));
    }
}
