package quill.http;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;

/** Speaks to the application as a browser would: cookies, CSRF token, JSON. */
public final class Api {
    /** Whoever owns the tests' business, and what it signs in with. */
    public static final String EMAIL = "odile@larkmoor.example";

    public static final String PASSPHRASE = "felt hammers and copper strings";
    private static final ObjectMapper JSON = new ObjectMapper();
    private final Site site;
    private final CookieManager cookies = new CookieManager();
    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(cookies).build();

    public Api(Site site) {
        this.site = site;
    }

    /** An answer: its status and its JSON, null where there is none. */
    public record Answer(int status, JsonNode json, String text) {
        /** The message beside a field of a refusal, or null. */
        public String problem(String field) {
            for (JsonNode p : json.path("problems")) {
                if (p.path("field").asString().equals(field)) {
                    return p.path("message").asString();
                }
            }
            return null;
        }

        public JsonNode ok() {
            if (status >= 300) {
                throw new AssertionError("status " + status + ": " + text);
            }
            return json;
        }
    }

    /** Fills the first page of an empty installation in. @param taxed whether the business is registered for tax */
    public Answer firstRun(String email, String passphrase, String business, boolean taxed) {
        Map<String, Object> own = new LinkedHashMap<>(Map.of("name", business, "email", "post@larkmoor.example"));
        own.putAll(Map.of("address", "Here 1", "currency", "EUR", "zone", "Europe/Dublin"));
        return post(
                "/api/first-run",
                Map.of(
                        "owner", Map.of("name", "Odile Farrant", "email", email, "passphrase", passphrase),
                        "business", own,
                        "tax", Map.of("registered", taxed, "number", "BE 0", "name", "VAT 21%", "rate", "21")));
    }

    public static Api signedIn(Site site) {
        Api api = new Api(site);
        api.post("/api/session", Map.of("email", EMAIL, "passphrase", PASSPHRASE))
                .ok();
        return api;
    }

    /** Hands on what a browser needs to be signed in as this is: the name and the value of each cookie. */
    public void signInTo(BiConsumer<String, String> browser) {
        cookies.getCookieStore().getCookies().forEach(c -> browser.accept(c.getName(), c.getValue()));
    }

    public Answer get(String path) {
        return send("GET", path, null);
    }

    public Answer post(String path, Object body) {
        return send("POST", path, body);
    }

    public Answer put(String path, Object body) {
        return send("PUT", path, body);
    }

