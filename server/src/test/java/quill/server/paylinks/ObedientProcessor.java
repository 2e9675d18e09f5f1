package quill.server.paylinks;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A card processor that takes any order and says of it what it is told. Each payment costs 0.30. */
final class ObedientProcessor implements AutoCloseable {
    private static final Pattern AMOUNT = Pattern.compile("\"amount\":\"?([0-9.]+)");
    private final Map<String, String> states = new ConcurrentHashMap<>();
    private final Map<String, String> amounts = new ConcurrentHashMap<>();
    private final HttpServer http;

    ObedientProcessor() throws IOException {
        http = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        http.createContext("/api/orders", exchange -> {
            String path = exchange.getRequestURI().getPath();
            String key = exchange.getRequestHeaders().getFirst("Idempotency-Key");
            String id = key != null ? key : path.split("/")[3];
            Matcher amount =
                    AMOUNT.matcher(new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
            if (amount.find()) {
                amounts.putIfAbsent(id, amount.group(1));
            }
            if (path.endsWith("/withdrawal") && !"paid".equals(states.get(id))) {
                states.put(id, "withdrawn");
            }
            byte[] body = answer(id, states.computeIfAbsent(id, k -> "open")).getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().add("Content-Type", "application/json");
            exchange.sendResponseHeaders(200, body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        http.start();
    }

    String url() {
        return "http://127.0.0.1:" + http.getAddress().getPort();
    }

    /** From now on an order is paid. */
    void pay(String order) {
        states.put(order, "paid");
    }

    String state(String order) {
        return states.get(order);
    }

    /** How many orders it was ever asked for. */
    int orders() {
        return states.size();
    }

    private String answer(String id, String state) {
        boolean paid = state.equals("paid");
        String amount = amounts.getOrDefault(id, "1.00");
        return """
                {"id":"%s","state":"%s","amount":"%s","currency":"EUR","payAt":"http://localhost/pay/%s","test":false,
                 "paid":%s,"with":%s,"attempts":[]}
                """.formatted(
                id,
                state,
                amount,
                id,
                paid
                        ? "{\"payment\":\"pay-%s\",\"on\":\"2027-03-01\",\"amount\":\"%s\",\"fee\":\"0.30\"}"
                                .formatted(id, amount)
                        : "null",
                paid ? "{\"way\":\"card\",\"name\":\"Test card\",\"lastFour\":\"0018\",\"expiry\":null}" : "null");
    }

    @Override
    public void close() {
        http.stop(0);
    }
}
