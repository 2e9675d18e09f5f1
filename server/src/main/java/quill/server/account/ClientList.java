package quill.server.account;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.money.Amounts;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.clients.ClientTable;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Csv;
import quill.server.common.OneSnapshot;
import quill.server.debts.OpenSums;
import quill.server.payments.Payments;

/** The list of clients: filtered, ordered, with what each owes. */
@Service
class ClientList {
    private static final Comparator<Owing> BY_NAME = Comparator.comparing(
                    (Owing o) -> o.client().name(), String.CASE_INSENSITIVE_ORDER)
            .thenComparing(o -> o.client().id());
    private static final Comparator<Owing> BY_OWES =
            Comparator.comparing((Owing o) -> o.owes().getAmount()).reversed().thenComparing(BY_NAME);
    private static final Comparator<Owing> LATEST_FIRST =
            Comparator.comparing((Owing o) -> o.late().getAmount()).reversed().thenComparing(BY_OWES);
    private static final Map<String, Comparator<Owing>> SORTS =
            Map.of("late", LATEST_FIRST, "name", BY_NAME, "owes", BY_OWES);

    private final ClientsService clients;
    private final BooksService books;
    private final OpenSums sums;
    private final Payments payments;
    private final BusinessService business;
    private final BusinessClock clock;

    ClientList(
            ClientsService clients,
            BooksService books,
            OpenSums sums,
            Payments payments,
            BusinessService business,
            BusinessClock clock) {
        this.clients = clients;
        this.books = books;
        this.sums = sums;
        this.payments = payments;
        this.business = business;
        this.clock = clock;
    }

    /** What a list shows. @param sort late, name or owes */
    record Shown(String filter, String sort, boolean archived) {}

    /** A client with what it owes in the own currency. @param nextDueOn null where nothing is open */
    record Owing(Client client, Money owes, Money late, LocalDate nextDueOn, SortedMap<String, Money> inAll) {
        /** What it owes in other currencies. */
        List<Money> inOthers() {
            return inAll.values().stream()
                    .filter(m -> !m.isZero() && !m.getCurrencyUnit().equals(owes.getCurrencyUnit()))
                    .toList();
        }
    }

    /** All of a list, in order. @throws RefusedException for an order that there is not */
    @OneSnapshot
    List<Owing> shown(Shown shown) {
        Comparator<Owing> order = SORTS.get(shown.sort());
        if (order == null) {
            throw new RefusedException("sort", shown.sort(), "must be late, name or owes");
        }
        LocalDate today = clock.today();
        CurrencyUnit currency = business.business().currencyUnit();
        Money zero = Money.zero(currency);
        Map<ClientId, SortedMap<String, Money>> balances = books.balancesByClient();
        Map<ClientId, OpenSums.ClientSum> open = sums.byClient(today, today).stream()
                .filter(s -> s.open().getCurrencyUnit().equals(currency))
                .collect(Collectors.toMap(OpenSums.ClientSum::clientId, s -> s));
        return clients.named(shown.filter(), payments.clientsOfReference(shown.filter()), shown.archived()).stream()
                .map(c -> {
                    OpenSums.ClientSum own = open.get(c.id());
                    SortedMap<String, Money> owes = balances.getOrDefault(c.id(), Collections.emptySortedMap());
                    return new Owing(
                            c,
                            owes.getOrDefault(currency.getCode(), zero),
                            own == null ? zero : own.late(),
                            own == null ? null : own.nextDueOn(),
                            owes);
                })
                .sorted(order)
                .toList();
    }

    /** The list as a table: each client as it is read again, and what it owes beside. */
    List<List<String>> table(Shown shown, ClientTable table) {
        List<Owing> all = shown(shown);
        List<List<String>> clientRows =
                table.rows(all.stream().map(Owing::client).toList());
        List<List<String>> rows = new ArrayList<>();
        for (int i = 0; i < clientRows.size(); i++) {
            List<String> row = new ArrayList<>(clientRows.get(i));
            Owing o = i == 0 ? null : all.get(i - 1);
            String code = business.business().currency();
            row.add(o == null ? "Owes " + code : Amounts.plain(o.owes()));
            row.add(o == null ? "Late " + code : Amounts.plain(o.late()));
            row.add(
                    o == null
                            ? "Owes in other currencies"
                            : Csv.text(o.inOthers().stream()
                                    .map(m -> m.getCurrencyUnit().getCode() + " " + Amounts.plain(m))
                                    .collect(Collectors.joining(", "))));
            rows.add(row);
        }
        return rows;
    }
}
