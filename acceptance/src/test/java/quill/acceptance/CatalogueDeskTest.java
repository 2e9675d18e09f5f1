package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;

/** What the catalogue and the settings of paper say, as it goes on to the sheet, the paper and the books. */
public class CatalogueDeskTest extends DemoSuite {
    private Api api;
    private Page page;

    @BeforeClass
    public void begin() {
        api = Api.signedIn(app);
        page = signIn();
    }

    @AfterClass(alwaysRun = true)
    public void end() {
        page.context().close();
    }

    private Locator button(String name) {
        return button(page, name);
    }

    @Test
    public void aCategoryGoesFromItemAndLineIntoTheBooks() {
        api.client("Category Asked");
        page.navigate(app.url("/catalogue/new"));
        page.getByLabel("Description").fill("Bench, restuffed");
        page.getByLabel("Price in EUR").fill("120");
        page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Income category"))
                .fill("Upholstery");
        button("Save").click();
        assertThat(page.locator("h1").last()).hasText("Bench, restuffed");
        page.navigate(app.url("/invoices/new"));
        choose(page, "Category Asked");
        page.getByLabel("What, line 1").fill("restuffed");
        assertThat(page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("Bench, restuffed")))
                .isVisible();
        page.keyboard().press("ArrowDown");
        page.keyboard().press("Enter");
        assertThat(page.getByLabel("Price, line 1")).hasValue("120.00");
        page.getByLabel("What, line 2").fill("A talk on benches");
        page.getByLabel("Quantity, line 2").fill("1");
        page.getByLabel("Price, line 2").fill("30");
        page.getByLabel("More on line 2").click();
        page.getByText("An income category").click();
        // What was called is written at once, without another press.
        assertThat(page.getByLabel("Income category, line 2")).isFocused();
        page.keyboard().type("Benches told");
        assertThat(page.getByText("Kept at")).isVisible();
        issueAndSend(page);
        assertThat(page.locator(".foot")).containsText("Open");
        page.navigate(app.url("/books"));
        Locator rows = page.locator("tr");
        assertThat(rows.filter(new Locator.FilterOptions().setHasText("Upholstery"))
                        .first())
                .containsText("120.00");
        assertThat(rows.filter(new Locator.FilterOptions().setHasText("Benches told"))
                        .first())
                .containsText("30.00");
    }

    @Test
    public void aUnitOfOnesOwnIsKeptAndASlipStandsBesideItsField() {
        page.navigate(app.url("/catalogue/units"));
        page.getByLabel("Unit", new Page.GetByLabelOptions().setExact(true)).fill("octave");
        page.getByLabel("Code of UN/ECE").fill("QQQ");
        button("Keep this unit").click();
        assertThat(page.getByText("must be a code of UN/ECE")).isVisible();
        assertThat(page.getByLabel("Code of UN/ECE")).hasValue("QQQ");
        page.getByLabel("Code of UN/ECE").fill("C62");
        page.keyboard().press("Enter");
        assertThat(page.getByRole(
                        AriaRole.CELL,
                        new Page.GetByRoleOptions().setName("octave").setExact(true)))
                .isVisible();
        page.getByLabel("Forget octave").click();
        assertThat(page.getByRole(
                        AriaRole.CELL,
                        new Page.GetByRoleOptions().setName("octave").setExact(true)))
                .hasCount(0);
    }

    @Test
    public void whatALineShowsIsChosenInSettings() {
        long client = api.client("Amounts Alone");
        page.navigate(app.url("/settings/documents"));
        page.getByLabel("The amount only").check();
        button("Save").click();
        assertThat(page.getByText("The settings are kept")).isVisible();
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        page.navigate(app.url("/settings/documents"));
        page.getByLabel("Quantity and price").check();
        button("Save").click();
        assertThat(page.getByText("The settings are kept")).isVisible();
        page.navigate(app.url("/invoices/" + invoice));
        assertThat(page.locator("table.lines")).containsText("100.00");
        assertThat(page.locator("table.lines th")).hasText(new String[] {"What", "Tax", "Amount"});
    }
}
