package quill.server;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A card processor that takes any order and says of it what it is told. Each payment costs 0.30. What an order keeps, or a
 * keeping, is known by the token {@code kept-} with its id.
 */
public final class ObedientProcessor implements AutoCloseable {
    private static final Pattern AMOUNT = Pattern.compile("\"amount\":\"?([0-9.]+)");
    private static final Pattern FROM = Pattern.compile("\"method\":\"([^\"]+)");
    private final Map<String, String> states = new ConcurrentHashMap<>();
    private final Map<String, String> amounts = new ConcurrentHashMap<>();
    private final Map<String, String> from = new ConcurrentHashMap<>();
    private final Map<String, String> refusals = new ConcurrentHashMap<>();
    private final Map<String, Integer> charges = new ConcurrentHashMap<>();
    private final Map<String, String> asked = new ConcurrentHashMap<>();
    private final Map<String, String> ways = new ConcurrentHashMap<>();
    private final Set<String> keeping = ConcurrentHashMap.newKeySet();
    private final Set<String> forgotten = ConcurrentHashMap.newKeySet();
    private final HttpServer http;
    private volatile boolean silent;
    private volatile String expiry = "09/29";

    /** Listens on a port of its own. */
    public ObedientProcessor() throws IOException {
        http = HttpServer.create(OwnPort.at("processor"), 0);
        http.createContext("/api/orders", this::order);
        http.createContext("/api/keepings", this::keeping);
        http.createContext("/api/methods", exchange -> {
            forgotten.add(exchange.getRequestURI().getPath().split("/")[3]);
            send(exchange, silent ? 503 : 204, "");
        });
        http.start();
    }

    private void order(HttpExchange exchange) throws IOException {
        String path = exchange.getRequestURI().getPath();
        String id = id(exchange);
        String body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
        Matcher amount = AMOUNT.matcher(body);
        if (amount.find()) {
            amounts.putIfAbsent(id, amount.group(1));
        }
        Matcher method = FROM.matcher(body);
        if (method.find()) {
            from.put(id, method.group(1));
        }
        asked.putIfAbsent(id, body);
        if (body.contains("\"keep\":true")) {
            keeping.add(id);
        }
        if (path.endsWith("/withdrawal") && !"paid".equals(states.get(id))) {
            states.put(id, "withdrawn");
        }
        if (path.endsWith("/charge") && "open".equals(states.get(id))) {
            states.put(id, refusals.containsKey(from.get(id)) ? "refused" : "paid");
            charges.merge(from.get(id), 1, Integer::sum);
        }
        states.computeIfAbsent(id, k -> "open");
        send(exchange, silent ? 503 : 200, answer(id, states.get(id)));
    }

    private void keeping(HttpExchange exchange) throws IOException {
        String id = id(exchange);
        exchange.getRequestBody().readAllBytes();
        String state = states.computeIfAbsent(id, k -> "open");
        String kept = state.equals("kept")
                ? "{\"method\":\"kept-%s\",\"way\":\"card\",\"name\":\"Test card\",\"lastFour\":\"0019\",\"expiry\":\"%s\"}"
                        .formatted(id, expiry)
                : "null";
        send(
                exchange,
                silent ? 503 : 200,
                "{\"id\":\"%s\",\"state\":\"%s\",\"keepAt\":\"http://localhost/keep/%s\",\"kept\":%s}"
                        .formatted(id, state, id, kept));
    }

    private static String id(HttpExchange exchange) {
        String key = exchange.getRequestHeaders().getFirst("Idempotency-Key");
        return key != null ? key : exchange.getRequestURI().getPath().split("/")[3];
    }

    private static void send(HttpExchange exchange, int status, String body) throws IOException {
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", "application/json");
        exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
        exchange.getResponseBody().write(bytes);
        exchange.close();
    }

    /** Its address. */
    public String url() {
        return "http://127.0.0.1:" + http.getAddress().getPort();
    }

    /** From now on an order is paid. */
    public void pay(String order) {
        states.put(order, "paid");
    }

    /** The same, with a wallet of this name. */
    public void payWithWallet(String order, String name) {
        ways.put(order, name);
        pay(order);
    }

    /** From now on its money is held on a card. */
    public void hold(String order) {
        states.put(order, "held");
    }

    /** What it held is let go. */
    public void letGo(String order) {
        states.put(order, "released");
    }

    /** What it was asked for when an order was opened, as it came. */
    public String asked(String order) {
        return asked.get(order);
    }

    /** Somebody let a card be kept. */
    public void keep(String keepingId) {
        states.put(keepingId, "kept");
    }

    /** The month to which cards are valid that are kept from now on, as on the card. */
    public void cardsExpire(String month) {
        expiry = month;
    }

    /** From now on what is taken from a kept card is refused. */
    public void refuse(String method, String why) {
        refusals.put(method, why);
    }

    /** From now on it does what it is asked, and its answers are lost; or no longer. */
    public void silent(boolean now) {
        silent = now;
    }

    /** How an order stands there. */
    public String state(String order) {
        return states.get(order);
    }

    /** How often something was taken from a kept card, or refused. */
    public int chargesOf(String method) {
        return charges.getOrDefault(method, 0);
    }

    /** Whether it was told to forget a kept card. */
    public boolean forgot(String method) {
        return forgotten.contains(method);
    }

    /** How many orders it was ever asked for. */
    public int orders() {
        return states.size();
    }

    private String answer(String id, String state) {
        boolean paid = state.equals("paid");
        boolean held = state.equals("held");
        String name = ways.getOrDefault(id, "Test card");
        String way = ways.containsKey(id) ? name.toLowerCase(java.util.Locale.ROOT) : "card";
        String amount = amounts.getOrDefault(id, "1.00");
        String why = refusals.getOrDefault(from.getOrDefault(id, ""), "");
        return """
                {"id":"%s","state":"%s","amount":"%s","currency":"EUR","payAt":"http://localhost/pay/%s","test":false,
                 "reason":"%s","paid":%s,"with":%s,"lapsesOn":%s,"attempts":[]}
                """.formatted(
                id,
                state,
                amount,
                id,
                state.equals("refused") ? why : "",
                paid
                        ? "{\"payment\":\"pay-%s\",\"on\":\"2027-03-01\",\"amount\":\"%s\",\"fee\":\"0.30\"}"
                                .formatted(id, amount)
                        : "null",
                paid || held
                        ? "{\"way\":\"%s\",\"name\":\"%s\",\"lastFour\":\"0019\",\"expiry\":\"%s\",\"keptAs\":%s}"
                                .formatted(way, name, expiry, keeping.contains(id) ? "\"kept-" + id + "\"" : "null")
                        : "null",
                held ? "\"2027-03-08\"" : "null");
    }

    @Override
    public void close() {
        http.stop(0);
    }
}
