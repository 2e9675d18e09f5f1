package quill.bench;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.Reader;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Properties;
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
 * the rows that they leave.
 */
final class MoneyBench {
    private static final int WARM = 600;
    private static final int TIMES = 600;
    /** A processor sends the events of several payers at once. */
    private static final int SENDERS = 4;

    private static final int BARE_TIMES = 3;

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
            Path before;
            long[] micros = new long[TIMES];
            double seconds;
            ExecutorService senders = Executors.newFixedThreadPool(SENDERS);
            try (BenchServer server = new BenchServer(root, data, more)) {
                server.firstRun();
                List<String> orders = begin(server);
                before = copy(data);
                all(senders, 0, WARM, i -> pay(server, orders.get(i), i));
                long from = System.nanoTime();
                all(senders, WARM, WARM + TIMES, i -> {
                    long began = System.nanoTime();
                    pay(server, orders.get(i), i);
                    micros[i - WARM] = (System.nanoTime() - began) / 1000;
                });
                proved(server, orders.get(0));
                seconds = (System.nanoTime() - from) / 1e9;
            } finally {
                senders.shutdown();
            }
            Arrays.sort(micros);
            double ours = TIMES / seconds;
            double bare = bare(before, data);
            return String.format(
                    "card payments booked through the hook: %.0f a second, p95 %.1f ms; bare inserts of their rows: %.0f a"
                            + " second; ratio %.2f (aim: at least 0.33)%n",
                    ours, micros[TIMES * 95 / 100] / 1000.0, bare, ours / bare);
        } finally {
            processor.stop(0);
            answering.shutdown(); // Else its threads keep the benchmarks from ending.
        }
    }

    /** The median of a few times, each on books of its own: one time by itself is over in seconds. */
    private double bare(Path before, Path after) throws IOException, InterruptedException {
        double[] times = new double[BARE_TIMES];
        for (int i = 0; i < BARE_TIMES; i++) {
            times[i] = BareInserts.inItsOwnProcess(copy(before), after, WARM + TIMES, url(), SENDERS, WARM);
        }
        Arrays.sort(times);
        return times[BARE_TIMES / 2];
    }

    /** How the books are opened, from the settings that are shipped. */
    private String url() throws IOException {
        Properties shipped = new Properties();
        try (Reader r = Files.newBufferedReader(root.resolve("server/src/main/resources/quill.properties"))) {
            shipped.load(r);
        }
        return shipped.getProperty("spring.datasource.url");
    }

    /** The books as they are once nothing is written any more: whole at each moment, as they are when a machine fails. */
    private static Path copy(Path data) throws IOException, InterruptedException {
        Path books = data.resolve("books.mv.db");
        FileTime last;
        do {
            last = Files.getLastModifiedTime(books);
            Thread.sleep(2_000);
        } while (!Files.getLastModifiedTime(books).equals(last));
        Path copy = Files.createTempDirectory("quill-bench-before");
        for (Path file : List.of(books, data.resolve("books.password"))) {
            Files.copy(file, copy.resolve(file.getFileName()));
        }
        return copy;
    }

    interface Step {
        void run(int number) throws Exception;
    }

    static void all(ExecutorService by, int from, int to, Step step) throws Exception {
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
        tell(server, "event-" + number, order);
    }

    /** An event about what is paid already has the account read to its end: all that was booked is compared with it then. */
    private void proved(BenchServer server, String order) throws Exception {
        tell(server, "last event", order);
    }

    private void tell(BenchServer server, String id, String order) throws Exception {
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
}
