package quill.bench;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/**
 * Card payments booked through the processor's events, several at once as a processor sends them, against the bare inserts of
 * the rows that they leave, each payment's in a transaction of its own.
 */
final class MoneyBench {
    private static final int WARM = 600;
    private static final int TIMES = 600;
    /** A processor sends the events of several payers at once. */
    private static final int SENDERS = 4;

    private static final byte[] SECRET = "a secret of thirty-two bytes ...".getBytes(StandardCharsets.UTF_8);
    private static final Pattern AMOUNT = Pattern.compile("\"amount\":\"?([0-9.]+)");
    private final Path root;
    private final Map<String, String> amounts = new ConcurrentHashMap<>();
    private final Map<String, Boolean> paid = new ConcurrentHashMap<>();
    private final List<String> entries = new ArrayList<>();
    private final HttpClient http = HttpClient.newHttpClient();

    MoneyBench(Path root) {
        this.root = root;
    }

    String run() throws Exception {
        // Else each of its answers waits for the acknowledgement of its own head, some 40 ms.
        System.setProperty("sun.net.httpserver.nodelay", "true");
        HttpServer processor = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        ExecutorService answering = Executors.newFixedThreadPool(4);
        processor.setExecutor(answering);
        processor.createContext("/api/orders", this::order);
        processor.createContext("/api/account/entries", this::entries);
        processor.start();
        try {
            Path data = Files.createTempDirectory("quill-bench");
            String[] more = {
                "--quill.processor.url=http://127.0.0.1:"
                        + processor.getAddress().getPort(),
                "--quill.processor.api-key=bench",
                "--quill.processor.webhook-secret=whsec_" + Base64.getEncoder().encodeToString(SECRET),
                "--quill.processor.ask-every=36000000",
                "--quill.run-every=36000000",
                "--quill.outbox-every=36000000"
            };
            List<String> orders;
            try (BenchServer server = new BenchServer(root, data, more)) {
                server.firstRun();
                orders = begin(server);
            }
            Map<String, Long> before = rows(data);
            long[] micros = new long[TIMES];
            double seconds;
            ExecutorService senders = Executors.newFixedThreadPool(SENDERS);
            try (BenchServer server = new BenchServer(root, data, more)) {
                all(senders, 0, WARM, i -> pay(server, orders.get(i), i));
                long from = System.nanoTime();
                all(senders, WARM, WARM + TIMES, i -> {
                    long began = System.nanoTime();
                    pay(server, orders.get(i), i);
                    micros[i - WARM] = (System.nanoTime() - began) / 1000;
                });
                seconds = (System.nanoTime() - from) / 1e9;
            } finally {
                senders.shutdown();
            }
            Arrays.sort(micros);
            double ours = TIMES / seconds;
            double bare = bare(data, before);
            return String.format(
                    "card payments booked through the hook: %.0f a second, p95 %.1f ms; bare inserts of their rows: %.0f a"
                            + " second; ratio %.2f (aim: at least 0.33)%n",
                    ours, micros[TIMES * 95 / 100] / 1000.0, bare, ours / bare);
        } finally {
            processor.stop(0);
            answering.shutdown(); // Else its threads keep the benchmarks from ending.
        }
    }

    private interface Step {
        void run(int number) throws Exception;
    }

    private static void all(ExecutorService by, int from, int to, Step step) throws Exception {
        List<Callable<Void>> steps = new ArrayList<>();
        for (int i = from; i < to; i++) {
            int number = i;
            steps.add(() -> {
                step.run(number);
                return null;
            });
        }
        for (Future<Void> done : by.invokeAll(steps)) {
            done.get();
        }
    }

    private List<String> begin(BenchServer server) throws Exception {
        List<String> clients = new ArrayList<>();
        for (int i = 0; i < 20; i++) {
            clients.add(server.post("/api/clients", """
                    {"id":0,"name":"Client %d","contact":"","email":"c%d@clients.example","address":"","country":"BE",
                     "taxNumber":"","version":1}
                    """.formatted(i, i)).replaceAll("(?s).*?\"id\":(\\d+).*", "$1"));
        }
        List<String> orders = new ArrayList<>();
        for (int i = 0; i < WARM + TIMES; i++) {
            String made = server.post("/api/invoices", BenchServer.draft(clients.get(i % clients.size())));
            String invoice = made.replaceAll("(?s).*?\"id\":(\\d+).*", "$1");
            server.post("/api/invoices/" + invoice + "/issue", "{\"version\":1}");
            String page =
                    server.post("/api/documents/" + invoice + "/collections", "{\"installments\":[],\"hold\":false}");
            orders.add(page.replaceAll("(?s).*?/pay/([^\"]+)\".*", "$1"));
        }
        return orders;
    }

