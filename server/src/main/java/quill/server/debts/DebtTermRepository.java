package quill.server.debts;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.DocumentId;
import quill.core.ledger.OpenDebt;
import quill.server.common.Ids;
import quill.server.common.Rows;

/** Table DEBT_TERM, and the columns of DEBT that follow from it. Holds no rules. */
@Repository
class DebtTermRepository {
    private final JdbcClient jdbc;

    DebtTermRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A debt has another amount and day from now on. */
    void agree(long debtId, Money amount, LocalDate dueOn, DebtRepository.Awaited awaited) {
        jdbc.sql("""
                UPDATE debt SET amount_minor = :amount, due_on = :due, order_on = :orderOn, milestone_id = :milestone,
                       milestone_days = :days
                 WHERE id = :debt
                """)
                .param("amount", amount)
                .param("due", dueOn)
                .param("orderOn", OpenDebt.orderOf(dueOn))
                .param("milestone", awaited == null ? null : awaited.id())
                .param("days", awaited == null ? null : awaited.days())
                .param("debt", debtId)
                .update();
    }

    /** It asks for no more than was done on it. */
    void cut(long debtId, Money amount, LocalDate on) {
        jdbc.sql("UPDATE debt SET amount_minor = :amount, settled_on = :on WHERE id = :debt")
                .param("amount", amount)
                .param("on", on)
                .param("debt", debtId)
                .update();
    }

    /** It asks for nothing any more. */
    void replace(long debtId, LocalDate on) {
        jdbc.sql("UPDATE debt SET replaced_on = :on WHERE id = :debt")
                .param("on", on)
                .param("debt", debtId)
                .update();
    }

    /** It is due on another day. */
    void date(long debtId, LocalDate dueOn) {
        jdbc.sql("UPDATE debt SET due_on = :due, order_on = :orderOn WHERE id = :debt")
                .param("due", dueOn)
                .param("orderOn", OpenDebt.orderOf(dueOn))
                .param("debt", debtId)
                .update();
    }

    void note(long debtId, LocalDate from, LocalDate dueOn, Money amount, String why) {
        jdbc.sql("""
                INSERT INTO debt_term (debt_id, from_on, due_on, amount_minor, why)
                VALUES (:debt, :from, :due, :amount, :why)
                """)
                .param("debt", debtId)
                .param("from", from)
                .param("due", dueOn)
                .param("amount", amount)
                .param("why", why)
                .update();
    }

    /** The same with the amount that it has. */
    void noteDate(long debtId, LocalDate from, LocalDate dueOn, String why) {
        jdbc.sql("""
                INSERT INTO debt_term (debt_id, from_on, due_on, amount_minor, why)
                SELECT id, :from, :due, amount_minor, :why FROM debt WHERE id = :debt
                """)
                .param("debt", debtId)
                .param("from", from)
                .param("due", dueOn)
                .param("why", why)
                .update();
    }

    /** The place of one more installment, after all others and before fees. */
    int nextPlace(DocumentId documentId) {
        return jdbc.sql("SELECT COALESCE(MAX(place), 0) + 1 FROM debt WHERE document_id = :document AND place < 1000")
                .param("document", documentId)
                .query(Integer.class)
                .single();
    }

    List<AgreedTerms.Earlier> earlier(DocumentId documentId) {
        return jdbc
                .sql("""
                SELECT d.place, d.currency, t.amount_minor, t.due_on, t.from_on,
                       COALESCE(LEAD(t.from_on) OVER (PARTITION BY t.debt_id ORDER BY t.id), d.replaced_on) AS until_on
                  FROM debt d JOIN debt_term t ON t.debt_id = d.id
                 WHERE d.document_id = :document AND d.on_debt_id IS NULL
                 ORDER BY d.place, t.id
                """)
                .param("document", documentId)
                .query((rs, n) -> new AgreedTerms.Earlier(
                        rs.getInt("place"),
                        Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("amount_minor")),
                        Rows.date(rs, "due_on"),
                        rs.getDate("from_on").toLocalDate(),
                        Rows.date(rs, "until_on")))
                .list()
                .stream()
                .filter(e -> e.until() != null)
                .toList();
    }

    Map<Long, LocalDate> agreedAnewOn(Collection<Long> debtIds) {
        Map<Long, LocalDate> days = new HashMap<>();
        jdbc.sql("""
                SELECT t.debt_id, MAX(t.from_on) FROM UNNEST(CAST(:debts AS BIGINT ARRAY)) AS given (one)
                  JOIN debt_term t ON t.debt_id = given.one
                 GROUP BY t.debt_id HAVING COUNT(*) > 1
                """).param("debts", Ids.array(debtIds)).query(rs -> {
            days.put(rs.getLong(1), rs.getDate(2).toLocalDate());
        });
        return days;
    }
}
