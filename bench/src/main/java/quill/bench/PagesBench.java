package quill.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.util.ArrayList;
import java.util.List;

/**
 * The first page of each list: 20,000 rows, of 2,000 clients, against 1,000 of 100. Once as it is looked at again, and once
 * right after something was committed, when nothing is held.
 */
final class PagesBench {
    private static final List<String> LISTS = List.of(
            "/api/invoices", "/api/invoices/list", "/api/payments/list", "/api/clients", "/api/catalogue/items");
    private static final int MANY = 20_000;
    private static final int FEW = 1_000;
    private static final int PER_CLIENT = 10;
    private static final int TIMES = 40;
    private final Path root;

    PagesBench(Path root) {
        this.root = root;
    }

    String run() throws Exception {
        List<Measured> many = measured(MANY);
        List<Measured> few = measured(FEW);
        StringBuilder lines = new StringBuilder();
        for (int i = 0; i < LISTS.size(); i++) {
            lines.append(line(LISTS.get(i), "", many.get(i).again, few.get(i).again));
            lines.append(line(LISTS.get(i), " after a commit", many.get(i).afterCommit, few.get(i).afterCommit));
        }
        return lines.toString();
    }

    private static String line(String list, String when, long many, long few) {
        return String.format(
                "%s, first page%s of %,d: %.1f ms; of %,d: %.1f ms; ratio %.1f (aim: at most 2)%n",
                list, when, MANY, many / 1000.0, FEW, few / 1000.0, (double) many / few);
    }

    /** Medians in microseconds. */
    private record Measured(long again, long afterCommit) {}

    private List<Measured> measured(int rows) throws Exception {
        Path data = Files.createTempDirectory("quill-bench");
        String[] idle = {"--quill.run-every=36000000", "--quill.outbox-every=36000000", "--quill.find-every=36000000"};
        long invoice;
        try (BenchServer server = new BenchServer(root, data, idle)) {
            server.firstRun();
            invoice = server.issueOne();
        }
        try (Connection db = BenchServer.books(data)) {
            RunBench.spread(db, invoice, rows, rows / PER_CLIENT);
            RunBench.update(db, """
                    INSERT INTO movement (kind, request_key, client_id, client_name, invoice_id, number, way, currency,
                      amount_minor, value_on, booked_on, booked_at)
                    SELECT 'RECEIPT', 'bench-' || id, client_id, client_name, id, number, 'TRANSFER', currency, total_minor, issued_on, issued_on,
                           CURRENT_TIMESTAMP FROM document WHERE issued_on IS NOT NULL
                    """);
            RunBench.update(db, """
                    INSERT INTO item (code, description, unit, taxes, asks_serial)
                    SELECT 'B-' || x, 'Item number ' || x, 'h', '[]', FALSE FROM SYSTEM_RANGE(1, %d)
                    """.formatted(rows));
        }
        try (BenchServer server = new BenchServer(root, data, idle)) {
            server.signIn();
            List<Measured> all = new ArrayList<>();
            for (String list : LISTS) {
                all.add(new Measured(
                        server.medianOf(list, TIMES, () -> {}), server.medianOf(list, TIMES, server::commitSomething)));
            }
            return all;
        }
    }
}
