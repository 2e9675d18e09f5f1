package quill.server.overhttp;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.stream.IntStream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Ports;
import tools.jackson.databind.JsonNode;

/** Who gets in, and what those outside can do to those inside: a business of its own, on an empty folder. */
public class DoorsTest {
    private static final String OWNER = "owner@doors.example";
    private static final String RIGHT = "felt hammers and copper strings";
    private static final String NEXT = "another long passphrase";
    private World own;
    private Api owner;
    private long client;

    @BeforeClass
    public void open() {
        // Nobody takes its letters.
        own = new World("--quill.public-a-minute=240", "--spring.mail.port=" + Ports.free());
        owner = new Api(own);
        owner.firstRun(OWNER, RIGHT, "Doors", true).ok();
        client = owner.client("Through The Door");
    }

    @AfterClass(alwaysRun = true)
    public void close() {
        own.close();
    }

    private Api signedIn(String passphrase) {
        Api api = new Api(own);
        api.post("/api/session", Map.of("email", OWNER, "passphrase", passphrase))
                .ok();
        return api;
    }

    @Test
    public void aNewPassphraseEndsEveryOtherSession() {
        Api other = signedIn(RIGHT);
        assertThat(owner.put("/api/passphrase", Map.of("current", "wrong", "next", NEXT))
                        .problem("current"))
                .contains("is not your passphrase");
        assertThat(owner.put("/api/passphrase", Map.of("current", RIGHT, "next", "short"))
                        .problem("next"))
                .contains("from 12 to 200");
        assertThat(owner.put("/api/passphrase", Map.of("current", RIGHT, "next", OWNER))
                        .problem("next"))
                .contains("too easy to guess");
        owner.put("/api/passphrase", Map.of("current", RIGHT, "next", NEXT)).ok();
        assertThat(other.get("/api/today").status()).isEqualTo(401);
        assertThat(owner.get("/api/today").status()).isEqualTo(200);
        owner.put("/api/passphrase", Map.of("current", NEXT, "next", RIGHT)).ok();
        assertThat(owner.get("/api/access-log").text()).contains("Passphrase changed");
    }

    @Test
    public void sessionsAreListedAndEndedWithTheirStreams() throws Exception {
        Api other = signedIn(RIGHT);
        HttpResponse<java.io.InputStream> stream = other.stream("/api/events");
        JsonNode listed = owner.get("/api/sessions").ok();
        String key = null;
        for (JsonNode session : listed) {
            key = session.path("own").asBoolean() ? key : session.path("key").asString();
        }
        assertThat(listed.size()).isGreaterThanOrEqualTo(2);
        assertThat(owner.send("DELETE", "/api/sessions/" + key, null).status()).isEqualTo(200);
        assertThat(owner.send("DELETE", "/api/sessions/" + key, null).status()).isEqualTo(404);
        assertThat(other.get("/api/today").status()).isEqualTo(401);
        assertThat(toItsEnd(stream.body())).contains("ready");
    }

    /** What a stream said until it ended, by itself or cut off. */
    private static String toItsEnd(java.io.InputStream in) {
        StringBuilder said = new StringBuilder();
        try (in) {
            for (int next = in.read(); next >= 0; next = in.read()) {
                said.append((char) next);
            }
        } catch (java.io.IOException e) {
            return said.toString();
        }
        return said.toString();
    }

    @Test
    public void theBankAccountIsChangedOnlyWithThePassphrase() {
        String business = owner.get("/api/business").ok().path("business").toString();
        String changed = business.replace("\"iban\":\"\"", "\"iban\":\"XX51 LARK 0000 0004 20\"");
        assertThat(owner.put("/api/business", changed).problem("passphrase")).contains("bank account");
        assertThat(owner.post("/api/session/proof", Map.of("passphrase", "wrong"))
                        .problem("passphrase"))
                .contains("is not your passphrase");
        owner.post("/api/session/proof", Map.of("passphrase", RIGHT)).ok();
        String saved = owner.put("/api/business", changed).ok().toString();
        assertThat(owner.put("/api/business", saved.replace("post@larkmoor", "elsewhere@larkmoor"))
                        .problem("passphrase"))
                .as("a proof serves once")
                .contains("e-mail address");
        assertThat(owner.put("/api/business", saved.replace("Here 1", "There 1"))
                        .status())
                .isEqualTo(200);
    }

    @Test
    public void bodiesHaveLimitsBeforeTheyAreRead() throws Exception {
        String mega = "x".repeat(4_000_000);
        assertThat(status("/api/session", "{\"email\":\"" + mega + "\"}", true)).isEqualTo(413);
        assertThat(status("/api/session", "{\"email\":\"" + mega + "\"}", false))
                .as("a body that does not say its length is counted")
                .isEqualTo(413);
        assertThat(status("/api/session", "x".repeat(4097), true)).isEqualTo(413);
        assertThat(status("/api/hooks/processor/settings", "x".repeat(64 * 1024 + 1), true))
                .isEqualTo(413);
        assertThat(status("/api/hooks/processor/settings", "x".repeat(64 * 1024), true))
                .isEqualTo(401);
        Api.Answer draft = owner.post("/api/reckonings", "{\"subject\":\"" + mega + "\"}");
        assertThat(draft.status()).isEqualTo(413);
        assertThat(draft.text()).contains("at most 1 MB can be sent here");
        assertThat(owner.exchange(HttpRequest.newBuilder(URI.create(own.url("/api/session")))
                                .header("Content-Type", "multipart/form-data; boundary=x")
                                .header("X-XSRF-TOKEN", owner.csrf())
                                .POST(HttpRequest.BodyPublishers.ofString("--x--"))
                                .build())
                        .status())
                .isEqualTo(415);
    }

