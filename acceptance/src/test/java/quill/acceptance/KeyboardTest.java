package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.Map;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;

/** What is done beside the great story, by keyboard alone: the mouse is never used here. */
public class KeyboardTest extends DemoSuite {
    private Api api;
    private Page page;
    private Hands hands;

    @BeforeClass
    public void begin() {
        api = Api.signedIn(app);
        page = signIn();
        hands = Hands.keys(page);
    }

    @AfterClass(alwaysRun = true)
    public void end() {
        page.context().close();
    }

    /** From a menu that is open, by its arrows. */
    private void item(String name) {
        page.getByRole(AriaRole.MENUITEM).first().waitFor();
        for (int i = 0; i < 20; i++) {
            if (Boolean.TRUE.equals(
                    page.evaluate("name => document.activeElement.innerText.trim().startsWith(name)", name))) {
                page.keyboard().press("Enter");
                page.waitForCondition(() -> page.getByRole(AriaRole.MENUITEM).count() == 0);
                return;
            }
            page.keyboard().press("ArrowDown");
        }
        throw new AssertionError("the arrows never come to " + name);
    }

    private void find(String words) {
        page.keyboard().press("Control+k");
        assertThat(page.getByLabel("Find anything")).isFocused();
        page.keyboard().type(words);
        page.keyboard().press("Enter");
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
    }

    private void heading(String name) {
        assertThat(page.locator("h1").last()).hasText(name);
    }

    @Test
    public void theLightChanges() {
        page.navigate(app.url("/books"));
        hands.press("You");
        item("Candlelight");
        assertThat(page.locator("html")).hasAttribute("data-mantine-color-scheme", "dark");
        hands.press("You");
        item("Daylight");
        assertThat(page.locator("html")).hasAttribute("data-mantine-color-scheme", "light");
    }

    @Test
    public void aClientIsMadeChangedArchivedMergedAndFound() {
        api.client("Keyed Other");
        page.navigate(app.url("/clients"));
        page.waitForSelector(".masthead");
        page.keyboard().press("n");
        item("New client");
        hands.type("Name", "Keyed Client");
        page.keyboard().press("Enter");
        heading("Keyed Client");
        hands.press("Details");
        page.getByRole(AriaRole.DIALOG).waitFor();
        hands.type("Telephone", "+353 1 5550199");
        page.keyboard().press("Enter");
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
        hands.press("More");
        item("Archive");
        assertThat(page.getByText("Archived: offered on no new invoice.")).isVisible();
        hands.press("More");
        item("Take out of the archive");
        Waiting.until(
                "it is found",
                () -> api.get("/api/finding?words=5550199").text().contains("Keyed Client"));
        find("5550199");
        heading("Keyed Client");
        hands.press("More");
        item("Merge into another record");
        page.getByRole(AriaRole.DIALOG).waitFor();
        hands.type("The record that stays", "Keyed Other");
        assertThat(page.locator("[role=option]:visible").first()).hasText("Keyed Other");
        page.keyboard().press("ArrowDown");
        page.keyboard().press("Enter");
        hands.press("Merge");
        heading("Keyed Other");
    }

    @Test
    public void anItemAndABundleAreMadeAndPutOnALine() {
        page.navigate(app.url("/catalogue"));
        page.waitForSelector(".masthead");
        page.keyboard().press("n");
        item("New item");
        hands.type("Description", "Keyed felt");
        hands.type("Price", "3.20");
        page.keyboard().press("Enter");
        heading("Keyed felt");
        page.keyboard().press("n");
        item("New bundle");
        hands.type("Name", "Keyed bundle");
        hands.type("Add an item", "Keyed felt");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Keyed felt"))
                .waitFor();
        page.keyboard().press("Tab");
        page.keyboard().press("Enter");
        hands.press("Save");
        heading("Keyed bundle");
        page.keyboard().press("n");
        page.keyboard().press("Enter");
        assertThat(page.getByLabel("What, line 1")).isVisible();
        hands.type("What, line 1", "Keyed bun");
        // In a hurry: the list has not answered yet.
        page.keyboard().press("ArrowDown");
        page.keyboard().press("Enter");
        assertThat(page.getByLabel("Price, line 1")).hasValue("3.20");
        hands.press("More");
        item("Delete draft");
    }

