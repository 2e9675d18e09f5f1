package quill.standins.countinghouse;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.time.LocalDate;
import java.util.UUID;
import org.springframework.context.ConfigurableApplicationContext;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.standins.StandinsApplication;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Cards and bank accounts that are kept, taken from, and forgotten, over HTTP as a business and a payer see them. */
public class KeptMethodsTest {
    private static final LocalDate MONDAY = LocalDate.of(2027, 3, 1);
    private final JsonMapper json = new JsonMapper();
    private final HttpClient http = HttpClient.newHttpClient();
    private ConfigurableApplicationContext context;

    @BeforeMethod
    public void start() throws IOException {
        context = StandinsApplication.start(
                "--server.port=0",
                "--standins.smtp-port=0",
                "--standins.imap-port=0",
                "--standins.api-key=k",
                "--standins.webhook-secret=whsec_c2VjcmV0LW9mLXRoZS10ZXN0cw==",
                "--standins.webhook-url=http://127.0.0.1:9/nobody",
                "--standins.data=" + Files.createTempDirectory("counting-house"));
        context.getBean(Days.class).moveTo(MONDAY);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        context.close();
    }

    @Test
    public void aCardIsKeptWithAPaymentAndTakenFromLaterAndForgotten() throws Exception {
        JsonNode first = order("10.00", ",\"keep\":true");
        assertThat(form("/pay/" + first.path("id").asString(), "number=9901000000000019&expiry=09/29"))
                .contains("Paid. Thank you.");
        JsonNode kept = get("/api/orders/" + first.path("id").asString()).path("with");
        assertThat(kept.path("lastFour").asString()).isEqualTo("0019");
        assertThat(kept.path("expiry").asString()).isEqualTo("09/29");
        String method = kept.path("keptAs").asString();
        JsonNode later = order("25.00", ",\"method\":\"" + method + "\"");
        assertThat(later.path("state").asString()).isEqualTo("open");
        // Nobody can pay it by another card, and nothing is taken before the business says so.
        assertThat(form("/pay/" + later.path("id").asString(), "number=9901000000000019&expiry=09/29"))
                .contains("Nothing is to be typed");
        String charge = "/api/orders/" + later.path("id").asString() + "/charge";
        assertThat(post(charge, "").path("state").asString()).isEqualTo("paid");
        String payment = post(charge, "").path("paid").path("payment").asString();
        assertThat(payment)
                .isEqualTo(post(charge, "").path("paid").path("payment").asString());
        assertThat(context.getBean(Account.class).after(0, 10)).hasSize(2);
        assertThat(call("DELETE", "/api/methods/" + method, "").statusCode()).isEqualTo(204);
        assertThat(call("DELETE", "/api/methods/" + method, "").statusCode()).isEqualTo(204);
        JsonNode gone = order("5.00", ",\"method\":\"" + method + "\"");
        JsonNode refused = post("/api/orders/" + gone.path("id").asString() + "/charge", "");
        assertThat(refused.path("state").asString()).isEqualTo("refused");
        assertThat(refused.path("reason").asString()).isEqualTo("it is not kept any more");
        assertThat(context.getBean(Account.class).after(0, 10)).hasSize(2);
    }

    @Test
    public void withoutAPaymentACardOrAnAccountIsKept() throws Exception {
        JsonNode card = keeping();
        String page = "/keep/" + card.path("id").asString();
        assertThat(form(page, "number=9904000000000040&expiry=09/29")).contains("Card declined: refused by the bank");
        assertThat(form(page, "number=4111111111111111&expiry=09/29")).contains("Only the test cards");
        assertThat(form(page, "number=9905000000000056&expiry=09/29")).contains("Code from your bank");
        assertThat(form(page + "/code", "code=1")).contains("code was wrong");
        assertThat(form(page + "/code", "code=2468")).contains("Kept. Thank you.");
        assertThat(form(page, "number=9901000000000019&expiry=09/29")).contains("Kept. Thank you.");
        JsonNode kept = get("/api/keepings/" + card.path("id").asString());
        assertThat(kept.path("state").asString()).isEqualTo("kept");
        assertThat(kept.path("kept").path("lastFour").asString()).isEqualTo("0056");
        JsonNode account = keeping();
        String accountPage = "/keep/" + account.path("id").asString() + "/debit";
        assertThat(form(accountPage, "agreed=true")).contains("Choose the bank account.");
        assertThat(form(accountPage, "account=GOOD")).contains("Tick that sums may be taken");
        assertThat(form(accountPage, "account=GOOD&agreed=true")).contains("Kept. Thank you.");
        String mandate = get("/api/keepings/" + account.path("id").asString())
                .path("kept")
                .path("method")
                .asString();
        JsonNode order = order("30.00", ",\"method\":\"" + mandate + "\",\"takes\":[\"debit\"]");
        assertThat(post("/api/orders/" + order.path("id").asString() + "/charge", "")
                        .path("state")
                        .asString())
                .isEqualTo("underway");
    }

