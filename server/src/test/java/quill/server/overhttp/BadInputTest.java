package quill.server.overhttp;

import static org.assertj.core.api.Assertions.assertThat;

import com.standardwebhooks.Webhook;
import java.net.URI;
import java.net.http.HttpRequest;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.http.Api;

/** Slips and worse: a clear error beside its field, and nothing lost. */
public class BadInputTest extends InAWorld {
    private long client;

    @BeforeClass
    public void begin() {
        client = api.client("Bad Input");
    }

    /** One of each shape: a cell, a cell left empty, and what belongs to no cell. The core knows every sentence. */
    @DataProvider
    Object[][] slips() {
        return new Object[][] {
            {"lines[0].quantity", "quantity", "abc", "such as 14.5"},
            {"lines[0].description", "description", "", "say what"},
            {"total", "quantity", "-1", "credit note"},
        };
    }

    @Test(dataProvider = "slips")
    @SuppressWarnings("unchecked")
    public void aSlipOnALineIsNamedKeptAndNotIssued(String field, String cell, String typed, String message) {
        Map<String, Object> draft = api.draft(client, "100.00", "100%@30");
        ((List<Map<String, Object>>) draft.get("lines")).get(0).put(cell, typed);
        assertThat(api.post("/api/reckonings", draft).problem(field)).contains(message);
        refusedAndKept(draft, field, message);
    }

    @Test
    public void missingClientAndDateAreNamed() {
        Map<String, Object> draft = api.draft(null, "100.00", "100%@30");
        refusedAndKept(draft, "clientId", "choose the client");
        draft.put("clientId", client);
        draft.put("supplyDate", "");
        refusedAndKept(draft, "supplyDate", "say when");
    }

    @Test
    public void installmentsOf110PercentAreRefused() {
        refusedAndKept(api.draft(client, "100.00", "60%@0", "50%@30"), "schedule[1].share", "make 110% together");
    }

    @Test
    public void anUnknownCurrencyIsRefused() {
        Map<String, Object> draft = api.draft(client, "100.00", "100%@30");
        draft.put("currency", "XQZ");
        refusedAndKept(draft, "currency", "ISO 4217");
    }