    @Test
    public void aPaymentIsRecordedAndUndoneAnInvoiceVoidedAndCopied() {
        long client = api.client("Keyed Payer");
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        page.navigate(app.url("/invoices/" + invoice));
        page.locator(".aside").waitFor();
        hands.press("Record a payment");
        page.getByRole(AriaRole.DIALOG).waitFor();
        hands.type("Amount", "21.00");
        page.keyboard().press("Enter");
        assertThat(page.locator(".foot .figure b")).hasText("€100.00");
        hands.press("Undo");
        page.getByRole(AriaRole.DIALOG).waitFor();
        hands.type("Why", "typed twice");
        page.keyboard().press("Enter");
        assertThat(page.locator(".foot .figure b")).hasText("€121.00");
        assertThat(page.locator(".aside")).containsText("undone: typed twice");
        hands.press("No reminders for a while");
        hands.type("No reminders until", "+14");
        hands.press("Mute");
        assertThat(page.locator(".aside")).containsText("No reminders about this invoice until");
        hands.press("Remind again");
        long unseen = api.post("/api/invoices", api.draft(client, "100.00", "100%@30"))
                .ok()
                .path("id")
                .asLong();
        api.post("/api/invoices/" + unseen + "/issue", Map.of("version", 1)).ok();
        page.navigate(app.url("/invoices/" + unseen));
        page.locator(".aside").waitFor();
        assertThat(page.getByText("By bank transfer to")).isVisible();
        hands.press("More");
        item("Void it");
        page.getByRole(AriaRole.DIALOG).waitFor();
        hands.type("Why", "written to the wrong client");
        page.keyboard().press("Enter");
        assertThat(page.getByText("nothing is to be paid")).isVisible();
        assertThat(page.getByText("By bank transfer to")).isHidden();
        hands.press("More");
        item("Write another like it");
        assertThat(page.getByLabel("Price, line 1")).hasValue("100.00");
        hands.press("More");
        item("Delete draft");
    }

    @Test
    public void aListIsOrderedChosenFromAndKept() {
        long client = api.client("Keyed List");
        api.issue(api.draft(client, "100.00", "100%@30"));
        page.navigate(app.url("/invoices/list"));
        page.waitForSelector("tbody tr");
        page.keyboard().press("f");
        page.keyboard().type("Keyed List");
        Locator rows = page.locator("tbody tr");
        assertThat(rows).hasCount(1);
        hands.press("Client");
        assertThat(page.locator("th[aria-sort=ascending]")).containsText("Client");
        hands.press("Keep this view");
        page.keyboard().type("Keyed view");
        page.keyboard().press("Enter");
        assertThat(page.getByText("Forget this view")).isVisible();
        hands.type("Choose all that are shown", " ");
        hands.press("No reminders for a while");
        page.getByRole(AriaRole.DIALOG).waitFor();
        hands.type("Until", "+14");
        page.keyboard().press("Tab");
        hands.press("Mute 1");
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("1 done.");
        hands.press("Close");
        hands.press("Forget this view");
        assertThat(page.getByText("Keyed view", new Page.GetByTextOptions().setExact(true)))
                .hasCount(0);
    }

    @Test
    public void aScheduleIsKeptAndForgotten() {
        page.navigate(app.url("/settings/schedules"));
        page.waitForSelector("h1");
        Locator another = page.locator("form").last();
        another.getByLabel("Name").focus();
        page.keyboard().type("Keyed thirds");
        page.keyboard().press("Enter");
        assertThat(page.locator("section[aria-label='Keyed thirds']")).isVisible();
        page.locator("section[aria-label='Keyed thirds'] button.late").focus();
        page.keyboard().press("Enter");
        assertThat(page.locator("section[aria-label='Keyed thirds']")).hasCount(0);
    }
}
