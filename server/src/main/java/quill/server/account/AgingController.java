package quill.server.account;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.ledger.Aging;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Standing;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;
import quill.server.account.AccountController.Band;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Csv;
import quill.server.common.OneSnapshot;
import quill.server.debts.Debts;
import quill.server.debts.OpenSums;

/** Open money of all clients by days past due, as a table and as CSV (RFC 4180). */
@RestController
@RequestMapping("/api")
class AgingController {
    private static final int PAGE = 100;
    private static final Comparator<OpenSums.ClientSum> BY_NAME = Comparator.comparing(
                    OpenSums.ClientSum::client, String.CASE_INSENSITIVE_ORDER)
            .thenComparing(OpenSums.ClientSum::clientId);
    private final Debts debts;
    private final OpenSums sums;
    private final ClientsService clients;
    private final BusinessService business;
    private final BusinessClock clock;

    AgingController(Debts debts, OpenSums sums, ClientsService clients, BusinessService business, BusinessClock clock) {
        this.debts = debts;
        this.sums = sums;
        this.clients = clients;
        this.business = business;
        this.clock = clock;
    }

    record AgingRow(ClientId clientId, String client, List<Band> bands, Amount total) {}

    /**
     * What is open in one currency; sums of two are never added.
     *
     * @param rows a page of them, by name
     * @param more what to ask for the next page with, or null
     */
    record AgingTable(
            String currency,
            List<AgingRow> rows,
            List<Band> totals,
            Amount total,
            int count,
            @Schema(nullable = true) ClientId more) {}

    /** @param tables the business's own currency first, then each other in which anything is open */
    record AgingView(LocalDate on, List<AgingTable> tables) {}

    /** The first page of each currency. */
    @GetMapping("/aging")
    @OneSnapshot
    AgingView aging() {
        return view(PAGE);
    }

    /** A further page of a currency. @param after id of the last client of the page before */
    @GetMapping("/aging/page")
    @OneSnapshot
    AgingTable page(@RequestParam String currency, @RequestParam ClientId after) {
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit unit = TypedNumber.currency("currency", currency, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        LocalDate today = clock.today();
        List<OpenSums.Owed> all = sums.all();
        return table(unit, all, sums.byClient(all, today, today), clients.client(after), PAGE);
    }

    private AgingView view(int most) {
        LocalDate today = clock.today();
        List<OpenSums.Owed> all = sums.all();
        Set<CurrencyUnit> currencies =
                new LinkedHashSet<>(List.of(business.business().currencyUnit()));
        all.stream().map(OpenSums.Owed::currency).distinct().sorted().forEach(currencies::add);
        List<OpenSums.ClientSum> byClient = sums.byClient(all, today, today);
        return new AgingView(
                today,
                currencies.stream()
                        .map(c -> table(c, all, byClient, null, most))
                        .toList());
    }

    private AgingTable table(
            CurrencyUnit currency, List<OpenSums.Owed> all, List<OpenSums.ClientSum> byClient, Client after, int most) {
        LocalDate today = clock.today();
        List<OpenSums.ClientSum> owing = byClient.stream()
                .filter(s -> s.open().getCurrencyUnit().equals(currency))
                .sorted(BY_NAME)
                .toList();
        List<OpenSums.ClientSum> rest = after == null
                ? owing
                : owing.stream()
                        .filter(s -> BY_NAME.compare(
                                        s, new OpenSums.ClientSum(after.id(), after.name(), s.open(), null, null, null))
                                > 0)
                        .toList();
        List<OpenSums.ClientSum> page = rest.stream().limit(most).toList();
        Map<ClientId, List<OpenDebt>> open = debts.openByClient(
                page.stream().map(OpenSums.ClientSum::clientId).toList(), currency);
        List<AgingRow> rows = page.stream()
                .map(s -> {
                    Aging aging = Aging.of(currency, open.getOrDefault(s.clientId(), List.of()), today);
                    return new AgingRow(s.clientId(), s.client(), Aged.bands(aging), Amount.of(aging.total()));
                })
                .toList();
        Aging together = Aging.of(currency, OpenSums.byDueDate(all, currency), today);
        return new AgingTable(
                currency.getCode(),
                rows,
                Aged.bands(together),
                Amount.of(together.total()),
                owing.size(),
                page.size() < rest.size() ? page.get(page.size() - 1).clientId() : null);
    }

    /** What each client owes, by band: a row for each client and currency. */
    @GetMapping(path = "/aging.csv", produces = "text/csv")
    @OneSnapshot
    ResponseEntity<byte[]> csv() {
        AgingView view = view(Integer.MAX_VALUE);
        List<List<String>> rows = new ArrayList<>();
        List<String> head = new ArrayList<>(List.of("client"));
        view.tables().get(0).totals().forEach(b -> head.add(b.words()));
        head.addAll(List.of("total", "currency"));
        rows.add(head);
        for (AgingTable table : view.tables()) {
            for (AgingRow row : table.rows()) {
                List<String> line = new ArrayList<>(List.of(Csv.text(row.client())));
                row.bands().forEach(b -> line.add(b.amount().amount()));
                line.addAll(List.of(row.total().amount(), row.total().currency()));
                rows.add(line);
            }
        }
        return Csv.file("aging-" + view.on() + ".csv", rows);
    }

    /** Everything that is open: a row for each installment and each late fee, with its due date and days late. */
    @GetMapping(path = "/aging/debts.csv", produces = "text/csv")
    @OneSnapshot
    ResponseEntity<byte[]> debtsCsv() {
        LocalDate today = clock.today();
        List<OpenSums.Owed> all = sums.all();
        List<OpenSums.ClientSum> owing = new ArrayList<>(sums.byClient(all, today, today));
        owing.sort(BY_NAME);
        Map<CurrencyUnit, Map<ClientId, List<OpenDebt>>> open = owing.stream()
                .collect(Collectors.groupingBy(
                        c -> c.open().getCurrencyUnit(),
                        Collectors.mapping(OpenSums.ClientSum::clientId, Collectors.toList())))
                .entrySet()
                .stream()
                .collect(Collectors.toMap(Map.Entry::getKey, e -> debts.openByClient(e.getValue(), e.getKey())));
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of("client", "invoice", "what", "due", "days late", "open", "currency"));
        for (OpenSums.ClientSum client : owing) {
            CurrencyUnit currency = client.open().getCurrencyUnit();
            open.get(currency).get(client.clientId()).stream()
                    .sorted(debts.order())
                    .forEach(d -> rows.add(List.of(
                            Csv.text(client.client()),
                            d.number(),
                            d.fee() ? "late fee" : "installment " + d.position(),
                            d.dueOn() == null ? "" : d.dueOn().toString(),
                            String.valueOf(Math.max(0, Standing.daysLate(d.dueOn(), today))),
                            Amounts.plain(d.open()),
                            currency.getCode())));
        }
        return Csv.file("open-" + today + ".csv", rows);
    }
}
