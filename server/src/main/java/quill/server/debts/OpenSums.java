package quill.server.debts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Account;
import quill.core.ledger.Lot;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Standing;
import quill.server.books.BooksService;
import quill.server.clients.ClientsService;
import quill.server.common.Rows;

/** Sums of what is open over all invoices, however many there are. Tables DEBT,
 * SETTLEMENT and CREDIT, read only, with the clients' names. */
@Repository
public class OpenSums {
    private final JdbcClient jdbc;
    private final ClientsService clients;
    private final BooksService books;

    OpenSums(JdbcClient jdbc, ClientsService clients, BooksService books) {
        this.jdbc = jdbc;
        this.clients = clients;
        this.books = books;
    }

    /**
     * What a client owes in one currency.
     *
     * @param late what fell due before today
     * @param soon what falls due from today to a given day
     * @param nextDueOn the earliest due date of all of it; null where none has a date yet
     */
    public record ClientSum(
            ClientId clientId, String client, Money open, Money late, Money soon, LocalDate nextDueOn) {}

    /** What a client owes by one day, in one currency. @param dueOn null for what has no date yet */
    public record Owed(ClientId clientId, CurrencyUnit currency, LocalDate dueOn, long minor) {}

    /** All that is open. Read as it stands in its index and added up here: H2 takes three times as long to group it. */
    public List<Owed> all() {
        List<Owed> all = new ArrayList<>();
        jdbc.sql("SELECT owed_by, currency, due_on, open_minor FROM debt WHERE owed_by > 0")
                .query(rs -> {
                    all.add(new Owed(
                            new ClientId(rs.getLong(1)),
                            CurrencyUnit.of(rs.getString(2)),
                            rs.getObject(3, LocalDate.class),
                            rs.getLong(4)));
                });
        return all;
    }

    /** All clients who owe anything, by name; a client who owes in two currencies is in it twice. */
    public List<ClientSum> byClient(LocalDate today, LocalDate soonUntil) {
        return byClient(all(), today, soonUntil);
    }

    /** The same of what was read before. */
    public List<ClientSum> byClient(List<Owed> all, LocalDate today, LocalDate soonUntil) {
        Map<ClientId, String> names = clients.names();
        Map<Owing, Sums> byClient = new HashMap<>();
        for (Owed o : all) {
            byClient.computeIfAbsent(new Owing(o.clientId(), o.currency().getCode()), k -> new Sums())
                    .add(o, today, soonUntil);
        }
        return byClient.entrySet().stream()
                .map(e -> e.getValue().of(e.getKey(), names.get(e.getKey().clientId())))
                .sorted(Comparator.comparing(ClientSum::client)
                        .thenComparing(ClientSum::clientId)
                        .thenComparing(s -> s.open().getCurrencyUnit()))
                .toList();
    }

    private static final class Sums {
        private long open;
        private long late;
        private long soon;
        private LocalDate nextDueOn;

        private void add(Owed o, LocalDate today, LocalDate soonUntil) {
            open = Math.addExact(open, o.minor());
            late = Standing.isLate(o.dueOn(), today) ? Math.addExact(late, o.minor()) : late;
            boolean isSoon = Standing.isDue(o.dueOn(), soonUntil) && !Standing.isLate(o.dueOn(), today);
            soon = isSoon ? Math.addExact(soon, o.minor()) : soon;
            nextDueOn = nextDueOn == null || Standing.isLate(o.dueOn(), nextDueOn) ? o.dueOn() : nextDueOn;
        }

        private ClientSum of(Owing owing, String name) {
            CurrencyUnit currency = CurrencyUnit.of(owing.currency());
            return new ClientSum(
                    owing.clientId(),
                    name,
                    Money.ofMinor(currency, open),
                    Money.ofMinor(currency, late),
                    Money.ofMinor(currency, soon),
                    nextDueOn);
        }
    }

