package quill.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import com.standardwebhooks.Webhook;
import java.net.URI;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.Test;
import quill.http.Api;
import tools.jackson.databind.JsonNode;

/** Nonsense for every field; and what answered 500 once, by name. */
public class FuzzTest extends DemoSuite {
    @Test
    public void nonsenseIsRefusedAndNeverBreaksAnything() {
        try (Demo demo = new Demo(Map.of())) {
            Fuzz fuzz = new Fuzz(20270315);
            List<String> tokens = new ArrayList<>();
            for (int id = 1; id < 12; id++) {
                JsonNode issued = demo.api.get("/api/invoices/" + id).json().path("issued");
                if (issued.has("link")) {
                    String link = issued.path("link").asString();
                    tokens.add(link.substring(link.lastIndexOf('/') + 1));
                }
            }
            List<String> broken = new ArrayList<>();
            for (int i = 0; i < 3000; i++) {
                Fuzz.Shot shot = fuzz.next(tokens);
                int status = Fuzz.send(demo.api, demo.app, shot);
                if (status >= 500 || status == 0) {
                    broken.add(status + " " + shot);
                }
                if (status == 401) {
                    demo.api = Api.signedIn(demo.app);
                }
            }
            assertThat(broken).isEmpty();
            assertThat(demo.api.booksAgree()).isTrue();
        }
    }

    @Test
    public void whatAnswered500OnceIsRefusedNow() throws Exception {
        Api api = Api.signedIn(app);
        assertThat(status(api, "POST", "/api/imports/ubl", "multipart/form-data", new byte[] {1, 2}))
                .as("a multipart body without a boundary")
                .isEqualTo(400);
        assertThat(api.get("/api/invoices/page?when=settled&after=2027-99-99_1").problem("after"))
                .contains("no key of a page");
        assertThat(api.get("/error").status()).isEqualTo(404);
        long client = api.client("Nonsense Again");
        assertThat(api.post("/api/payments", "{\"key\":\"no-way-given\",\"clientId\":" + client + ",\"amount\":\"1\"}")
                        .problem("way"))
                .contains("TRANSFER");
        assertThat(api.put("/api/business/documents", "{\"layout\":null}").status())
                .isLessThan(500);
        assertThat(api.put("/api/invoices/1", "{\"version\":1}").status()).isLessThan(500);
        assertThat(api.put("/api/reminder-plan", "{\"version\":0}").status()).isLessThan(500);
        String line = "{\"description\":\"x\",\"quantity\":\"1\",\"unitPrice\":\"1\",\"taxes\":[" + "\"a\",".repeat(199)
                + "\"a\"]}";
        Api.Answer many = api.post(
                "/api/reckonings", "{\"currency\":\"EUR\",\"lines\":[" + (line + ",").repeat(999) + line + "]}");
        assertThat(many.text().length())
                .as("an answer to 1,000 lines of 200 unknown taxes")
                .isLessThan(200_000);
        for (String name : List.of("two\nlines", "a\u0000b", "a\u2028b")) {
            assertThat(api.post("/api/clients", Map.of("id", 0, "name", name, "email", "", "version", 1))
                            .problem("name"))
                    .contains("one line");
        }
        assertThat(api.post("/api/clients", Map.of("id", 0, "name", "x", "email", "a@b..example", "version", 1))
                        .problem("email"))
                .contains("name@place.example");
        Map<String, Object> draft = api.draft(client, "999999999", "100%@30");
        draft.put(
                "lines",
                List.of(Map.of(
                        "description",
                        "Work",
                        "quantity",
                        "999999999",
                        "unitPrice",
                        "999999999",
                        "taxes",
                        List.of(api.firstTax()))));
        Api.Answer beyond = api.post("/api/reckonings", draft);
        assertThat(beyond.text()).contains("below 1,000,000,000,000");
        assertThat(api.post("/api/invoices", draft).status())
                .as("a slip is kept all the same")
                .isEqualTo(200);
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        assertThat(api.post(
                                "/api/invoices/" + invoice + "/credit-notes",
                                Map.of("what", "rest", "reason", "r".repeat(300), "replace", false))
                        .status())
                .isEqualTo(200);
    }

