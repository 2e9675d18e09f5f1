package quill.server.debts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.OpenDebt;
import quill.server.books.BooksService;
import quill.server.clients.ClientsService;
import quill.server.common.Rows;

/** Sums of what is open over all invoices, however many there are. Table DEBT, read only, with the clients' names. */
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
     * @param nextDueOn the earliest due date of all of it
     */
    public record ClientSum(
            ClientId clientId, String client, Money open, Money late, Money soon, LocalDate nextDueOn) {}

    /** What a client owes by one day, in one currency. */
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
        private LocalDate nextDueOn = LocalDate.MAX;

        private void add(Owed o, LocalDate today, LocalDate soonUntil) {
            open = Math.addExact(open, o.minor());
            late = o.dueOn().isBefore(today) ? Math.addExact(late, o.minor()) : late;
            boolean isSoon = !o.dueOn().isBefore(today) && !o.dueOn().isAfter(soonUntil);
            soon = isSoon ? Math.addExact(soon, o.minor()) : soon;
            nextDueOn = o.dueOn().isBefore(nextDueOn) ? o.dueOn() : nextDueOn;
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
        Map<LocalDate, Long> days = new TreeMap<>();
        all.stream()
                .filter(o -> o.currency().equals(currency))
                .forEach(o -> days.merge(o.dueOn(), o.minor(), Math::addExact));
        return days.entrySet().stream()
                .map(d -> new OpenDebt(
                        0, DocumentId.NEW, "", 1, false, d.getKey(), Money.ofMinor(currency, d.getValue())))
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

    /** Clients of whom open debts and postings say something else, in any currency, by name. */
    public List<String> disagreeing() {
        Map<Owing, Long> differences = new HashMap<>();
        books.receivables()
                .forEach(r -> differences.merge(new Owing(r.clientId(), r.currency()), r.minor(), Math::addExact));
        all().forEach(o ->
                differences.merge(new Owing(o.clientId(), o.currency().getCode()), -o.minor(), Math::addExact));
        Map<ClientId, String> names = clients.names();
        return differences.entrySet().stream()
                .filter(e -> e.getValue() != 0)
                .map(e -> e.getKey().clientId())
                .distinct()
                .sorted(Comparator.comparing((ClientId id) -> names.get(id)).thenComparing(id -> id))
                .map(names::get)
                .toList();
    }

    private record Owing(ClientId clientId, String currency) {}
}