    /** What is open in a currency, put together by due date: as many debts as there are days. */
    public static List<OpenDebt> byDueDate(List<Owed> all, CurrencyUnit currency) {
        // What has no date yet stands at the end of time: it is not due.
        Map<LocalDate, Long> days = new TreeMap<>();
        all.stream()
                .filter(o -> o.currency().equals(currency))
                .forEach(o -> days.merge(o.dueOn() == null ? LocalDate.MAX : o.dueOn(), o.minor(), Math::addExact));
        return days.entrySet().stream()
                .map(d -> new OpenDebt(
                        0,
                        DocumentId.NEW,
                        "",
                        1,
                        false,
                        LocalDate.MAX.equals(d.getKey()) ? null : d.getKey(),
                        d.getKey(),
                        Money.ofMinor(currency, d.getValue())))
                .toList();
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

    /**
     * Clients of whom debts and postings, or credit and postings, say something else, in any currency, by name; and those
     * of whom a debt or a lot is not what its own rows come to.
     */
    public List<String> disagreeing() {
        Map<Stands, Long> differences = new HashMap<>();
        books.ofClients()
                .forEach(p -> differences.merge(
                        new Stands(p.clientId(), p.account(), p.currency()), p.minor(), Math::addExact));
        all().forEach(o -> differences.merge(
                new Stands(o.clientId(), Account.RECEIVABLE, o.currency().getCode()), -o.minor(), Math::addExact));
        jdbc.sql("SELECT client_id, kind, currency, left_minor FROM credit WHERE left_minor > 0")
                .query(rs -> {
                    Account account = Lot.Kind.valueOf(rs.getString(2)) == Lot.Kind.CREDIT
                            ? Account.CLIENT_CREDIT
                            : Account.CLIENT_DEPOSITS;
                    differences.merge(
                            new Stands(new ClientId(rs.getLong(1)), account, rs.getString(3)),
                            rs.getLong(4),
                            Math::addExact);
                });
        Set<ClientId> wrong = differences.entrySet().stream()
                .filter(e -> e.getValue() != 0)
                .map(e -> e.getKey().clientId())
                .collect(Collectors.toSet());
        wrong.addAll(notTheirRows());
        Map<ClientId, String> names = clients.names();
        return wrong.stream()
                .sorted(Comparator.comparing((ClientId id) -> names.get(id)).thenComparing(id -> id))
                .map(names::get)
                .toList();
    }

    /** Clients of whom a debt's or a lot's sums are not what its rows come to. */
    private List<ClientId> notTheirRows() {
        return jdbc.sql("""
                SELECT d.client_id FROM debt d
                  JOIN (SELECT debt_id, SUM(amount_minor) AS minor FROM settlement GROUP BY debt_id) s ON s.debt_id = d.id
                 WHERE d.replaced_on IS NULL AND d.open_minor <> d.amount_minor - s.minor
                UNION
                SELECT c.client_id FROM credit c
                  LEFT JOIN (SELECT credit_id, SUM(amount_minor) AS minor FROM settlement
                              WHERE credit_id IS NOT NULL GROUP BY credit_id) s ON s.credit_id = c.id
                  LEFT JOIN (SELECT credit_id, SUM(amount_minor) AS minor FROM credit_draw GROUP BY credit_id) d
                    ON d.credit_id = c.id
                  LEFT JOIN (SELECT from_id, SUM(amount_minor) AS minor FROM credit
                              WHERE from_id IS NOT NULL GROUP BY from_id) f ON f.from_id = c.id
                 WHERE c.left_minor <> c.amount_minor - COALESCE(s.minor, 0) - COALESCE(d.minor, 0) - COALESCE(f.minor, 0)
                """).query((rs, n) -> new ClientId(rs.getLong(1))).list();
    }

    private record Stands(ClientId clientId, Account account, String currency) {}

    private record Owing(ClientId clientId, String currency) {}
}
