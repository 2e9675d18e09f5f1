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
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** One server of the benchmarks, on a folder of data, spoken to over HTTP. */
final class BenchServer implements AutoCloseable {
    private static final String OWNER = "owner@larkmoor.example";
    private static final String PASSPHRASE = "four or five plain words";
    private final CookieManager cookies = new CookieManager();
    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(cookies).build();
    private final int port;
    private final Process process;

    BenchServer(Path root, Path data, String... more) throws Exception {
        try (ServerSocket socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        Path app = root.resolve("server/target/app");
        List<String> command = java();
        command.addAll(List.of(
                "-Xshare:auto",
                "-XX:SharedArchiveFile=" + app.resolve("classes.jsa"),
                "-jar",
                app.resolve("quill-server-1.0-SNAPSHOT-app.jar").toString(),
                "--spring.config.name=quill",
                "--server.port=" + port,
                "--quill.data=" + data));
        command.addAll(List.of(more));
        process = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(data.resolve("log").toFile())
                .start();
        while (true) {
            try {
                get("/");
                return;
            } catch (IOException e) {
                if (!process.isAlive()) {
                    throw new IllegalStateException(Files.readString(data.resolve("log")), e);
                }
                Thread.sleep(25);
            }
        }
    }

    /** How the application is started by its one script; what it is compared with runs in the same way. */
    static List<String> java() {
        return new ArrayList<>(List.of(
                System.getProperty("java.home") + "/bin/java",
                "-XX:TieredStopAtLevel=1",
                "-XX:+UseSerialGC",
                "-Djava.util.concurrent.ForkJoinPool.common.parallelism=2",
                "-Xmx512m"));
    }

    /** Sets an empty installation up; a standard invoice names the country of the business. */
    void firstRun() throws Exception {
        post("/api/first-run", """
                {"owner":{"name":"Owner","email":"%s","passphrase":"%s"},
                 "business":{"name":"Bench","email":"b@b.example","address":"","country":"BE","currency":"EUR",
                             "zone":"UTC","mark":"."},
                 "tax":{"registered":true,"number":"1","name":"VAT","rate":"21"}}
                """.formatted(OWNER, PASSPHRASE));
    }

    /** The books of a server that has ended. */
    static Connection books(Path data) throws SQLException, IOException {
        String password = Files.readString(data.resolve("books.password")).strip();
        return DriverManager.getConnection("jdbc:h2:file:" + data.resolve("books"), "sa", password);
    }

    void signIn() throws Exception {
        post("/api/session", "{\"email\":\"" + OWNER + "\",\"passphrase\":\"" + PASSPHRASE + "\"}");
    }

    /** Issues one invoice, to be multiplied. @return its id */
    long issueOne() throws Exception {
        String client = post("/api/clients", """
                {"id":0,"name":"A client","contact":"","email":"a@clients.example","address":"","country":"BE","taxNumber":"","version":1}
                """);
        String made = post("/api/invoices", draft(client.replaceAll("(?s).*\"id\":(\\d+).*", "$1")));
        String invoice = made.replaceAll("(?s).*\"id\":(\\d+).*", "$1");
        post("/api/invoices/" + invoice + "/issue", "{\"version\":1}");
        return Long.parseLong(invoice);
    }

    static String draft(String client) {
        String line = """
                {"description":"Work","quantity":"2.5","unit":"h","unitPrice":"68.00","discount":"10%","taxes":["TAX"]}""";
        return """
                {"clientId":%s,"currency":"EUR","subject":"work","reference":"","supplyDate":"2026-01-01","supplyEnd":"",
                 "taxInside":false,"lines":[%s],"schedule":[{"deposit":false,"share":"100%%","days":"30"}],"notes":""}
                """.formatted(client, line);
    }

    /** Something to be done, measured or not. */
    interface Doing {
        void run() throws Exception;
    }

    /** Writes something that no list shows. */
    void commitSomething() throws Exception {
        post("/api/views", "{\"place\":\"/invoices/list\",\"name\":\"Bench\",\"shows\":\"sort=number\"}");
    }

    long medianOf(String path, int times) throws Exception {
        return medianOf(path, times, () -> {});
    }

    /** Median over repeated requests, after as many to warm up, in microseconds. @param first done before each, not measured */
    long medianOf(String path, int times, Doing first) throws Exception {
        long[] micros = new long[times];
        for (int i = -times; i < times; i++) {
            first.run();
            long before = System.nanoTime();
            get(path);
            if (i >= 0) {
                micros[i] = (System.nanoTime() - before) / 1000;
            }
        }
        Arrays.sort(micros);
        return micros[times / 2];
    }

    /** Resident memory in megabytes. */
    long memory() throws IOException {
        String status = Files.readString(Path.of("/proc/" + process.pid() + "/status"));
        return Long.parseLong(status.replaceAll("(?s).*VmRSS:\\s+(\\d+) kB.*", "$1")) / 1024;
    }

    @Override
    public void close() throws InterruptedException {
        process.destroy();
        process.waitFor();
    }

    String url(String path) {
        return "http://localhost:" + port + path;
    }

    String withTax(String body) throws Exception {
        return body.replace(
                "\"TAX\"", get("/api/business").replaceAll("(?s).*\"taxes\":\\[\\{\"id\":(\"[^\"]+\").*", "$1"));
    }

    String get(String path) throws IOException, InterruptedException {
        return http.send(HttpRequest.newBuilder(URI.create(url(path))).build(), HttpResponse.BodyHandlers.ofString())
                .body();
    }

    String put(String path, String body) throws Exception {
        return send("PUT", path, body);
    }

    String post(String path, String body) throws Exception {
        return send("POST", path, body);
    }

    /** Sends a file with what is said of it, as JSON. */
    String upload(String path, String file, String how) throws Exception {
        String edge = "quill-bench-edge";
        String body = "--" + edge + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"table.csv\"\r\n"
                + "Content-Type: text/csv\r\n\r\n" + file + "\r\n--" + edge
                + "\r\nContent-Disposition: form-data; name=\"how\"; filename=\"how.json\"\r\n"
                + "Content-Type: application/json\r\n\r\n" + how + "\r\n--" + edge + "--\r\n";
        return send("POST", path, body, "multipart/form-data; boundary=" + edge);
    }

    private String send(String method, String path, String body) throws Exception {
        return send(method, path, body, "application/json");
    }

    private String send(String method, String path, String body, String type) throws Exception {
        if (cookies.getCookieStore().getCookies().stream()
                .noneMatch(c -> c.getName().equals("XSRF-TOKEN"))) {
            get("/api/session");
        }
        String token = cookies.getCookieStore().getCookies().stream()
                .filter(c -> c.getName().equals("XSRF-TOKEN"))
                .map(HttpCookie::getValue)
                .findFirst()
                .orElse("");
        String sent = body.contains("\"TAX\"") ? withTax(body) : body;
        HttpResponse<String> answer = http.send(
                HttpRequest.newBuilder(URI.create(url(path)))
                        .header("Content-Type", type)
                        .header("X-XSRF-TOKEN", token)
                        .method(method, HttpRequest.BodyPublishers.ofString(sent))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        if (answer.statusCode() >= 300) {
            throw new IllegalStateException(path + ": " + answer.body());
        }
        return answer.body();
    }
}