    public Answer send(String method, String path, Object body) {
        if (!"GET".equals(method) && token().isEmpty()) {
            send("GET", "/api/session", null);
        }
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(site.url(path)))
                .header("Content-Type", "application/json")
                .header("X-XSRF-TOKEN", token())
                .method(
                        method,
                        body == null
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofString(
                                        body instanceof String s ? s : JSON.writeValueAsString(body)));
        return exchange(request.build());
    }

    public Answer exchange(HttpRequest request) {
        try {
            HttpResponse<String> response = http.send(request, HttpResponse.BodyHandlers.ofString());
            String text = response.body();
            boolean json = text.startsWith("{") || text.startsWith("[");
            return new Answer(response.statusCode(), json ? JSON.readTree(text) : null, text);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** An answer that goes on for as long as its reader stays. */
    public HttpResponse<java.io.InputStream> stream(String path) throws IOException, InterruptedException {
        return http.send(
                HttpRequest.newBuilder(URI.create(site.url(path))).build(), HttpResponse.BodyHandlers.ofInputStream());
    }

    public byte[] bytes(String path) {
        try {
            return http.send(
                            HttpRequest.newBuilder(URI.create(site.url(path))).build(),
                            HttpResponse.BodyHandlers.ofByteArray())
                    .body();
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The CSRF token, for a request that is not JSON. */
    public String csrf() {
        return token();
    }

    public void forgetSession() {
        cookies.getCookieStore().removeAll();
    }

    private String token() {
        return cookies.getCookieStore().getCookies().stream()
                .filter(c -> c.getName().equals("XSRF-TOKEN"))
                .map(HttpCookie::getValue)
                .findFirst()
                .orElse("");
    }

    public long client(String name) {
        String email = name.toLowerCase().replaceAll("[^a-z]", "") + "@clients.example";
        return post(
                        "/api/clients",
                        Map.of(
                                "id",
                                0,
                                "name",
                                name,
                                "contact",
                                "",
                                "email",
                                email,
                                "address",
                                "Here 1",
                                "taxNumber",
                                "",
                                "version",
                                1))
                .ok()
                .path("id")
                .asLong();
    }

    public String firstTax() {
        return get("/api/business").ok().path("taxes").get(0).path("id").asString();
    }

    /** A draft that can be issued: one line of that price, and installments such as {@code d40%@0}. */
    public Map<String, Object> draft(Long client, String price, String... terms) {
        List<Map<String, Object>> schedule = new ArrayList<>();
        for (String term : terms) {
            String[] part = term.split("@");
            schedule.add(Map.of(
                    "deposit", part[0].startsWith("d"), "share", part[0].replaceFirst("^d", ""), "days", part[1]));
        }
        Map<String, Object> line = new LinkedHashMap<>(
                Map.of("description", "Work", "quantity", "1", "unit", "", "unitPrice", price, "discount", ""));
        line.put("taxes", List.of(firstTax()));
        Map<String, Object> draft = new LinkedHashMap<>();
        draft.put("clientId", client);
        draft.put("currency", "EUR");
        draft.put("subject", "some work");
        draft.put("supplyDate", "2027-03-01");
        draft.put("taxInside", false);
        draft.put("lines", new ArrayList<>(List.of(line)));
        draft.put("schedule", schedule);
        return draft;
    }

    /** Writes, issues and sends. @return the invoice's id */
    public long issue(Map<String, Object> draft) {
        long id = post("/api/invoices", draft).ok().path("id").asLong();
        post("/api/invoices/" + id + "/issue-and-send", Map.of("version", 1)).ok();
        return id;
    }

    public String token(long invoice) {
        String link =
                get("/api/invoices/" + invoice).ok().path("issued").path("link").asString();
        return link.substring(link.lastIndexOf('/') + 1);
    }

    public String open(long invoice) {
        return get("/api/invoices/" + invoice)
                .ok()
                .path("issued")
                .path("open")
                .path("amount")
                .asString();
    }

    public Answer transfer(long client, Long invoice, String amount, String key) {
        Map<String, Object> body = new LinkedHashMap<>();
        body.put("key", key);
        body.put("clientId", client);
        body.put("invoiceId", invoice);
        body.put("way", "TRANSFER");
        body.put("amount", amount);
        body.put("valueOn", "");
        body.put("reference", "");
        return post("/api/payments", body);
    }

    /** Asks to pay what the page offers. @return the answer with the processor's address */
    public Answer order(String token, JsonNode choice) {
        return post(
                "/api/public/" + token + "/orders",
                Map.of(
                        "installments",
                        choice.path("installments"),
                        "amount",
                        choice.path("amount").path("amount").asString(),
                        "currency",
                        "EUR"));
    }

    public JsonNode choice(String token, int which) {
        return get("/api/public/" + token).ok().path("paying").path("choices").get(which);
    }

    /** Types a card on the processor's page, as a payer would. @return the page that follows */
    public String typeCard(String payAt, String number) {
        String form = "number=" + number + "&expiry=" + URLEncoder.encode("09/29", StandardCharsets.UTF_8);
        return exchange(HttpRequest.newBuilder(URI.create(payAt))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(HttpRequest.BodyPublishers.ofString(form))
                        .build())
                .text();
    }

    /** Whether every account sums to zero and every client's debts and entries agree. */
    public boolean booksAgree() {
        JsonNode books = get("/api/books").ok();
        return books.path("disagreeing").isEmpty()
                && !books.path("sum").path("amount").asString().matches(".*[1-9].*");
    }
}
