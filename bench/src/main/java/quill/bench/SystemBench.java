package quill.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.Arrays;

/** The whole application as a process: start, memory, live totals, and the index with many settled invoices. */
final class SystemBench {
    private static final int OPEN = 300;
    private final Path root;

    SystemBench(Path root) {
        this.root = root;
    }

    String run() throws Exception {
        Path small = prepared(1_000);
        Path large = prepared(100_000);
        long started = System.nanoTime();
        String live;
        long manyMicros;
        long memory;
        double startSeconds;
        try (BenchServer server = new BenchServer(root, large)) {
            startSeconds = (System.nanoTime() - started) / 1e9;
            server.signIn();
            live = liveTotals(server);
            manyMicros = server.medianOf("/api/invoices", 100);
            memory = server.memory();
        }
        try (BenchServer server = new BenchServer(root, small)) {
            server.signIn();
            long fewMicros = server.medianOf("/api/invoices", 100);
            return String.format(
                    """
                    live totals, round trip: %s
                    start to first page, 100,000 invoices stored: %.1f s (aim: under 8 on a quiet machine)
                    memory with -Xmx256m: %d MB resident
                    index of 100,000 invoices %d us, of 1,000 %d us, 300 of them open: ratio %.2f (aim: at most 2)
                    """, live, startSeconds, memory, manyMicros, fewMicros, (double) manyMicros / fewMicros);
        }
    }

    /** A business with so many invoices, all settled but 300; the rows are copies of one that was really issued. */
    private Path prepared(int invoices) throws Exception {
        Path data = Files.createTempDirectory("quill-bench");
        long invoice;
        try (BenchServer server = new BenchServer(root, data)) {
            server.firstRun();
            invoice = server.issueOne();
        }
        try (Connection db = BenchServer.books(data)) {
            multiply(db, invoice, invoices, OPEN);
        }
        return data;
    }

    private static String liveTotals(BenchServer server) throws Exception {
        String body = server.withTax(BenchServer.draft("1"));
        long[] micros = new long[400];
        for (int i = -200; i < micros.length; i++) {
            long before = System.nanoTime();
            server.post("/api/reckonings", body);
            if (i >= 0) {
                micros[i] = (System.nanoTime() - before) / 1000;
            }
        }
        Arrays.sort(micros);
        return "median " + micros[200] + " us, p95 " + micros[380] + " us";
    }

    /** Every copy says what the first says. */
    static void copyTextsAndLinks(Connection db, long invoice) throws SQLException {
        try (PreparedStatement s = db.prepareStatement("""
                INSERT INTO document_content (document_id, stage, version, format, body)
                SELECT v.id, t.stage, t.version, t.format, t.body FROM document v, document_content t
                 WHERE t.document_id = ? AND v.id <> ?
                """)) {
            s.setLong(1, invoice);
            s.setLong(2, invoice);
            s.executeUpdate();
        }
        try (PreparedStatement s = db.prepareStatement("""
                INSERT INTO link (token, document_id) SELECT l.token || v.id, v.id FROM link l, document v
                 WHERE l.document_id = ? AND v.id <> ?
                """)) {
            s.setLong(1, invoice);
            s.setLong(2, invoice);
            s.executeUpdate();
        }
    }

    /** Copies an invoice so often, each for a client of its own of at most 300; the first ones stay open, the others were settled. */
    static void multiply(Connection db, long invoice, int count, int open) throws SQLException {
        try (PreparedStatement s = db.prepareStatement("""
                INSERT INTO client (name, email, address)
                SELECT name || ' ' || n, email, address
                  FROM client, (SELECT x AS n FROM SYSTEM_RANGE(1, ?)) WHERE id = 1
                """)) {
            s.setInt(1, open);
            s.executeUpdate();
        }
        String copyInvoice = """
                INSERT INTO document (kind, state, client_id, client_name, number, series, seq, subject, currency, total_minor,
                  open_minor,
                  next_due_on, issued_on, settled_on, issued_version, version, made_at)
                SELECT kind, CASE WHEN n <= ? THEN 'open' ELSE 'settled' END, 1 + MOD(n, ?), client_name || ' ' || MOD(n, 300), number || '-' || n, series, n, subject,
                  currency, total_minor, CASE WHEN n <= ? THEN total_minor ELSE 0 END,
                  CASE WHEN n <= ? THEN DATEADD('DAY', MOD(n, 90), next_due_on) END, issued_on,
                  CASE WHEN n > ? THEN DATEADD('DAY', -MOD(n, 900), issued_on) END, issued_version, version, made_at
                  FROM document, (SELECT x AS n FROM SYSTEM_RANGE(1, ?)) WHERE id = ?
                """;
        try (PreparedStatement s = db.prepareStatement(copyInvoice)) {
            s.setInt(1, open - 1);
            s.setInt(2, open);
            for (int i = 3; i <= 5; i++) {
                s.setInt(i, open - 1);
            }
            s.setInt(6, count - 1);
            s.setLong(7, invoice);
            s.executeUpdate();
        }
        copyTextsAndLinks(db, invoice);
        String copyInstallment = """
                INSERT INTO debt (document_id, number, client_id, kind, place, currency, first_minor, amount_minor,
                  settled_minor, due_on, order_on)
                SELECT v.id, v.number, v.client_id, i.kind, i.place, i.currency, i.first_minor, i.amount_minor,
                  CASE WHEN v.shelf = 'open' THEN 0 ELSE i.amount_minor END, COALESCE(v.next_due_on, i.due_on),
                  COALESCE(v.next_due_on, i.due_on)
                  FROM debt i, document v WHERE i.document_id = ? AND v.id <> ?
                """;
        try (PreparedStatement s = db.prepareStatement(copyInstallment)) {
            s.setLong(1, invoice);
            s.setLong(2, invoice);
            s.executeUpdate();
        }
        addTerms(db);
        addDues(db);
    }

    /** What was agreed of each debt, as the application keeps it. */
    static void addTerms(Connection db) throws SQLException {
        try (PreparedStatement s = db.prepareStatement("""
                INSERT INTO debt_term (debt_id, from_on, due_on, amount_minor, why)
                SELECT id, order_on, due_on, amount_minor, '{"rule":"","steps":[]}' FROM debt d
                 WHERE NOT EXISTS (SELECT 1 FROM debt_term t WHERE t.debt_id = d.id)
                """)) {
            s.executeUpdate();
        }
    }

    /** What is open stands beside each invoice by day, as the application keeps it. */
    static void addDues(Connection db) throws SQLException {
        try (PreparedStatement s = db.prepareStatement("""
                MERGE INTO document_due (document_id, due_on, open_minor) KEY (document_id, due_on)
                SELECT document_id, due_on, SUM(open_minor) FROM debt WHERE open_minor > 0 GROUP BY document_id, due_on
                """)) {
            s.executeUpdate();
        }
    }
}
