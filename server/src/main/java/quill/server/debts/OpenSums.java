package quill.server.debts;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
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
                  SELECT owed_by, currency, SUM(open_minor) AS open_sum,
                         SUM(open_minor) FILTER (WHERE due_on < :today) AS late_sum,
                         SUM(open_minor) FILTER (WHERE due_on BETWEEN :today AND :soon) AS soon_sum,
                         MIN(due_on) AS next_due_on
                    FROM debt WHERE owed_by > 0
                   GROUP BY owed_by, currency) s
                  JOIN client c ON c.id = s.owed_by
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
                rs.getLong("owed_by"),
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
                SELECT due_on, SUM(open_minor) AS open_sum FROM debt
                 WHERE owed_by > 0 AND currency = :currency
                 GROUP BY due_on ORDER BY due_on
                """).param("currency", currency.getCode()).query(rs -> {
            Money open = Money.ofMinor(currency, rs.getLong("open_sum"));
            days.add(new OpenDebt(0, 0, "", 1, false, rs.getDate("due_on").toLocalDate(), open));
        });
        return days;
    }

    /** The next day after one on which anything falls due. */
    public Optional<LocalDate> nextDueAfter(LocalDate day) {
        return jdbc.sql("""
                SELECT MIN(due_on) AS next FROM debt WHERE owed_by > 0 AND due_on > :day
                """)
                .param("day", day)
                .query((rs, n) -> Optional.ofNullable(Rows.date(rs, "next")))
                .single();
    }

    /** Clients of whom open debts and postings say something else, in any currency, by name. */
    public List<String> disagreeing() {
        Map<Owing, Long> differences = new HashMap<>();
        // Each sum from its own index, and put together here: joined in SQL they take twice as long.
        add(differences, 1, """
                SELECT client_id, currency, SUM(amount_minor) FROM posting WHERE account = 'RECEIVABLE'
                 GROUP BY client_id, currency
                """);
        add(differences, -1, """
                SELECT owed_by, currency, SUM(open_minor) FROM debt WHERE owed_by > 0
                 GROUP BY owed_by, currency
                """);
        Set<Long> clients = differences.entrySet().stream()
                .filter(e -> e.getValue() != 0)
                .map(e -> e.getKey().clientId())
                .collect(Collectors.toSet());
        return clients.isEmpty()
                ? List.of()
                : jdbc.sql("SELECT name FROM client WHERE id IN (:clients) ORDER BY name, id")
                        .param("clients", clients)
                        .query(String.class)
                        .list();
    }

    private record Owing(long clientId, String currency) {}

    private void add(Map<Owing, Long> from, int sign, String sums) {
        jdbc.sql(sums).query(rs -> {
            from.merge(new Owing(rs.getLong(1), rs.getString(2)), sign * rs.getLong(3), Long::sum);
        });
    }
}
