package quill.standins.countinghouse;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.util.UUID;
import org.springframework.context.ConfigurableApplicationContext;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.standins.StandinsApplication;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Wallets: on the devices that have them, each with a card in it. */
public class WalletsTest {
    private final JsonMapper json = new JsonMapper();
    private ConfigurableApplicationContext context;
    /** One device has wallets, the other none. */
    private HttpClient device;

    private HttpClient other;

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
        device = HttpClient.newBuilder()
                .cookieHandler(new CookieManager())
                .followRedirects(HttpClient.Redirect.ALWAYS)
                .build();
        other = HttpClient.newHttpClient();
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        context.close();
    }

    private void put(String wallet, TestCard card) throws Exception {
        assertThat(form(
                        device,
                        "/counting-house/wallets",
                        "wallet=" + wallet + "&card=" + (card == null ? "" : card.name())))
                .contains("The wallets of this device");
    }

    @Test
    public void aWalletShowsOnlyWhereTheDeviceHasItAndTheOrderTakesIt() throws Exception {
        JsonNode both = order("[\"card\",\"satchel\"]", "");
        String page = "/pay/" + both.path("id").asString();
        assertThat(get(device, page)).doesNotContain("with Satchel");
        put("satchel", TestCard.APPROVED);
        put("hatbox", TestCard.APPROVED);
        assertThat(get(device, page)).contains("with Satchel").doesNotContain("with Hatbox");
        assertThat(get(other, page)).doesNotContain("with Satchel");
        assertThat(form(other, page + "/wallet", "wallet=satchel")).contains("Card number");
        assertThat(form(device, page + "/wallet", "wallet=hatbox")).contains("Card number");
        assertThat(form(device, page + "/wallet", "wallet=satchel"))
                .contains("Paid. Thank you.", "card in Satchel", "0019");
        JsonNode told = api("GET", "/api/orders/" + both.path("id").asString(), "");
        assertThat(told.path("with").path("way").asString()).isEqualTo("satchel");
        assertThat(told.path("with").path("name").asString()).isEqualTo("Satchel");
        assertThat(told.path("paid").path("fee").asString())
                .as("a card pays, and costs what a card costs")
                .isEqualTo("0.59");
        assertThat(form(device, page + "/wallet", "wallet=satchel")).contains("Paid. Thank you.");
        assertThat(context.getBean(Account.class).after(0, 10)).hasSize(1);
        put("satchel", null);
        assertThat(get(device, "/pay/" + order("[\"satchel\"]", "").path("id").asString()))
                .contains("this device has none of them");
    }

    @Test
    public void theCardInItMayBeDeclinedHeldOrContested() throws Exception {
        put("satchel", TestCard.NOT_ENOUGH_FUNDS);
        put("hatbox", TestCard.CONTESTS);
        JsonNode one = order("[\"satchel\",\"hatbox\"]", "");
        String page = "/pay/" + one.path("id").asString();
        assertThat(form(device, page + "/wallet", "wallet=satchel")).contains("Card declined: not enough funds");
        assertThat(form(device, page + "/wallet", "wallet=hatbox")).contains("Paid. Thank you.");
        assertThat(context.getBean(Contests.class).open(one.path("id").asString(), "not as agreed"))
                .isTrue();
        JsonNode held = order("[\"card\",\"hatbox\"]", ",\"hold\":true");
        assertThat(form(device, "/pay/" + held.path("id").asString() + "/wallet", "wallet=hatbox"))
                .contains("Held. Thank you.");
        JsonNode keeps = order("[\"card\",\"hatbox\"]", ",\"keep\":true");
        assertThat(get(device, "/pay/" + keeps.path("id").asString()))
                .as("what is kept is typed")
                .doesNotContain("with Hatbox");
        assertThat(send(
                                other,
                                "POST",
                                "/api/keepings",
                                "{\"description\":\"d\",\"returnTo\":\"r\",\"takes\":[\"satchel\"]}")
                        .statusCode())
                .isEqualTo(422);
    }

    private JsonNode order(String takes, String more) throws Exception {
        return api(
                "POST",
                "/api/orders",
                "{\"amount\":\"10.00\",\"currency\":\"EUR\",\"description\":\"Invoice\",\"returnTo\":\"http://localhost/\",\"takes\":"
                        + takes + more + "}");
    }

    private JsonNode api(String method, String path, String body) throws Exception {
        HttpResponse<String> answer = send(other, method, path, body);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        return json.readTree(answer.body());
    }

    private HttpResponse<String> send(HttpClient from, String method, String path, String body) throws Exception {
        return from.send(
                to(path).header("Authorization", "Bearer k")
                        .header("Idempotency-Key", UUID.randomUUID().toString())
                        .header("Content-Type", "application/json")
                        .method(method, HttpRequest.BodyPublishers.ofString(body))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private String get(HttpClient from, String path) throws Exception {
        return from.send(to(path).build(), HttpResponse.BodyHandlers.ofString()).body();
    }

    private String form(HttpClient from, String path, String fields) throws Exception {
        return from.send(
                        to(path).header("Content-Type", "application/x-www-form-urlencoded")
                                .POST(HttpRequest.BodyPublishers.ofString(fields))
                                .build(),
                        HttpResponse.BodyHandlers.ofString())
                .body();
    }

    private HttpRequest.Builder to(String path) {
        return HttpRequest.newBuilder(
                URI.create("http://localhost:" + context.getEnvironment().getProperty("local.server.port") + path));
    }
}
