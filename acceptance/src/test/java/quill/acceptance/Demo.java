package quill.acceptance;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/** A demo of its own, for tests that move the clock. */
final class Demo implements AutoCloseable {
    final App outside;
    final App app;
    Api api;

    Demo(Map<String, String> more) {
        try {
            Path own = Files.createTempDirectory("quill-demo");
            int port = App.freePort();
            int mail = App.freePort();
            Path house = Files.createDirectories(own.resolve("stand-ins"));
            Files.copy(Suite.playedOutside, house.resolve(Suite.COUNTING_HOUSE));
            outside = App.standIns(own, port, mail);
            Suite.copy(Suite.played, own.resolve("app"));
            Map<String, String> settings = new java.util.LinkedHashMap<>(more);
            settings.put("quill.demo", "true");
            settings.put("quill.stand-ins-url", outside.url(""));
            app = begun(own.resolve("app"), port, mail, settings);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
        try {
            ready();
        } catch (RuntimeException | Error e) {
            close();
            throw e;
        }
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

    Page signIn() {
        Page page = Suite.context(1280, 800).newPage();
        page.navigate(app.url("/"));
        page.getByLabel("E-mail address").fill(Suite.EMAIL);
        page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Passphrase"))
                .fill(Suite.PASSPHRASE);
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("Sign in").setExact(true))
                .click();
        page.waitForSelector(".masthead");
        return page;
    }

    @Override
    public void close() {
        app.close();
        outside.close();
    }
}
