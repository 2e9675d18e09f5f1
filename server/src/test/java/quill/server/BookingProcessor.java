package quill.server;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A card processor that keeps an account for the business, and books in it what each test wants to happen. Sums are in EUR. */
public final class BookingProcessor implements AutoCloseable {
    /** What a contested payment costs. */
    public static final BigDecimal CONTESTED = new BigDecimal("15.00");

    private static final Pattern AMOUNT = Pattern.compile("\"amount\":\"?([0-9.]+)");
    private final Map<String, String> amounts = new ConcurrentHashMap<>();
    private final Map<String, String> states = new ConcurrentHashMap<>();
    private final List<String> entries = new ArrayList<>();
    /** Refunds that were asked for and are not sent yet: their keys with their sums. */
    private final Map<String, String> refunds = new ConcurrentHashMap<>();

    private final Map<String, String> contests = new HashMap<>();
    private final HttpServer http;
    private BigDecimal held = BigDecimal.ZERO;
    private int paidOut;
    private volatile boolean dumb;

    /** Listens on a port of its own. */
    public BookingProcessor() throws IOException {
        http = HttpServer.create(OwnPort.at("processor"), 0);
        http.createContext("/api/orders", e -> {
            String key = e.getRequestHeaders().getFirst("Idempotency-Key");
            String id = key != null ? key : e.getRequestURI().getPath().split("/")[3];
            Matcher m = AMOUNT.matcher(new String(e.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
            if (m.find()) {
                amounts.putIfAbsent(id, m.group(1));
            }
            states.computeIfAbsent(id, k -> "open");
            if (e.getRequestURI().getPath().endsWith("/withdrawal")
                    && states.get(id).equals("open")) {
                states.put(id, "withdrawn");
            }
            answer(e, order(id, states.get(id)));
        });
        http.createContext("/api/account/entries", e -> {
            int after = Integer.parseInt(e.getRequestURI().getQuery().replaceAll("\\D", ""));
            answer(
                    e,
                    dumb
                            ? "a page of somebody else's"
                            : "["
                                    + String.join(",", entries.subList(Math.min(after, entries.size()), entries.size()))
                                    + "]");
        });
        http.createContext("/api/refunds", e -> {
            Matcher m = AMOUNT.matcher(new String(e.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
            refunds.put(e.getRequestHeaders().getFirst("Idempotency-Key"), m.find() ? m.group(1) : "");
            answer(e, "{}");
        });
        http.start();
    }

    private static void answer(HttpExchange exchange, String body) throws IOException {
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", "application/json");
        exchange.sendResponseHeaders(200, bytes.length);
        exchange.getResponseBody().write(bytes);
        exchange.close();
    }

    private String order(String id, String state) {
        boolean paid = state.equals("paid");
        return """
                {"id":"%s","state":"%s","amount":"%s","currency":"EUR","payAt":"http://localhost/pay","test":false,
                 "paid":%s,"with":%s,"attempts":[]}
                """.formatted(
                id,
                state,
                amounts.get(id),
                paid
                        ? "{\"payment\":\"pay-%s\",\"on\":\"2027-03-01\",\"amount\":\"%s\",\"fee\":\"%s\"}"
                                .formatted(id, amounts.get(id), fee(id))
                        : "null",
                paid ? "{\"way\":\"card\",\"name\":\"Test card\",\"lastFour\":\"0018\",\"expiry\":null}" : "null");
    }

    /** What it keeps of an order: 2.9 % and 0.30 (common practice). */
    public String fee(String order) {
        return new BigDecimal(amounts.get(order))
                .multiply(new BigDecimal("0.029"))
                .setScale(2, RoundingMode.HALF_UP)
                .add(new BigDecimal("0.30"))
                .toPlainString();
    }

    /** Its address. */
    public String url() {
        return "http://127.0.0.1:" + http.getAddress().getPort();
    }

    /** The orders that it knows. */
    public Set<String> orders() {
        return Set.copyOf(states.keySet());
    }

    /** What an order is for. */
    public String amountOf(String order) {
        return amounts.get(order);
    }

    /** Whether what it says of its account can be read by nobody. */
    public void fallDumb(boolean now) {
        dumb = now;
    }

    /** How many entries it has booked. */
    public int booked() {
        return entries.size();
    }

    /** What it holds for the business. */
    public BigDecimal held() {
        return held;
    }

    /** What it is asked to give back, and has not sent: it has left the books, and not its account. */
    public BigDecimal asked() {
        return refunds.values().stream().map(BigDecimal::new).reduce(BigDecimal.ZERO, BigDecimal::add);
    }

    /** Whether a refund was asked for and is not sent yet. @param key as the business calls it */
    public boolean isAsked(String key) {
        return refunds.containsKey(key);
    }

    private void entry(String kind, String subject, String amount, String cost, String key, String made) {
        held = held.add(new BigDecimal(amount)).subtract(new BigDecimal(cost));
        entries.add("""
                {"number":%d,"kind":"%s","subject":"%s","order":"o","currency":"EUR","amount":"%s","cost":"%s",
                 "on":"2027-03-01","reason":"as it happens","answerBy":"2027-03-20","key":"%s","entries":[%s]}
                """.formatted(entries.size() + 1, kind, subject, amount, cost, key, made));
    }

    /** An order is paid. */
    public void pay(String order) {
        states.put(order, "paid");
        entry("taken", "pay-" + order, amounts.get(order), fee(order), order, "");
    }

    /** What was asked to go back is sent. @param arrives whether it gets there @return its sum; null where nothing was asked */
    public BigDecimal sendBack(boolean arrives) {
        if (refunds.isEmpty()) {
            return null;
        }
        String key = refunds.keySet().iterator().next();
        String amount = refunds.remove(key);
        entry("refunded", key, "-" + amount, "0.00", key, "");
        if (!arrives) {
            entry("refund-failed", key, amount, "0.00", key, "");
        }
        return new BigDecimal(amount);
    }

    /** The payer of an order contests it. */
    public void contest(String order) {
        String contest = "contest-" + entries.size();
        contests.put(contest, order);
        entry("contested", contest, "-" + amounts.get(order), CONTESTED.toPlainString(), order, "");
    }

    /** One that is contested is decided. @return its order; null where none is contested */
    public String decide(boolean won) {
        if (contests.isEmpty()) {
            return null;
        }
        String contest = contests.keySet().iterator().next();
        String order = contests.remove(contest);
        entry(won ? "contest-won" : "contest-lost", contest, won ? amounts.get(order) : "0.00", "0.00", order, "");
        return order;
    }

    /** All that is held goes to the bank, but what comes to less than nothing is carried. @return what went; null for nothing */
    public BigDecimal payOut() {
        if (held.signum() <= 0 || entries.size() == paidOut) {
            return null;
        }
        StringBuilder made = new StringBuilder();
        for (int n = paidOut + 1; n <= entries.size(); n++) {
            made.append(made.isEmpty() ? "" : ",").append(n);
        }
        paidOut = entries.size() + 1;
        BigDecimal all = held;
        entry("paid-out", "payout-" + entries.size(), held.negate().toPlainString(), "0.00", "", made.toString());
        return all;
    }

    @Override
    public void close() {
        http.stop(0);
    }
}