    private void refusedAndKept(Map<String, Object> draft, String field, String message) {
        long id = api.post("/api/invoices", draft).ok().path("id").asLong();
        Api.Answer refused = api.post("/api/invoices/" + id + "/issue", Map.of("version", 1));
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.problem(field)).contains(message);
        var kept = api.get("/api/invoices/" + id).ok().path("draft").path("typed");
        assertThat(kept.path("lines").get(0).path("quantity").asString())
                .isEqualTo(((Map<?, ?>) ((List<?>) draft.get("lines")).get(0)).get("quantity"));
        api.send("DELETE", "/api/invoices/" + id + "?version=1", null).ok();
    }

    @Test
    public void twoWindowsOnOneDraftNeverOverwriteInSilence() {
        Map<String, Object> draft = api.draft(client, "100.00", "100%@30");
        long id = api.post("/api/invoices", draft).ok().path("id").asLong();
        api.put("/api/invoices/" + id, Map.of("version", 1, "typed", draft)).ok();
        Api.Answer other = api.put("/api/invoices/" + id, Map.of("version", 1, "typed", draft));
        assertThat(other.status()).isEqualTo(409);
        assertThat(other.text()).contains("changed in another window");
        assertThat(api.post("/api/invoices/" + id + "/issue", Map.of("version", 1))
                        .status())
                .isEqualTo(409);
    }

    @Test
    public void deadLinksAndUnknownAddressesAreToldAsProblems() {
        Api nobody = new Api(world);
        Api.Answer dead = nobody.get("/api/public/no-such-link");
        assertThat(dead.status()).isEqualTo(404);
        assertThat(dead.text()).contains("leads nowhere");
        Api.Answer unknown = api.get("/api/nonsense");
        assertThat(unknown.status()).isEqualTo(404);
        assertThat(unknown.text()).contains("no such address");
        assertThat(api.get("/api/invoices/abc").problem("id")).isEqualTo("must be a number");
        assertThat(api.post("/api/reckonings", "{\"lines\": 5}").problem("lines"))
                .contains("another type");
        assertThat(api.post("/api/reckonings", "not json").status()).isEqualTo(400);
    }

    @Test
    public void anEndedSessionIsToldAndNothingIsOpenToStrangers() {
        Api stranger = new Api(world);
        for (String path : List.of("/api/today", "/api/invoices", "/api/clients", "/api/books", "/api/business")) {
            assertThat(stranger.get(path).status()).as(path).isEqualTo(401);
        }
        assertThat(stranger.post("/api/invoices", Map.of()).text()).contains("Sign in again; what you typed stays");
    }

    @Test
    public void guessingAPassphraseIsSlowedDown() {
        Api guesser = new Api(world);
        Map<String, String> guess = Map.of("email", "guess@larkmoor.example", "passphrase", "wrong");
        for (int i = 0; i < 5; i++) {
            assertThat(guesser.post("/api/session", guess).problem("passphrase"))
                    .contains("do not fit");
        }
        assertThat(guesser.post("/api/session", guess).problem("passphrase")).contains("too many tries");
    }

    @Test
    public void aRequestWithoutOurTokenIsNotTrusted() {
        Api.Answer answer = new Api(world)
                .exchange(HttpRequest.newBuilder(URI.create(world.url("/api/session")))
                        .header("Content-Type", "application/json")
                        .POST(HttpRequest.BodyPublishers.ofString("{}"))
                        .build());
        assertThat(answer.status()).isEqualTo(403);
    }

    @Test
    public void paymentsAreCheckedFieldByField() {
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        assertThat(api.transfer(client, invoice, "1.005", "bad-payment-1").problem("amount"))
                .contains("at most 2 decimals");
        assertThat(api.transfer(client, invoice, "0", "bad-payment-2").problem("amount"))
                .contains("above zero");
        assertThat(api.transfer(client, invoice, "5.00", "x").problem("key")).contains("8 to 60");
        Map<String, Object> body = new LinkedHashMap<>(Map.of(
                "key", "bad-payment-3", "clientId", client, "way", "BARTER", "amount", "5", "valueOn", "2030-01-01"));
        body.put("invoiceId", invoice);
        body.put("reference", "");
        Api.Answer answer = api.post("/api/payments", body);
        assertThat(answer.problem("way")).contains("TRANSFER, CASH, CHEQUE or OTHER");
        assertThat(answer.problem("valueOn")).contains("up to today");
        assertThat(api.open(invoice)).isEqualTo("121.00");
    }

    @Test
    public void forgedAndOldEventsAreRefused() throws Exception {
        String body = "{\"type\":\"order.paid\",\"order\":\"order-none\"}";
        long now = Instant.now().getEpochSecond();
        String good = new Webhook(World.SECRET).sign("event-1", now, body);
        assertThat(hook("event-1", now, good, body)).isEqualTo(204);
        assertThat(hook("event-1", now, good, body)).isEqualTo(204);
        assertThat(hook("event-2", now, good, body)).isEqualTo(401);
        assertThat(hook("event-1", now, good, body.replace("none", "other"))).isEqualTo(401);
        long old = now - 3600;
        assertThat(hook("event-3", old, new Webhook(World.SECRET).sign("event-3", old, body), body))
                .isEqualTo(401);
        assertThat(hook("event-4", now, "", body)).isEqualTo(401);
    }

    private int hook(String id, long at, String signature, String body) {
        return new Api(world)
                .exchange(HttpRequest.newBuilder(URI.create(world.url("/api/hooks/processor/settings")))
                        .header("Content-Type", "application/json")
                        .header("webhook-id", id)
                        .header("webhook-timestamp", String.valueOf(at))
                        .header("webhook-signature", signature)
                        .POST(HttpRequest.BodyPublishers.ofString(body))
                        .build())
                .status();
    }
}
