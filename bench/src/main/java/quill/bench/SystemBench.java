package quill.bench;

import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.List;

/** The whole application as a process: start, memory, live totals, and the index with many settled invoices. */
final class SystemBench {
    private static final String OWNER = "owner@larkmoor.example";
    private static final String PASSPHRASE = "four or five plain words";
    private static final int OPEN = 300;
    private final Path root;
    private final CookieManager cookies = new CookieManager();
    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(cookies).build();
    private int port;

    SystemBench(Path root) {
        this.root = root;
    }

    String run() throws Exception {
        Path small = Files.createTempDirectory("quill-bench");
        Path large = Files.createTempDirectory("quill-bench");
        prepare(small, 1_000);
        prepare(large, 20_000);
        long started = System.nanoTime();
        Process process = start(large);
        double startSeconds = (System.nanoTime() - started) / 1e9;
        try {
            signIn();
            String live = liveTotals();
            long manyMicros = index();
            long memory = memoryOf(process);
            stop(process);
            process = start(small);
            signIn();
            long fewMicros = index();
            return String.format(
                    """
                    live totals, round trip: %s
                    start to first page, 20,000 invoices stored: %.1f s (aim: under 8 on a quiet machine)
                    memory with -Xmx256m: %d MB resident
                    index of 20,000 invoices %d us, of 1,000 %d us, 300 of them open: ratio %.2f (aim: at most 2)
                    """, live, startSeconds, memory, manyMicros, fewMicros, (double) manyMicros / fewMicros);
        } finally {
            stop(process);
        }
    }

    /** A business with so many invoices, all settled but 300; the rows are copies of one that was really issued. */
    private void prepare(Path data, int invoices) throws Exception {
        Process process = start(data);
        post("/api/first-run", """
                {"ownerName":"Owner","ownerEmail":"%s","passphrase":"%s","businessName":"Bench","businessEmail":"b@b.example",
                 "address":"","currency":"EUR","zone":"UTC","registered":true,"taxNumber":"1","taxName":"VAT","taxRate":"21"}
                """.formatted(OWNER, PASSPHRASE));
        String client = post("/api/clients", """
                {"id":0,"name":"A client","contact":"","email":"","address":"","taxNumber":"","version":1}
                """);
        String id = client.replaceAll("(?s).*\"id\":(\\d+).*", "$1");
        String made = post("/api/invoices", draft(id));
        String invoice = made.replaceAll("(?s).*\"id\":(\\d+).*", "$1");
        post("/api/invoices/" + invoice + "/issue", "{\"version\":1}");
        stop(process);
        try (Connection db = DriverManager.getConnection("jdbc:h2:file:" + data.resolve("books"), "sa", "")) {
            multiply(db, Long.parseLong(invoice), invoices);
        }
    }

    private void multiply(Connection db, long invoice, int count) throws SQLException {
        String copyInvoice = """
                INSERT INTO invoice (client_id, client_name, bucket, number, subject, currency, total_minor, open_minor,
                  next_due_on, issued_on, settled_on, typed, fixed, token, version, made_at)
                SELECT client_id, client_name, CASE WHEN n <= ? THEN 'open' ELSE 'settled' END, number || '-' || n, subject,
                  currency, total_minor, CASE WHEN n <= ? THEN total_minor ELSE 0 END,
                  CASE WHEN n <= ? THEN DATEADD('DAY', MOD(n, 90), next_due_on) END, issued_on,
                  CASE WHEN n > ? THEN DATEADD('DAY', MOD(n, 900), issued_on) END, typed, fixed, token || n, version, made_at
                  FROM invoice, (SELECT x AS n FROM SYSTEM_RANGE(1, ?)) WHERE id = ?
                """;
        try (PreparedStatement s = db.prepareStatement(copyInvoice)) {
            for (int i = 1; i <= 4; i++) {
                s.setInt(i, OPEN - 1);
            }
            s.setInt(5, count - 1);
            s.setLong(6, invoice);
            s.executeUpdate();
        }
        String copyInstallment = """
                INSERT INTO debt (invoice_id, place, deposit, currency, amount_minor, settled_minor, due_on, why)
                SELECT v.id, i.place, i.deposit, i.currency, i.amount_minor,
                  CASE WHEN v.bucket = 'open' THEN 0 ELSE i.amount_minor END, COALESCE(v.next_due_on, i.due_on), i.why
                  FROM debt i, invoice v WHERE i.invoice_id = ? AND v.id <> ?
                """;
        try (PreparedStatement s = db.prepareStatement(copyInstallment)) {
            s.setLong(1, invoice);
            s.setLong(2, invoice);
            s.executeUpdate();
        }
    }