    @Test
    public void oddFilesAreRefused() throws Exception {
        Api api = Api.signedIn(app);
        long draft = api.post("/api/invoices", api.draft(api.client("Odd Files"), "1.00", "100%@30"))
                .ok()
                .path("id")
                .asLong();
        assertThat(upload(api, "/api/invoices/" + draft + "/attachments", "a\u0000b.txt", "text".getBytes()))
                .isLessThan(500);
        String deep = "<a>".repeat(20_000) + "</a>".repeat(20_000);
        assertThat(upload(api, "/api/imports/ubl", "deep.xml", deep.getBytes())).isEqualTo(422);
        String utf7 = "<?xml version=\"1.0\" encoding=\"UTF-7\"?><Invoice/>";
        assertThat(upload(api, "/api/imports/ubl", "utf7.xml", utf7.getBytes())).isEqualTo(422);
        String huge = ubl().replaceFirst("(<cbc:PriceAmount[^>]*>)[^<]*", "$11000000000000000000");
        assertThat(upload(api, "/api/imports/ubl", "huge.xml", huge.getBytes(StandardCharsets.UTF_8)))
                .isLessThan(500);
        assertThat(upload(
                        api,
                        "/api/imports/ubl",
                        "huge.xml",
                        huge.replaceFirst("(<cbc:PriceAmount[^>]*>)[^<]*", "$11E999999999")
                                .getBytes(StandardCharsets.UTF_8)))
                .isLessThan(500);
    }

    private static String ubl() {
        Api api = Api.signedIn(app);
        for (int id = 1; id < 60; id++) {
            Api.Answer answer = api.get("/api/invoices/" + id + "/ubl");
            if (answer.status() == 200) {
                return answer.text();
            }
        }
        throw new AssertionError("no invoice of the demo is exported");
    }

    private static int upload(Api api, String path, String name, byte[] content) {
        byte[] head = ("--edge\r\nContent-Disposition: form-data; name=\"file\"; filename=\"" + name
                        + "\"\r\nContent-Type: application/octet-stream\r\n\r\n")
                .getBytes(StandardCharsets.UTF_8);
        byte[] tail = "\r\n--edge--\r\n".getBytes(StandardCharsets.US_ASCII);
        byte[] body = new byte[head.length + content.length + tail.length];
        System.arraycopy(head, 0, body, 0, head.length);
        System.arraycopy(content, 0, body, head.length, content.length);
        System.arraycopy(tail, 0, body, head.length + content.length, tail.length);
        return status(api, "POST", path, "multipart/form-data; boundary=edge", body);
    }

    private static int status(Api api, String method, String path, String type, byte[] body) {
        return api.exchange(HttpRequest.newBuilder(URI.create(app.url(path)))
                        .header("Content-Type", type)
                        .header("X-XSRF-TOKEN", api.csrf())
                        .method(method, HttpRequest.BodyPublishers.ofByteArray(body))
                        .build())
                .status();
    }

    /** Signed as it should be, and no event at all. */
    @Test
    public void aSignedHookThatIsNoEventIsTakenAndForgotten() throws Exception {
        Api api = new Api(app);
        for (String body : List.of("no json", "[]", "null", "{\"order\":5}", "{\"order\":null}", "{}")) {
            String id = "event-odd-" + Math.abs(body.hashCode());
            long now = Instant.now().getEpochSecond();
            int status = api.exchange(HttpRequest.newBuilder(URI.create(app.url("/api/hooks/processor/settings")))
                            .header("Content-Type", "application/json")
                            .header("webhook-id", id)
                            .header("webhook-timestamp", String.valueOf(now))
                            .header("webhook-signature", new Webhook(App.SECRET).sign(id, now, body))
                            .POST(HttpRequest.BodyPublishers.ofString(body))
                            .build())
                    .status();
            assertThat(status).as(body).isEqualTo(204);
        }
    }

    @Test
    public void theCountingHouseRefusesWhatItCannotKeep() {
        for (String body : List.of(
                "{\"amount\":1.2345,\"currency\":\"KWD\",\"description\":\"x\",\"returnTo\":\"y\"}",
                "{\"amount\":1,\"currency\":\"???\",\"description\":\"x\",\"returnTo\":\"y\"}",
                "{\"amount\":1}",
                "{\"amount\":1e30,\"currency\":\"EUR\",\"description\":\"x\",\"returnTo\":\"y\"}")) {
            int status = new Api(standIns)
                    .exchange(HttpRequest.newBuilder(URI.create(standIns.url("/api/orders")))
                            .header("Content-Type", "application/json")
                            .header("Authorization", "Bearer " + App.KEY)
                            .header("Idempotency-Key", "odd-" + body.hashCode())
                            .POST(HttpRequest.BodyPublishers.ofString(body))
                            .build())
                    .status();
            assertThat(status).as(body).isEqualTo(422);
        }
    }
}
