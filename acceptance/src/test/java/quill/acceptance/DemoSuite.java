package quill.acceptance;

import com.microsoft.playwright.Page;
import java.net.URI;
import java.net.http.HttpRequest;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import quill.http.Api;
import tools.jackson.databind.JsonNode;

/** With the demo's business as it was played: each class begins with a copy of its own. */
public class DemoSuite extends Suite {
    static Demo demo;
    static App standIns;
    static App app;

    @BeforeClass
    public void startTheDemo() {
        demo = new Demo(java.util.Map.of());
        app = demo.app;
        standIns = demo.outside;
    }

    @AfterClass(alwaysRun = true)
    public void endTheDemo() {
        if (demo != null) {
            demo.close();
        }
    }

    /** A page of the business, signed in. */
    static Page signIn() {
        return demo.signIn();
    }

    /** Turns a dial of the counting house. */
    static void dial(String name, int setting) {
        new Api(standIns)
                .exchange(HttpRequest.newBuilder(URI.create(standIns.url("/counting-house/dials")))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(HttpRequest.BodyPublishers.ofString("dial=" + name + "&setting=" + setting))
                        .build());
    }

    /** What arrived at an address, newest first. */
    static JsonNode letters(String address) {
        return new Api(standIns).get("/post-room/boxes/" + address).ok();
    }

    static boolean hasLetter(String address, String subject) {
        for (JsonNode letter : letters(address)) {
            if (letter.path("subject").asString().contains(subject)) {
                return true;
            }
        }
        return false;
    }
}