    private static String draft(String client) {
        String line = """
                {"description":"Work","quantity":"2.5","unit":"h","unitPrice":"68.00","discount":"10%","taxes":[]}""";
        return """
                {"clientId":%s,"currency":"EUR","subject":"work","reference":"","supplyDate":"2026-01-01","supplyEnd":"",
                 "taxInside":false,"lines":[%s],"schedule":[{"deposit":false,"share":"100%%","days":"30"}],"notes":""}
                """.formatted(client, line.replace("[]", "[\"TAX\"]"));
    }

    private String liveTotals() throws Exception {
        String body = withTax(draft("1"));
        long[] micros = new long[400];
        for (int i = -200; i < micros.length; i++) {
            long before = System.nanoTime();
            post("/api/reckonings", body);
            if (i >= 0) {
                micros[i] = (System.nanoTime() - before) / 1000;
            }
        }
        Arrays.sort(micros);
        return "median " + micros[200] + " us, p95 " + micros[380] + " us";
    }

    private long index() throws Exception {
        long[] micros = new long[120];
        for (int i = -60; i < micros.length; i++) {
            long before = System.nanoTime();
            get("/api/invoices");
            if (i >= 0) {
                micros[i] = (System.nanoTime() - before) / 1000;
            }
        }
        Arrays.sort(micros);
        return micros[60];
    }

    private Process start(Path data) throws Exception {
        try (ServerSocket socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        cookies.getCookieStore().removeAll();
        Process process = new ProcessBuilder(List.of(
                        System.getProperty("java.home") + "/bin/java",
                        "-XX:TieredStopAtLevel=1",
                        "-XX:+UseSerialGC",
                        "-Xmx256m",
                        "-jar",
                        root.resolve("server/target/app/quill-server-1.0-SNAPSHOT-app.jar")
                                .toString(),
                        "--spring.config.name=quill",
                        "--server.port=" + port,
                        "--quill.data=" + data))
                .redirectErrorStream(true)
                .redirectOutput(data.resolve("log").toFile())
                .start();
        while (true) {
            try {
                get("/");
                return process;
            } catch (IOException e) {
                if (!process.isAlive()) {
                    throw new IllegalStateException(Files.readString(data.resolve("log")), e);
                }
                Thread.sleep(25);
            }
        }
    }

    private static void stop(Process process) throws InterruptedException {
        process.destroy();
        process.waitFor();
    }

    private void signIn() throws Exception {
        post("/api/session", "{\"email\":\"" + OWNER + "\",\"passphrase\":\"" + PASSPHRASE + "\"}");
    }

    private static long memoryOf(Process process) throws IOException {
        String status = Files.readString(Path.of("/proc/" + process.pid() + "/status"));
        return Long.parseLong(status.replaceAll("(?s).*VmRSS:\\s+(\\d+) kB.*", "$1")) / 1024;
    }

    private String withTax(String body) throws Exception {
        return body.replace(
                "TAX", get("/api/business").replaceAll("(?s).*\"taxes\":\\[\\{\"id\":\"([^\"]+)\".*", "$1"));
    }

    private String get(String path) throws IOException, InterruptedException {
        return http.send(
                        HttpRequest.newBuilder(URI.create("http://localhost:" + port + path))
                                .build(),
                        HttpResponse.BodyHandlers.ofString())
                .body();
    }

    private String post(String path, String body) throws Exception {
        if (cookies.getCookieStore().getCookies().stream()
                .noneMatch(c -> c.getName().equals("XSRF-TOKEN"))) {
            get("/api/session");
        }
        String token = cookies.getCookieStore().getCookies().stream()
                .filter(c -> c.getName().equals("XSRF-TOKEN"))
                .map(HttpCookie::getValue)
                .findFirst()
                .orElse("");
        String sent = body.contains("TAX") ? withTax(body) : body;
        HttpResponse<String> answer = http.send(
                HttpRequest.newBuilder(URI.create("http://localhost:" + port + path))
                        .header("Content-Type", "application/json")
                        .header("X-XSRF-TOKEN", token)
                        .POST(HttpRequest.BodyPublishers.ofString(sent))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        if (answer.statusCode() >= 300) {
            throw new IllegalStateException(path + ": " + answer.body());
        }
        return answer.body();
    }
}
