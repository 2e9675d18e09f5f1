package quill.acceptance;

import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.Cookie;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import quill.http.Api;
import tools.jackson.databind.JsonNode;

/** A demo of its own, for tests that move the clock. */
final class Demo implements AutoCloseable {
    final App outside;
    final App app;
    Api api;

    Demo(Map<String, String> more) {
        this(temporary(), more, true);
    }

    private Demo(Path own, Map<String, String> more, boolean played) {
        if (played) {
            Kept.copy(played(), own);
        }
        int port = App.freePort();
        int mail = App.freePort();
        outside = App.standIns(own, port, mail);
        Map<String, String> settings = new LinkedHashMap<>(more);
        settings.put("quill.demo", "true");
        settings.put("quill.stand-ins-url", outside.url(""));
        app = begun(own.resolve("app"), port, mail, settings);
        try {
            ready();
        } catch (RuntimeException | Error e) {
            close();
            throw e;
        }
    }

    private static Path temporary() {
        try {
            Path own = Files.createTempDirectory("quill-demo");
            Files.delete(own);
            return own;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The year as it was played, with what the counting house held then, both closed: others begin from a copy. */
    private static Path played() {
        return Kept.of("played", List.of(App.jarOf("server"), App.jarOf("standins")), folder -> {
            Demo first = new Demo(folder, Map.of(), false);
            first.app.stop();
            first.outside.stop();
        });
    }

    /** A demo that does not begin leaves no process behind. */
    private App begun(Path own, int port, int mail, Map<String, String> settings) {
        try {
            return App.server(own, port, outside.port, mail, settings);
        } catch (RuntimeException | Error e) {
            outside.close();
            throw e;
        }
    }

    /** Waits until the year was played, or resumed, and signs in. */
    void ready() {
        app.demoReady();
        api = Api.signedIn(app);
    }

    JsonNode forward(String by) {
        return api.post("/api/demo/clock", Map.of("by", by)).ok();
    }

    void forwardDays(int days) {
        for (int i = 0; i < days; i++) {
            forward("day");
        }
    }

    /** What arrived at an address, newest first. */
    JsonNode letters(String address) {
        return new Api(outside).get("/post-room/boxes/" + address).ok();
    }

    long count(String address, String subject) {
        long count = 0;
        for (JsonNode letter : letters(address)) {
            count += letter.path("subject").asString().contains(subject) ? 1 : 0;
        }
        return count;
    }

    /** A page of the business, signed in: at the door once, over HTTP. */
    Page signIn() {
        return signIn(1280, 800);
    }

    Page signIn(int width, int height) {
        BrowserContext context = Suite.context(width, height);
        Api.signedIn(app)
                .signInTo((name, value) -> context.addCookies(List.of(new Cookie(name, value).setUrl(app.url("/")))));
        Page page = context.newPage();
        page.navigate(app.url("/"));
        page.waitForSelector(".masthead");
        return page;
    }

    @Override
    public void close() {
        app.close();
        outside.close();
    }
}