    private int status(String path, String body, boolean saysItsLength) {
        HttpRequest.BodyPublisher known = HttpRequest.BodyPublishers.ofString(body);
        HttpRequest.BodyPublisher sent = saysItsLength
                ? known
                : HttpRequest.BodyPublishers.ofInputStream(() -> new java.io.ByteArrayInputStream(body.getBytes()));
        Api api = new Api(own);
        api.get("/api/session");
        return api.exchange(HttpRequest.newBuilder(URI.create(own.url(path)))
                        .header("Content-Type", "application/json")
                        .header("X-XSRF-TOKEN", api.csrf())
                        .POST(sent)
                        .build())
                .status();
    }

    /** What they are answered is counted, not how long it took: no test asserts a time. */
    @Test
    public void aFloodOfWrongSignInsKeepsTheOwnerNeitherOutNorWaiting() {
        HttpClient http = HttpClient.newHttpClient();
        Api csrf = new Api(own);
        csrf.get("/api/session");
        List<CompletableFuture<HttpResponse<String>>> flood = IntStream.range(0, 60)
                .mapToObj(i -> http.sendAsync(
                        HttpRequest.newBuilder(URI.create(own.url("/api/session")))
                                .header("Content-Type", "application/json")
                                .header("X-XSRF-TOKEN", csrf.csrf())
                                .header("Cookie", "XSRF-TOKEN=" + csrf.csrf())
                                .header("X-Forwarded-For", "10.1.2." + i)
                                .POST(HttpRequest.BodyPublishers.ofString(
                                        "{\"email\":\"" + OWNER + "\",\"passphrase\":\"wrong " + i + "\"}"))
                                .build(),
                        HttpResponse.BodyHandlers.ofString()))
                .toList();
        assertThat(owner.get("/api/today").status()).isEqualTo(200);
        assertThat(owner.post("/api/session", Map.of("email", OWNER, "passphrase", RIGHT))
                        .status())
                .as("a browser that signed in before has a place of its own")
                .isEqualTo(200);
        Map<Integer, Integer> answers = new TreeMap<>();
        flood.forEach(f -> answers.merge(f.join().statusCode(), 1, Integer::sum));
        assertThat(answers.keySet()).isSubsetOf(422, 429);
        assertThat(answers).as("nobody believes the header: it is one address").containsKey(429);
        JsonNode failures = owner.get("/api/access-log").ok();
        assertThat(failures.toString()).contains("Sign-in failed", "127.0.0.1").doesNotContain("10.1.2.");
    }

    @Test
    public void papersAskedForByStrangersHoldUpNobody() {
        long id = owner.post("/api/invoices", owner.draft(client, "100.00", "100%@30"))
                .ok()
                .path("id")
                .asLong();
        owner.post("/api/invoices/" + id + "/issue", Map.of("version", 1)).ok();
        String address = own.url("/api/public/" + owner.token(id) + "/pdf");
        HttpClient http = HttpClient.newHttpClient();
        List<CompletableFuture<HttpResponse<byte[]>>> crowd = new ArrayList<>();
        for (int i = 0; i < 200; i++) {
            crowd.add(http.sendAsync(
                    HttpRequest.newBuilder(URI.create(address)).build(), HttpResponse.BodyHandlers.ofByteArray()));
        }
        assertThat(owner.get("/api/today").status()).isEqualTo(200);
        Map<Integer, Integer> answers = new TreeMap<>();
        crowd.forEach(f -> answers.merge(f.join().statusCode(), 1, Integer::sum));
        assertThat(answers.keySet()).isSubsetOf(200, 429);
        assertThat(answers).containsKeys(200, 429);
    }

    @Test
    public void everyPageCarriesThePolicyAndTheDescriptionIsNotForStrangers() throws Exception {
        for (String path : List.of("/", "/index.html", "/client.html", "/p/anything")) {
            HttpResponse<String> page = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create(own.url(path))).build(),
                            HttpResponse.BodyHandlers.ofString());
            assertThat(page.headers().firstValue("Content-Security-Policy").orElse(""))
                    .as(path)
                    .contains("default-src 'none'", "frame-ancestors 'none'");
            assertThat(page.body()).as(path).doesNotContain("__NONCE__");
        }
        assertThat(new Api(own).get("/v3/api-docs").status()).isEqualTo(401);
        assertThat(new Api(own).get("/v3/api-docs.yaml").status()).isEqualTo(401);
        assertThat(new Api(own).get("/error").status()).isEqualTo(404);
    }
}
