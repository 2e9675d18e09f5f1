package quill.acceptance;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import quill.http.Api;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;

/** Nonsense for every address of the API, made from its own description: right here, wrong there, missing, huge, odd. */
final class Fuzz {
    private static final ObjectMapper JSON = new ObjectMapper();

    /** What would end the test's own session, or change whom it signs in as. */
    private static final Set<String> LEFT_OUT =
            Set.of("DELETE /api/session", "PUT /api/passphrase", "POST /api/first-run", "GET /api/events");

    private static final List<String> TEXTS = List.of(
            "",
            " ",
            "null",
            "0",
            "-1",
            "1e9",
            "999999999",
            "1000000000000000000",
            "1,234.56",
            "12%",
            "rest",
            "EUR",
            "JPY",
            "XXX",
            "2027-03-15",
            "2027-99-99",
            "9999-12-31",
            "+292278994-08-17",
            "a\u0000b",
            "two\nlines",
            "\u202Eturned\u202C",
            "東京 Ελλάδα №",
            "\uD83D\uDCA5",
            "\uD800",
            "'; DROP TABLE invoice; --",
            "<script>alert(1)</script>",
            "${jndi:x}",
            "../../etc/passwd",
            "a@b..example",
            "x".repeat(301),
            "y".repeat(5000));

    private final Random random;
    private final JsonNode description;
    private final List<Operation> operations = new ArrayList<>();

    private record Operation(String method, String path, JsonNode details) {}

    /** One request. @param body null where it has none */
    record Shot(String method, String path, String body) {
        @Override
        public String toString() {
            String shown = body == null ? "" : " " + (body.length() > 300 ? body.substring(0, 300) + "…" : body);
            return method + " " + path + shown;
        }
    }

    Fuzz(long seed) {
        this.random = new Random(seed);
        try {
            description = JSON.readTree(Files.readString(App.ROOT.resolve("web/src/api/openapi.json")));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        for (var path : description.path("paths").properties()) {
            for (var operation : path.getValue().properties()) {
                String method = operation.getKey().toUpperCase();
                if (!LEFT_OUT.contains(method + " " + path.getKey())) {
                    operations.add(new Operation(method, path.getKey(), operation.getValue()));
                }
            }
        }
    }

    /** @param tokens of clients' pages, so that some shots hit one */
    Shot next(List<String> tokens) {
        Operation operation = operations.get(random.nextInt(operations.size()));
        String path = operation.path();
        List<String> query = new ArrayList<>();
        for (JsonNode parameter : operation.details().path("parameters")) {
            String name = parameter.path("name").asString();
            boolean token = "token".equals(name) && !tokens.isEmpty() && random.nextInt(4) > 0;
            String value = token
                    ? tokens.get(random.nextInt(tokens.size()))
                    : URLEncoder.encode(odd(), StandardCharsets.UTF_8).replace("+", "%20");
            if ("path".equals(parameter.path("in").asString())) {
                path = path.replace("{" + name + "}", value.isEmpty() ? "1" : value);
            } else if (random.nextInt(4) > 0) {
                query.add(name + "=" + value);
            }
        }
        JsonNode schema = operation
                .details()
                .path("requestBody")
                .path("content")
                .path("application/json")
                .path("schema");
        String body = schema.isMissingNode() ? null : body(schema, operation.path());
        return new Shot(operation.method(), path + (query.isEmpty() ? "" : "?" + String.join("&", query)), body);
    }

    private String odd() {
        return random.nextBoolean()
                ? String.valueOf(1 + random.nextInt(60))
                : TEXTS.get(random.nextInt(TEXTS.size() - 1)).replaceAll("[\\uD800-\\uDFFF]", "?");
    }

    private String body(JsonNode schema, String path) {
        int way = random.nextInt(30);
        if (way == 0) {
            return List.of("null", "[]", "{", "5", "\"x\"", "{\"a\":" + "[".repeat(3000), "")
                    .get(random.nextInt(7));
        }
        Object made = value(schema, 0);
        if (path.equals("/api/business") && made instanceof Map<?, ?> map) {
            // The business stays as it is, so that others can go on working; what is refused is what is tried.
            Map<Object, Object> stale = new LinkedHashMap<>(map);
            stale.put("version", -1);
            made = stale;
        }
        return JSON.writeValueAsString(made);
    }

    private Object value(JsonNode asked, int depth) {
        JsonNode schema = asked;
        if (schema.has("allOf")) {
            schema = schema.path("allOf").get(0);
        }
        if (schema.has("$ref")) {
            String name = schema.path("$ref").asString();
            schema = description.path("components").path("schemas").path(name.substring(name.lastIndexOf('/') + 1));
        }
        if (random.nextInt(12) == 0 || depth > 5) {
            return wrong();
        }
        if (schema.has("enum")) {
            return schema.path("enum")
                    .get(random.nextInt(schema.path("enum").size()))
                    .asString();
        }
        JsonNode known = schema;
        return switch (schema.path("type").asString("object")) {
            case "string" -> TEXTS.get(random.nextInt(TEXTS.size()));
            case "integer", "number" -> random.nextInt(3) == 0 ? random.nextLong() : (long) random.nextInt(40);
            case "boolean" -> random.nextBoolean();
            case "array" -> {
                List<Object> list = new ArrayList<>();
                for (int i = random.nextInt(4); i > 0; i--) {
                    list.add(value(known.path("items"), depth + 1));
                }
                yield list;
            }
            default -> {
                Map<String, Object> map = new LinkedHashMap<>();
                for (var property : known.path("properties").properties()) {
                    if (random.nextInt(10) > 0) {
                        map.put(property.getKey(), value(property.getValue(), depth + 1));
                    }
                }
                yield map;
            }
        };
    }

    private Object wrong() {
        return switch (random.nextInt(6)) {
            case 0 -> null;
            case 1 -> Long.MAX_VALUE;
            case 2 -> List.of(List.of(), "x");
            case 3 -> Map.of("a", Map.of());
            case 4 -> 1.5e300;
            default -> true;
        };
    }

    /** Sends it. @return the status; 0 where the application was away */
    static int send(Api api, App app, Shot shot) {
        try {
            HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(app.url(shot.path())))
                    .header("Content-Type", "application/json")
                    .header("X-XSRF-TOKEN", api.csrf())
                    .timeout(java.time.Duration.ofSeconds(60))
                    .method(
                            shot.method(),
                            shot.body() == null
                                    ? HttpRequest.BodyPublishers.noBody()
                                    : HttpRequest.BodyPublishers.ofString(shot.body()));
            return api.exchange(request.build()).status();
        } catch (UncheckedIOException e) {
            return 0;
        }
    }
}
