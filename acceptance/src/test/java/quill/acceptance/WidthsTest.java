package quill.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.http.Waiting;

/** Every view on any width, and at 200% zoom of a desk's: nothing is cut, and only a table that says so scrolls sideways. */
public class WidthsTest extends DemoSuite {
    private Page page;

    /** What stands out of the window, or can be scrolled sideways, in words. */
    private static final String LOOK = """
            () => {
              const said = [];
              const may = e => e.closest('[data-sideways], .skip, [aria-hidden=true]');
              const wide = document.documentElement.clientWidth;
              for (const e of document.querySelectorAll('body *')) {
                const style = getComputedStyle(e);
                if (/auto|scroll/.test(style.overflowX) && e.scrollWidth > e.clientWidth + 1 && !may(e))
                  said.push('scrolls sideways: ' + e.tagName + '.' + e.className);
              }
              if (document.documentElement.scrollWidth > wide + 1) said.push('the page scrolls sideways');
              for (const e of document.querySelectorAll('a, button, input, select, textarea')) {
                const r = e.getBoundingClientRect();
                if (r.width < 2 || r.height < 2 || may(e) || getComputedStyle(e).visibility === 'hidden') continue;
                if (r.left < -1 || r.right > wide + 1)
                  said.push('cut: ' + (e.getAttribute('aria-label') || e.innerText || e.placeholder || e.tagName));
              }
              return said.slice(0, 6);
            }
            """;

    private static final int[][] WIDTHS = {
        {360, 740}, {390, 844}, {640, 400}, {768, 1024}, {1024, 768}, {1280, 800}, {1920, 1080}
    };

    @DataProvider
    public Object[][] views() {
        return VIEWS.stream().map(v -> new Object[] {v}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "views")
    public void nothingIsCutAndNothingScrollsSideways(String view) {
        page.navigate(app.url(view));
        page.waitForSelector(".place > *");
        Waiting.pause(700);
        List<String> said = new ArrayList<>();
        for (int[] width : WIDTHS) {
            page.setViewportSize(width[0], width[1]);
            Waiting.pause(250);
            for (Object each : (List<?>) page.evaluate(LOOK)) {
                said.add(width[0] + "x" + width[1] + " " + each);
            }
        }
        assertThat(said).as(view).isEmpty();
    }

    @BeforeClass
    public void begin() {
        page = signIn();
    }

    @AfterClass(alwaysRun = true)
    public void end() {
        page.context().close();
    }
}
