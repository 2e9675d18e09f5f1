package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;

/** The list of all invoices and of what came in, as a person works on it. */
public class ListsDeskTest extends DemoSuite {
    private Api api;
    private Page page;
    private long reachable;
    private long settled;

    @BeforeClass
    public void begin() {
        api = Api.signedIn(app);
        reachable = api.client("Listed Anna");
        long other = api.client("Listed Ben");
        api.issue(api.draft(reachable, "100.00", "100%@0"));
        settled = api.issue(api.draft(other, "300.00", "100%@30"));
        api.transfer(other, settled, "363.00", "listed-settled");
        api.post("/api/invoices", api.draft(reachable, "200.00", "100%@30")).ok();
        page = signIn();
    }

    @AfterClass(alwaysRun = true)
    public void end() {
        page.context().close();
    }

    private Locator rows() {
        return page.locator("tbody tr");
    }

    private Locator button(String name) {
        return button(page, name);
    }

    @Test
    public void aListIsOrderedAddedUpKeptUnderANameAndSavedAsItIsShown() throws IOException {
        page.navigate(app.url("/invoices"));
        page.getByText("As a list, to order").click();
        page.getByLabel("Filter all invoices").fill("Listed");
        assertThat(rows()).hasCount(3);
        page.getByText("Total", new Page.GetByTextOptions().setExact(true)).click();
        assertThat(rows().first()).containsText("€363.00");
        page.getByText("Total ↓").click();
        assertThat(rows().first()).containsText("€121.00");
        // 121.00, 363.00 and the draft's 242.00; only the first is open.
        assertThat(page.locator("tfoot")).containsText("€726.00");
        assertThat(page.locator("tfoot")).containsText("€121.00");
        page.getByText("Keep this view…").click();
        page.keyboard().type("The listed");
        page.keyboard().press("Enter");
        assertThat(page.getByText("Forget this view")).isVisible();
        Download file = page.waitForDownload(() -> page.getByText("Save as CSV").click());
        List<String> lines = Files.readAllLines(file.path(), StandardCharsets.UTF_8);
        assertThat(lines).hasSize(4);
        assertThat(lines.get(1)).contains("Listed Anna").endsWith("121.00,121.00");
        page.navigate(app.url("/invoices/list"));
        page.getByText("The listed").click();
        assertThat(rows()).hasCount(3);
        assertThat(page.getByLabel("Filter all invoices")).hasValue("Listed");
        page.getByText("Forget this view").click();
        assertThat(page.getByText("The listed", new Page.GetByTextOptions().setExact(true)))
                .hasCount(0);
    }

    @Test
    public void severalAreSentAndEachFailureIsNamed() {
        page.navigate(app.url("/invoices/list?filter=Listed"));
        page.getByLabel("Choose all that are shown").check();
        assertThat(page.getByText("Drafts cannot be printed yet.")).isVisible();
        button("Send…").click();
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText("is a draft: issue it on its sheet first");
        dialog.getByText("Read it").first().click();
        assertThat(dialog.locator(".letter").first()).containsText("€");
        dialog.getByText("Send 2").click();
        assertThat(dialog).containsText("2 done, 1 not.");
        page.keyboard().press("Escape");
        Waiting.until("the letter", () -> hasLetter("listedanna@clients.example", "invoice"));
        assertThat(letters("listedanna@clients.example")).hasSize(1);
    }

    @Test
    public void aPeriodAndAWayNarrowWhatCameIn() {
        page.navigate(app.url("/money-in/list?filter=Listed"));
        assertThat(rows()).hasCount(1);
        assertThat(page.locator("tfoot")).containsText("€363.00");
        page.getByLabel("Received from").fill("tomorrow");
        page.keyboard().press("Tab");
        assertThat(page.getByText("Nothing that came in fits.")).isVisible();
        page.getByLabel("Received from").fill("");
        page.keyboard().press("Tab");
        page.getByLabel("Show").selectOption("cash");
        assertThat(page.getByText("Nothing that came in fits.")).isVisible();
        page.getByLabel("Show").selectOption("transfer");
        assertThat(rows()).hasCount(1);
    }
}
