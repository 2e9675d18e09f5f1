package quill.server.debts;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.ledger.OpenDebt;
import quill.server.common.Rows;

/** Sums of what is open over all invoices, however many there are. Table DEBT, read only. */
@Repository
public class OpenSums {
    private final JdbcClient jdbc;

    OpenSums(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * What a client owes in one currency.
     *
     * @param late what fell due before today
     * @param soon what falls due from today to a given day
     * @param nextDueOn the earliest due date of all of it
     */
    public record ClientSum(long clientId, String client, Money open, Money late, Money soon, LocalDate nextDueOn) {}

    /** All clients who owe anything; a client who owes in two currencies is in it twice. */
    public List<ClientSum> byClient(LocalDate today, LocalDate soonUntil) {
        return jdbc.sql("""
                SELECT s.*, c.name FROM (
                  SELECT v.client_id, i.currency, SUM(i.open_minor) AS open_sum,
                         SUM(CASE WHEN i.due_on < :today THEN i.open_minor ELSE 0 END) AS late_sum,
                         SUM(CASE WHEN i.due_on BETWEEN :today AND :soon THEN i.open_minor ELSE 0 END) AS soon_sum,
                         MIN(i.due_on) AS next_due_on
                    FROM invoice v JOIN debt i ON i.invoice_id = v.id
                   WHERE v.bucket = 'open' AND i.open_minor > 0
                   GROUP BY v.client_id, i.currency) s
                  JOIN client c ON c.id = s.client_id
                 ORDER BY c.name, c.id, s.currency
                """)
                .param("today", today)
                .param("soon", soonUntil)
                .query(OpenSums::sum)
                .list();
    }

    private static ClientSum sum(ResultSet rs, int row) throws SQLException {
        CurrencyUnit currency = CurrencyUnit.of(rs.getString("currency"));
        return new ClientSum(
                rs.getLong("client_id"),
                rs.getString("name"),
                Money.ofMinor(currency, rs.getLong("open_sum")),
                Money.ofMinor(currency, rs.getLong("late_sum")),
                Money.ofMinor(currency, rs.getLong("soon_sum")),
                Rows.date(rs, "next_due_on"));
    }

    /** All that is open in a currency, put together by due date: as many debts as there are days. */
    public List<OpenDebt> byDueDate(CurrencyUnit currency) {
        List<OpenDebt> days = new ArrayList<>();
        jdbc.sql("""
                SELECT i.due_on, SUM(i.open_minor) AS open_sum
                  FROM invoice v JOIN debt i ON i.invoice_id = v.id
                 WHERE v.bucket = 'open' AND i.currency = :currency AND i.open_minor > 0
                 GROUP BY i.due_on ORDER BY i.due_on
                """).param("currency", currency.getCode()).query(rs -> {
            Money open = Money.ofMinor(currency, rs.getLong("open_sum"));
            days.add(new OpenDebt(0, 0, "", 1, false, rs.getDate("due_on").toLocalDate(), open));
        });
        return days;
    }

    /** The next day after one on which anything falls due. */
    public Optional<LocalDate> nextDueAfter(LocalDate day) {
        return jdbc.sql("""
                SELECT MIN(i.due_on) AS next FROM invoice v JOIN debt i ON i.invoice_id = v.id
                 WHERE v.bucket = 'open' AND i.open_minor > 0 AND i.due_on > :day
                """)
                .param("day", day)
                .query((rs, n) -> Optional.ofNullable(Rows.date(rs, "next")))
                .single();
    }

    /** Clients of whom open debts and postings say something else, in any currency, by name. */
    public List<String> disagreeing() {
        return jdbc.sql("""
                SELECT DISTINCT c.name FROM (
                  SELECT client_id, currency, SUM(amount_minor) AS minor FROM (
                    SELECT client_id, currency, amount_minor FROM posting WHERE account = 'RECEIVABLE'
                    UNION ALL
                    SELECT v.client_id, i.currency, -i.open_minor
                      FROM invoice v JOIN debt i ON i.invoice_id = v.id
                     WHERE v.bucket = 'open' AND i.open_minor > 0)
                   GROUP BY client_id, currency HAVING SUM(amount_minor) <> 0) d
                  JOIN client c ON c.id = d.client_id ORDER BY c.name
                """).query(String.class).list();
    }
}
