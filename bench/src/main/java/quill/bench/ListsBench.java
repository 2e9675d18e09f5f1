package quill.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;

/** Today, Books, and the first page of each list: many clients who owe against few. */
final class ListsBench {
    private static final List<String> PLACES =
            List.of("/api/today", "/api/books", "/api/invoices", "/api/clients", "/api/aging");
    private static final int TIMES = 30;
    private static final int KILO = 1024;
    private final Path root;

    ListsBench(Path root) {
        this.root = root;
    }

    private record Measured(long micros, int bytes) {}

    String run() throws Exception {
        List<Measured> many = measured(2_000);
        List<Measured> few = measured(200);
        StringBuilder lines = new StringBuilder();
        for (int i = 0; i < PLACES.size(); i++) {
            Measured m = many.get(i);
            Measured f = few.get(i);
            lines.append(String.format(
                    "%s of 2,000 clients with 8,000 open: %.1f ms, %d KB; of 200 with 800: %.1f ms; ratio %.1f"
                            + " (aim: at most 150 ms, 100 KB, 3)%n",
                    PLACES.get(i),
                    m.micros() / 1000.0,
                    m.bytes() / KILO,
                    f.micros() / 1000.0,
                    (double) m.micros() / f.micros()));
        }
        return lines.toString();
    }

    private List<Measured> measured(int clients) throws Exception {
        Path data = Files.createTempDirectory("quill-bench");
        String[] idle = {"--quill.run-every=36000000", "--quill.outbox-every=36000000"};
        long invoice;
        try (BenchServer server = new BenchServer(root, data, idle)) {
            server.firstRun();
            server.put("/api/reminder-plan", """
                    {"plan":{"steps":[{"days":"0","tone":"FRIENDLY"},{"days":"14","tone":"FIRM"}],"on":true,"hour":"00:00",
                     "offRestDays":false,"holidays":""},"version":0}
                    """);
            invoice = server.issueOne();
            server.post("/api/runs", "{}");
        }
        try (Connection db = BenchServer.books(data)) {
            RunBench.spread(db, invoice, 4 * clients, clients);
            book(db, invoice);
        }
        try (BenchServer server = new BenchServer(root, data, idle)) {
            server.signIn();
            server.post("/api/runs", "{}");
            List<Measured> all = new java.util.ArrayList<>();
            for (String place : PLACES) {
                all.add(new Measured(
                        server.medianOf(place, TIMES), server.get(place).length()));
            }
            if (!server.get("/api/books").contains("\"disagreeing\":[]")) {
                throw new IllegalStateException("the copied books do not agree");
            }
            return all;
        }
    }

    /** Each copy is booked as the first was. */
    private static void book(Connection db, long invoice) throws SQLException {
        RunBench.update(db, """
                INSERT INTO journal_entry (event, booked_on, booked_at, text, client_id, invoice_id, who)
                SELECT e.event, e.booked_on, e.booked_at, e.text, v.client_id, v.id, e.who
                  FROM journal_entry e, document v WHERE e.invoice_id = %1$d AND v.id <> %1$d
                """.formatted(invoice));
        RunBench.update(db, """
                INSERT INTO posting (entry_id, account, detail, client_id, invoice_id, currency, amount_minor, own_minor)
                SELECT n.id, p.account, p.detail, CASE WHEN p.client_id IS NOT NULL THEN n.client_id END,
                  CASE WHEN p.invoice_id IS NOT NULL THEN n.invoice_id END, p.currency, p.amount_minor, p.own_minor
                  FROM posting p JOIN journal_entry o ON o.id = p.entry_id, journal_entry n
                 WHERE o.invoice_id = %1$d AND n.invoice_id <> %1$d
                """.formatted(invoice));
    }
}
