package quill.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.time.ZoneOffset;

/** The daily run with a thousand acts due among many open invoices, and Today with many settled ones. */
final class RunBench {
    private static final int ACTS = 1_000;
    private static final String IDLE = "--quill.run-every=36000000";
    private static final String NO_MAIL = "--quill.outbox-every=36000000";
    private final Path root;

    RunBench(Path root) {
        this.root = root;
    }

    String run() throws Exception {
        double few = actsPerSecond(10_000);
        double many = actsPerSecond(100_000);
        return String.format(
                "daily run, 1,000 acts among 10,000 open invoices: %.0f acts a second; among 100,000: %.0f;"
                        + " ratio %.2f (aim: at most 1.3)%n",
                few, many, few / many);
    }

    String today() throws Exception {
        long large = today(100_000);
        long small = today(1_000);
        return String.format(
                "Today with 100,000 invoices %d us, with 1,000 %d us, 300 of them open: ratio %.2f (aim: at most 2)%n",
                large, small, (double) large / small);
    }

    /** Half of the acts are letters for what falls due today, half are fees for what fell due eight days ago. */
    private double actsPerSecond(int open) throws Exception {
        Path data = Files.createTempDirectory("quill-bench");
        long invoice;
        try (BenchServer server = new BenchServer(root, data, IDLE, NO_MAIL)) {
            server.firstRun();
            server.put("/api/late-fees", """
                    {"policy":{"kind":"percent","amount":"1%","grace":"7","repeat":"once","every":"","cap":"","smallest":"",
                     "deposits":false},"ceiling":"10","review":false,"version":0}
                    """);
            server.put("/api/reminder-plan", """
                    {"plan":{"steps":[{"days":"0","tone":"FRIENDLY"}],"on":true,"hour":"00:00","offRestDays":false,
                     "holidays":""},"version":0}
                    """);
            invoice = server.issueOne();
            server.post("/api/runs", "{}");
        }
        try (Connection db = BenchServer.books(data)) {
            spread(db, invoice, open, open / 5);
        }
        try (BenchServer server = new BenchServer(root, data, IDLE, NO_MAIL)) {
            server.signIn();
            long before = System.nanoTime();
            String summary = server.post("/api/runs", "{}");
            double seconds = (System.nanoTime() - before) / 1e9;
            if (!summary.contains("\"fee\":" + ACTS / 2) || !summary.contains("\"reminder\":" + ACTS / 2)) {
                throw new IllegalStateException("the run did other than was due: " + summary);
            }
            return ACTS / seconds;
        }
    }

    /** As many invoices to each client, due in two months, but for one each of the first thousand clients. */
    static void spread(Connection db, long invoice, int open, int clients) throws SQLException {
        LocalDate today = LocalDate.now(ZoneOffset.UTC);
        update(db, "UPDATE document SET issued_on = ? WHERE id = " + invoice, today.minusDays(40));
        update(db, """
                INSERT INTO client (name, email, address)
                SELECT name || ' ' || n, n || email, address FROM client, (SELECT x AS n FROM SYSTEM_RANGE(1, %d))
                 WHERE id = 1
                """.formatted(clients));
        update(db, """
                INSERT INTO document (kind, state, client_id, client_name, number, series, seq, subject, currency, total_minor,
                  open_minor,
                  next_due_on, issued_on, issued_version, version, made_at)
                SELECT kind, 'open', 2 + MOD(n, %1$d), client_name, number || '-' || n, series, n, subject, currency, total_minor,
                  total_minor, CASE WHEN n < 500 THEN ? WHEN n < 1000 THEN ? ELSE ? END, issued_on,
                  issued_version, version, made_at
                  FROM document, (SELECT x - 1 AS n FROM SYSTEM_RANGE(1, %2$d)) WHERE id = %3$d
                """.formatted(clients, open, invoice), today, today.minusDays(8), today.plusDays(60));
        SystemBench.copyTextsAndLinks(db, invoice);
        update(db, """
                INSERT INTO debt (document_id, number, client_id, kind, place, currency, first_minor, amount_minor, due_on,
                  order_on)
                SELECT v.id, v.number, v.client_id, 'INSTALLMENT', 1, v.currency, v.total_minor, v.total_minor,
                       v.next_due_on, v.next_due_on
                  FROM document v WHERE v.id <> %d
                """.formatted(invoice));
        SystemBench.addTerms(db);
        SystemBench.addDues(db);
        update(db, """
                INSERT INTO fixed_late_fee (invoice_id, policy)
                SELECT v.id, f.policy FROM document v, fixed_late_fee f WHERE f.invoice_id = %1$d AND v.id <> %1$d
                """.formatted(invoice));
        // What was due before was done before; clients are looked at again when something may come up.
        update(db, "INSERT INTO used_step (debt_id, used_through) SELECT id, 0 FROM debt WHERE due_on < ?", today);
        update(db, "DELETE FROM client_chasing");
        update(db, """
                INSERT INTO client_chasing (client_id, look_on)
                SELECT client_id, MIN(CASE WHEN next_due_on < ? THEN ? ELSE next_due_on END) FROM document
                 WHERE shelf = 'open' GROUP BY client_id
                """, today, today);
        update(db, "DELETE FROM run_day WHERE run_on = ?", today);
    }

    static void update(Connection db, String sql, LocalDate... days) throws SQLException {
        try (PreparedStatement s = db.prepareStatement(sql)) {
            for (int i = 0; i < days.length; i++) {
                s.setObject(i + 1, days[i]);
            }
            s.executeUpdate();
        }
    }

    private long today(int invoices) throws Exception {
        Path data = Files.createTempDirectory("quill-bench");
        long invoice;
        try (BenchServer server = new BenchServer(root, data, IDLE, NO_MAIL)) {
            server.firstRun();
            invoice = server.issueOne();
        }
        try (Connection db = BenchServer.books(data);
                Statement s = db.createStatement()) {
            SystemBench.multiply(db, invoice, invoices, 300);
            s.executeUpdate("MERGE INTO client_chasing (client_id, look_on) KEY (client_id)"
                    + " SELECT id, DATE '2000-01-01' FROM client");
        }
        try (BenchServer server = new BenchServer(root, data, IDLE, NO_MAIL)) {
            server.signIn();
            return server.medianOf("/api/today", 40);
        }
    }
}