    private void order(HttpExchange exchange) throws IOException {
        String key = exchange.getRequestHeaders().getFirst("Idempotency-Key");
        String id = key != null ? key : exchange.getRequestURI().getPath().split("/")[3];
        Matcher amount = AMOUNT.matcher(new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
        if (amount.find()) {
            amounts.putIfAbsent(id, amount.group(1));
        }
        boolean done = paid.containsKey(id);
        answer(exchange, """
                {"id":"%s","state":"%s","amount":"%s","currency":"EUR","payAt":"http://localhost/pay/%s","test":false,
                 "paid":%s,"with":%s,"attempts":[]}
                """.formatted(
                        id,
                        done ? "paid" : "open",
                        amounts.get(id),
                        id,
                        done
                                ? "{\"payment\":\"pay-%s\",\"on\":\"%s\",\"amount\":\"%s\",\"fee\":\"1.00\"}"
                                        .formatted(id, LocalDate.now(ZoneOffset.UTC), amounts.get(id))
                                : "null",
                        done ? "{\"way\":\"card\",\"name\":\"Card\",\"lastFour\":\"0019\",\"expiry\":null}" : "null"));
    }

    private synchronized void entries(HttpExchange exchange) throws IOException {
        int after = Integer.parseInt(exchange.getRequestURI().getQuery().replaceAll("\\D", ""));
        answer(
                exchange,
                "[" + String.join(",", entries.subList(Math.min(after, entries.size()), entries.size())) + "]");
    }

    private static void answer(HttpExchange exchange, String body) throws IOException {
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", "application/json");
        exchange.sendResponseHeaders(200, bytes.length);
        exchange.getResponseBody().write(bytes);
        exchange.close();
    }

    private void pay(BenchServer server, String order, int number) throws Exception {
        paid.put(order, true);
        synchronized (this) {
            entries.add("""
                    {"number":%d,"kind":"taken","subject":"pay-%s","order":"%s","currency":"EUR","amount":"%s","cost":"1.00",
                     "on":"%s","reason":"","answerBy":null,"key":"%s","entries":[]}
                    """.formatted(
                    entries.size() + 1, order, order, amounts.get(order), LocalDate.now(ZoneOffset.UTC), order));
        }
        String id = "event-" + number;
        String at = String.valueOf(Instant.now().getEpochSecond());
        String body = "{\"type\":\"order\",\"order\":\"" + order + "\"}";
        Mac mac = Mac.getInstance("HmacSHA256");
        mac.init(new SecretKeySpec(SECRET, "HmacSHA256"));
        String signed = Base64.getEncoder()
                .encodeToString(mac.doFinal((id + "." + at + "." + body).getBytes(StandardCharsets.UTF_8)));
        HttpResponse<String> answer = http.send(
                HttpRequest.newBuilder(URI.create(server.url("/api/hooks/processor/settings")))
                        .header("Content-Type", "application/json")
                        .header("webhook-id", id)
                        .header("webhook-timestamp", at)
                        .header("webhook-signature", "v1," + signed)
                        .POST(HttpRequest.BodyPublishers.ofString(body))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        if (answer.statusCode() != 204) {
            throw new IllegalStateException(answer.statusCode() + ": " + answer.body());
        }
    }

    private static Map<String, Long> rows(Path data) throws SQLException, IOException {
        Map<String, Long> rows = new TreeMap<>();
        try (Connection db = BenchServer.books(data);
                Statement s = db.createStatement()) {
            List<String> tables = new ArrayList<>();
            try (ResultSet rs = s.executeQuery("SELECT table_name FROM information_schema.tables"
                    + " WHERE table_schema = 'PUBLIC' AND table_type = 'BASE TABLE'")) {
                while (rs.next()) {
                    tables.add(rs.getString(1));
                }
            }
            for (String table : tables) {
                try (ResultSet rs = s.executeQuery("SELECT COUNT(*) FROM \"" + table + "\"")) {
                    rs.next();
                    rows.put(table, rs.getLong(1));
                }
            }
        }
        return rows;
    }

    /**
     * The same rows once more: into the same tables, with their keys and indexes, in a database that is as empty as ours was and
     * writes each commit at once as ours does; as many of each as a payment leaves, and one commit.
     */
    private static double bare(Path data, Map<String, Long> before) throws Exception {
        Map<String, Long> after = rows(data);
        Path schema = Files.createTempFile("quill-bench", ".sql");
        Path folder = Files.createTempDirectory("quill-bench-bare");
        List<String> inserts = new ArrayList<>();
        List<List<Object[]>> all = new ArrayList<>();
        try (Connection db = BenchServer.books(data);
                Statement s = db.createStatement()) {
            s.execute("SCRIPT NODATA TO '" + schema + "'");
            for (Map.Entry<String, Long> table : after.entrySet()) {
                int grown = Math.toIntExact(table.getValue() - before.getOrDefault(table.getKey(), 0L));
                if (grown >= WARM + TIMES) {
                    String columns = columns(s, table.getKey());
                    String name = "\"" + table.getKey() + "\"";
                    inserts.add("INSERT INTO " + name + " (" + columns + ") OVERRIDING SYSTEM VALUE VALUES ("
                            + String.join(",", Collections.nCopies(columns.split(",").length, "?")) + ")");
                    all.add(latest(s, "SELECT " + columns + " FROM " + name + " ORDER BY 1 DESC LIMIT " + grown));
                }
            }
        }
        String url =
                "jdbc:h2:async:" + folder.resolve("books") + ";WRITE_DELAY=0;CACHE_SIZE=49152;OPTIMIZE_REUSE_RESULTS=0";
        List<Connection> connections = new ArrayList<>();
        ExecutorService writers = Executors.newFixedThreadPool(SENDERS);
        try {
            for (int w = 0; w < SENDERS; w++) {
                connections.add(DriverManager.getConnection(url, "sa", ""));
            }
            try (Statement s = connections.get(0).createStatement()) {
                s.execute("RUNSCRIPT FROM '" + schema + "'");
                s.execute("SET REFERENTIAL_INTEGRITY FALSE"); // Clients and invoices are not in it.
            }
            List<List<PreparedStatement>> prepared = new ArrayList<>();
            for (Connection each : connections) {
                each.setAutoCommit(false);
                List<PreparedStatement> own = new ArrayList<>();
                for (String insert : inserts) {
                    own.add(each.prepareStatement(insert));
                }
                prepared.add(own);
            }
            writeAll(writers, connections, prepared, all, 0, WARM);
            long began = System.nanoTime();
            writeAll(writers, connections, prepared, all, WARM, WARM + TIMES);
            return TIMES / ((System.nanoTime() - began) / 1e9);
        } finally {
            writers.shutdown();
            for (Connection each : connections) {
                each.close();
            }
        }
    }

    /** Each connection writes every so manyth payment. */
    private static void writeAll(
            ExecutorService writers,
            List<Connection> connections,
            List<List<PreparedStatement>> prepared,
            List<List<Object[]>> all,
            int first,
            int end)
            throws Exception {
        all(writers, 0, SENDERS, w -> {
            for (int payment = first + w; payment < end; payment += SENDERS) {
                for (int t = 0; t < all.size(); t++) {
                    List<Object[]> rows = all.get(t);
                    int from = rows.size() * payment / (WARM + TIMES);
                    int to = rows.size() * (payment + 1) / (WARM + TIMES);
                    PreparedStatement insert = prepared.get(w).get(t);
                    for (Object[] row : rows.subList(from, to)) {
                        for (int i = 0; i < row.length; i++) {
                            insert.setObject(i + 1, row[i]);
                        }
                        insert.executeUpdate();
                    }
                }
                connections.get(w).commit();
            }
        });
    }

    /** Those that are written, and not reckoned from others. */
    private static String columns(Statement s, String table) throws SQLException {
        List<String> columns = new ArrayList<>();
        try (ResultSet rs =
                s.executeQuery("SELECT column_name FROM information_schema.columns WHERE table_schema = 'PUBLIC'"
                        + " AND table_name = '" + table + "' AND is_generated = 'NEVER' ORDER BY ordinal_position")) {
            while (rs.next()) {
                columns.add("\"" + rs.getString(1) + "\"");
            }
        }
        return String.join(", ", columns);
    }

    private static List<Object[]> latest(Statement s, String select) throws SQLException {
        List<Object[]> rows = new ArrayList<>();
        try (ResultSet rs = s.executeQuery(select)) {
            int columns = rs.getMetaData().getColumnCount();
            while (rs.next()) {
                Object[] row = new Object[columns];
                for (int i = 0; i < columns; i++) {
                    Object value = rs.getObject(i + 1);
                    row[i] = value instanceof java.sql.Clob ? rs.getString(i + 1) : value;
                }
                rows.add(row);
            }
        }
        return rows;
    }
}
