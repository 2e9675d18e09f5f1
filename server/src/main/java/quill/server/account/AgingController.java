package quill.server.account;

import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.joda.money.CurrencyUnit;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.ledger.Aging;
import quill.core.ledger.OpenDebt;
import quill.server.account.AccountController.Band;
import quill.server.books.BooksService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.OneSnapshot;
import quill.server.debts.Debts;

/** Open money of all clients by days past due, as a table and as CSV (RFC 4180). */
@RestController
@RequestMapping("/api")
class AgingController {
    private final Debts debts;
    private final ClientsService clients;
    private final BooksService books;
    private final BusinessClock clock;

    AgingController(Debts debts, ClientsService clients, BooksService books, BusinessClock clock) {
        this.debts = debts;
        this.clients = clients;
        this.books = books;
        this.clock = clock;
    }

    record AgingRow(long clientId, String client, List<Band> bands, Amount total) {}

    /** What is open in one currency; sums of two are never added. */
    record AgingTable(String currency, List<AgingRow> rows, List<Band> totals, Amount total) {}

    /** @param tables the business's own currency first, then each other in which anything is open */
    record AgingView(LocalDate on, List<AgingTable> tables) {}

    @GetMapping("/aging")
    @OneSnapshot
    AgingView aging() {
        LocalDate today = clock.today();
        List<CurrencyUnit> currencies = books.currencies();
        return new AgingView(
                today,
                currencies.stream()
                        .map(c -> table(c, today))
                        .filter(t -> t.currency().equals(currencies.get(0).getCode())
                                || !t.rows().isEmpty())
                        .toList());
    }

    private AgingTable table(CurrencyUnit currency, LocalDate today) {
        Map<Long, List<OpenDebt>> open = debts.openByClient(currency);
        Map<Long, Client> byId = clients.some(open.keySet());
        List<AgingRow> rows = new ArrayList<>();
        open.forEach((id, own) -> {
            Aging aging = Aging.of(currency, own, today);
            rows.add(new AgingRow(id, byId.get(id).name(), Aged.bands(aging), Amount.of(aging.total())));
        });
        rows.sort(Comparator.comparing(AgingRow::client, String.CASE_INSENSITIVE_ORDER));
        Aging all =
                Aging.of(currency, open.values().stream().flatMap(List::stream).toList(), today);
        return new AgingTable(currency.getCode(), rows, Aged.bands(all), Amount.of(all.total()));
    }

    @GetMapping(path = "/aging.csv", produces = "text/csv")
    @OneSnapshot
    ResponseEntity<byte[]> csv() {
        AgingView view = aging();
        StringWriter out = new StringWriter();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            List<String> head = new ArrayList<>(List.of("client"));
            view.tables().get(0).totals().forEach(b -> head.add(b.words()));
            head.addAll(List.of("total", "currency"));
            csv.printRecord(head);
            for (AgingTable table : view.tables()) {
                for (AgingRow row : table.rows()) {
                    csv.printRecord(line(row.client(), row.bands(), row.total()));
                }
                csv.printRecord(line("all clients", table.totals(), table.total()));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("text/csv;charset=UTF-8"))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename("aging-" + view.on() + ".csv")
                                .build()
                                .toString())
                .body(out.toString().getBytes(StandardCharsets.UTF_8));
    }

    private static List<String> line(String name, List<Band> bands, Amount total) {
        // A name that begins like a formula stays a name in a spreadsheet.
        List<String> line = new ArrayList<>(List.of(name.matches("[=+@-].*") ? "'" + name : name));
        bands.forEach(b -> line.add(b.amount().amount()));
        line.addAll(List.of(total.amount(), total.currency()));
        return line;
    }
}