    @Test
    public void whatIsKeptMayBeRefusedLater() throws Exception {
        for (String[] each : new String[][] {
            {"number=9908000000000087&expiry=09/29", "refused by the bank"},
            {"number=9902000000000026&expiry=09/29", "not enough funds"},
            {"number=9901000000000019&expiry=03/27", "the card has expired"}
        }) {
            context.getBean(Days.class).moveTo(MONDAY);
            JsonNode keeping = keeping();
            form("/keep/" + keeping.path("id").asString(), each[0]);
            String method = get("/api/keepings/" + keeping.path("id").asString())
                    .path("kept")
                    .path("method")
                    .asString();
            if (each[1].contains("expired")) {
                context.getBean(Days.class).moveTo(MONDAY.plusMonths(1));
            }
            JsonNode order = order("30.00", ",\"method\":\"" + method + "\"");
            JsonNode said = post("/api/orders/" + order.path("id").asString() + "/charge", "");
            assertThat(said.path("state").asString()).isEqualTo("refused");
            assertThat(said.path("reason").asString()).isEqualTo(each[1]);
        }
        assertThat(context.getBean(Account.class).after(0, 10)).isEmpty();
    }

    /** All that a business may call is described. */
    @Test
    public void itsInterfaceIsDescribed() throws Exception {
        JsonNode paths = get("/counting-house/openapi").path("paths");
        assertThat(paths.propertyNames())
                .contains(
                        "/api/orders",
                        "/api/orders/{id}",
                        "/api/orders/{id}/withdrawal",
                        "/api/orders/{id}/charge",
                        "/api/orders/{id}/taking",
                        "/api/orders/{id}/release",
                        "/api/keepings",
                        "/api/keepings/{id}",
                        "/api/methods/{id}",
                        "/api/refunds",
                        "/api/contests/{id}/answer",
                        "/api/account/entries")
                .allMatch(p -> p.startsWith("/api/"));
    }

    @Test
    public void badCallsAreRefused() throws Exception {
        assertThat(call("POST", "/api/orders", asked("1.00", ",\"method\":\"kept-nothing\""))
                        .statusCode())
                .isEqualTo(422);
        assertThat(call("POST", "/api/orders", asked("1.00", ",\"keep\":true,\"test\":true"))
                        .statusCode())
                .isEqualTo(422);
        JsonNode open = order("1.00", "");
        assertThat(call("POST", "/api/orders/" + open.path("id").asString() + "/charge", "")
                        .statusCode())
                .isEqualTo(409);
        assertThat(call("DELETE", "/api/methods/kept-nothing", "").statusCode()).isEqualTo(404);
        assertThat(call("GET", "/api/keepings/none", "").statusCode()).isEqualTo(404);
        assertThat(call("POST", "/api/keepings", "{\"description\":\"x\"}").statusCode())
                .isEqualTo(422);
        JsonNode withdrawn = keeping();
        String id = withdrawn.path("id").asString();
        assertThat(post("/api/keepings/" + id + "/withdrawal", "").path("state").asString())
                .isEqualTo("withdrawn");
        assertThat(form("/keep/" + id, "number=9901000000000019&expiry=09/29")).contains("Nothing was kept");
    }

    private static String asked(String amount, String more) {
        return "{\"amount\":\"" + amount + "\",\"currency\":\"EUR\",\"description\":\"Invoice\",\"returnTo\":"
                + "\"http://localhost/\"" + more + "}";
    }

    private JsonNode order(String amount, String more) throws Exception {
        return post("/api/orders", asked(amount, more));
    }

    private JsonNode keeping() throws Exception {
        return post(
                "/api/keepings",
                "{\"description\":\"For later\",\"returnTo\":\"http://localhost/\",\"takes\":[\"card\",\"debit\"]}");
    }

    private JsonNode post(String path, String body) throws Exception {
        HttpResponse<String> answer = call("POST", path, body);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        return json.readTree(answer.body());
    }

    private JsonNode get(String path) throws Exception {
        return json.readTree(call("GET", path, "").body());
    }

    private String form(String path, String body) throws Exception {
        return http.send(
                        HttpRequest.newBuilder(url(path))
                                .header("Content-Type", "application/x-www-form-urlencoded")
                                .POST(HttpRequest.BodyPublishers.ofString(body))
                                .build(),
                        HttpResponse.BodyHandlers.ofString())
                .body();
    }

    private HttpResponse<String> call(String method, String path, String body) throws Exception {
        return http.send(
                HttpRequest.newBuilder(url(path))
                        .header("Authorization", "Bearer k")
                        .header("Idempotency-Key", UUID.randomUUID().toString())
                        .header("Content-Type", "application/json")
                        .method(method, HttpRequest.BodyPublishers.ofString(body))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private URI url(String path) {
        return URI.create("http://127.0.0.1:" + context.getEnvironment().getProperty("local.server.port") + path);
    }
}
