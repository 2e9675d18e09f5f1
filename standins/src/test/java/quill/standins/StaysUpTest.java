package quill.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.zaxxer.hikari.HikariDataSource;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Stream;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.testng.annotations.Test;

/** The stand-ins on an empty folder, once the connections of their start are gone. */
public class StaysUpTest {
    @Test
    public void ordersAreOpenedPaidAndEndedOnLaterConnections() throws Exception {
        Path folder = Files.createTempDirectory("quill-stand-ins");
        try (ConfigurableApplicationContext context = StandinsApplication.start(
                "--server.port=0",
                "--standins.smtp-port=0",
                "--standins.data=" + folder,
                "--standins.api-key=key",
                "--standins.webhook-secret=c2VjcmV0IG9mIHRoZSB0ZXN0cywgMjQgYnl0ZXM=",
                "--standins.webhook-url=http://localhost:9/nobody")) {
            context.getBean(JdbcClient.class)
                    .sql("SELECT 1")
                    .query(Integer.class)
                    .single();
            assertThatThrownBy(() -> ClosedBetween.see(folder.resolve("counting-house.mv.db")))
                    .hasMessageContaining("not closed");
            context.getBean(HikariDataSource.class).getHikariPoolMXBean().softEvictConnections();
            String url = "http://localhost:" + context.getEnvironment().getProperty("local.server.port");
            // Two devices that open it at once find one order, as a key says.
            List<CompletableFuture<HttpResponse<String>>> atOnce = Stream.generate(
                            () -> CompletableFuture.supplyAsync(() -> open(url)))
                    .limit(6)
                    .toList();
            assertThat(atOnce.stream().map(f -> f.join().statusCode())).containsOnly(200);
            HttpResponse<String> opened = open(url);
            String id = opened.body().replaceAll(".*\"id\":\"([^\"]*)\".*", "$1");
            HttpResponse<String> paid = send(
                    url + "/pay/" + id, "application/x-www-form-urlencoded", "number=9901000000000019&expiry=09%2F99");
            assertThat(paid.statusCode()).isEqualTo(200);
            JdbcClient jdbc = context.getBean(JdbcClient.class);
            assertThat(jdbc.sql("SELECT state FROM card_order")
                            .query(String.class)
                            .single())
                    .isEqualTo("paid");
            assertThat(jdbc.sql("""
                            SELECT COUNT(*) FROM information_schema.check_constraints WHERE constraint_schema = 'PUBLIC'
                            """).query(Integer.class).single()).isZero();
        }
        ClosedBetween.see(folder.resolve("counting-house.mv.db"));
    }

    /** By the processor's own clock an order that nobody finished ends after half an hour. */
    @Test
    public void anOrderThatNobodyFinishesEndsAfterHalfAnHour() throws Exception {
        Path folder = Files.createTempDirectory("quill-stand-ins");
        try (ConfigurableApplicationContext context = StandinsApplication.start(
                "--server.port=0", "--standins.smtp-port=0", "--standins.data=" + folder, "--standins.api-key=key")) {
            String url = "http://localhost:" + context.getEnvironment().getProperty("local.server.port");
            HttpResponse<String> opened = open(url);
            String id = opened.body().replaceAll(".*\"id\":\"([^\"]*)\".*", "$1");
            context.getBean(JdbcClient.class)
                    .sql("UPDATE card_order SET made_at = DATEADD('MINUTE', -31, LOCALTIMESTAMP)")
                    .update();
            send(url + "/pay/" + id, "application/x-www-form-urlencoded", "number=9901000000000019&expiry=09%2F99");
            assertThat(context.getBean(JdbcClient.class)
                            .sql("SELECT state FROM card_order")
                            .query(String.class)
                            .single())
                    .isEqualTo("withdrawn");
        }
    }

    private static HttpResponse<String> open(String url) {
        try {
            return send(
                    url + "/api/orders",
                    "application/json",
                    "{\"amount\":10.00,\"currency\":\"EUR\",\"description\":\"x\",\"returnTo\":\"http://localhost/\"}");
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    private static HttpResponse<String> send(String url, String type, String body) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(url))
                                .header("Content-Type", type)
                                .header("Authorization", "Bearer key")
                                .header("Idempotency-Key", "key-" + body.hashCode())
                                .POST(HttpRequest.BodyPublishers.ofString(body))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
    }
}
