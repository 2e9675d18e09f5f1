package quill.server.overhttp;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpRequest;
import java.nio.file.Files;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import org.springframework.context.ConfigurableApplicationContext;
import quill.http.Api;
import quill.http.Ports;
import quill.http.Site;
import quill.server.Server;
import quill.standins.StandinsApplication;
import tools.jackson.databind.JsonNode;

/**
 * The application and the world outside it, in one process, at work by themselves: letters leave, the processor is asked.
 * Its books are in memory, its business is new, and its clock stands at 15 March 2027.
 */
final class World implements Site, AutoCloseable {
    static final String KEY = "test-key";
    static final String SECRET = "c2VjcmV0IG9mIHRoZSB0ZXN0cywgMjQgYnl0ZXM=";
    static final String GOOD_CARD = "9901000000000019";
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 15);

    final Site outside;
    private final ConfigurableApplicationContext standIns;
    private final Server server;

    /** @param more settings over these, such as {@code --quill.public-a-minute=240} */
    World(String... more) {
        int port = Ports.free();
        int smtp = Ports.free();
        int imap = Ports.free();
        int house = Ports.free();
        outside = path -> "http://localhost:" + house + path;
        standIns = StandinsApplication.start(
                "--server.port=" + house,
                "--server.shutdown=immediate",
                // The application's own guard is on this path of classes too.
                "--spring.autoconfigure.exclude=" + String.join(",", guards()),
                "--standins.smtp-port=" + smtp,
                "--standins.imap-port=" + imap,
                "--standins.data=" + folder(),
                "--standins.api-key=" + KEY,
                "--standins.webhook-secret=" + SECRET,
                "--standins.webhook-url=http://localhost:" + port + "/api/hooks/processor/settings");
        List<String> settings = new ArrayList<>(List.of(
                "--server.port=" + port,
                "--spring.mail.port=" + smtp,
                "--quill.processor.url=" + outside.url(""),
                "--quill.processor.api-key=" + KEY,
                "--quill.processor.webhook-secret=" + SECRET,
                "--quill.texts.url=" + outside.url(""),
                "--quill.texts.api-key=" + KEY,
                "--quill.outbox-every=100",
                "--quill.processor.ask-every=1200",
                "--quill.processor.read-every=100",
                "--quill.public-a-minute=100000"));
        settings.addAll(List.of(more));
        server = new Server(settings.toArray(String[]::new));
        server.moveTo(TODAY, LocalTime.of(12, 0));
    }

    private static List<String> guards() {
        String security = "org.springframework.boot.security.autoconfigure.";
        return List.of(
                security + "web.servlet.ServletWebSecurityAutoConfiguration",
                security + "web.servlet.SecurityFilterAutoConfiguration",
                security + "UserDetailsServiceAutoConfiguration");
    }

    private static String folder() {
        try {
            return Files.createTempDirectory("quill-world").toString();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Larkmoor Pianos, registered for tax at 21%, and its owner. @return the owner, signed in */
    Api opened() {
        Api owner = new Api(this);
        owner.firstRun(Api.EMAIL, Api.PASSPHRASE, "Larkmoor Pianos", true).ok();
        return owner;
    }

    @Override
    public String url(String path) {
        return server.url(path);
    }

    Server server() {
        return server;
    }

    /** What arrived at an address, newest first. */
    JsonNode letters(String address) {
        return new Api(outside).get("/post-room/boxes/" + address).ok();
    }

    /** Turns a dial of the counting house. */
    void dial(String name, int setting) {
        new Api(outside)
                .exchange(HttpRequest.newBuilder(URI.create(outside.url("/counting-house/dials")))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(HttpRequest.BodyPublishers.ofString("dial=" + name + "&setting=" + setting))
                        .build());
    }

    @Override
    public void close() {
        server.close();
        standIns.close();
    }
}
