package quill.acceptance;

import com.microsoft.playwright.Page;
import org.testng.annotations.BeforeClass;

/** A story that begins with the owner at the desk. */
public class StorySuite extends DemoSuite {
    Page desk;

    @BeforeClass
    public void sitDown() {
        desk = signIn();
    }
}
