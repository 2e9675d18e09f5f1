package quill.acceptance;

import com.microsoft.playwright.Page;
import java.util.Map;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;

/** A story with a business of its own, whose owner sits at the desk. */
public class StorySuite extends Suite {
    Demo demo;
    Page desk;

    @BeforeClass
    public void startAnother() {
        demo = new Demo(Map.of());
        desk = demo.signIn();
    }

    @AfterClass(alwaysRun = true)
    public void end() {
        if (demo != null) {
            demo.close();
        }
    }
}
