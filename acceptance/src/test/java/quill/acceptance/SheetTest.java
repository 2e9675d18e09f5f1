package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.testng.annotations.Test;

/** The sheet: installments on dates, nothing lost by Tab and blank, a client added on the way, and all of it on a phone. */
public class SheetTest extends DemoSuite {
    @Test
    public void installmentsAreAddedOnDatesAndInEqualParts() {
        Page page = signIn();
        page.navigate(app.url("/invoices/new"));
        write(page, "1 000,00 €");
        page.getByText("+ Installment").click();
        // What it changes is shown before it is taken.
        assertThat(page.getByRole(AriaRole.GROUP, new Page.GetByRoleOptions().setName("With one more")))
                .containsText("605.00");
        page.getByText("Add it").click();
        page.getByLabel(when(2)).fill("15 May 2027");
        assertThat(page.locator(".sheet")).containsText("15 May");
        assertThat(page.getByLabel("Share of installment 1")).hasValue("equal");
        page.getByLabel("Share of installment 1").fill("3x");
        page.getByLabel("Share of installment 1").press("Enter");
        assertThat(page.getByLabel("Share of installment 4")).hasValue("equal");
        page.getByLabel(when(4)).fill("14 May 2027");
        assertThat(page.locator(".sheet .problem").first()).containsText("must not be before the installment above it");
        deleteDraft(page);
        page.context().close();
    }

    @Test
    public void tabAndBlankTakeNothingOffTheSheetAndAKeyBringsALineBack() {
        Page page = signIn();
        page.navigate(app.url("/invoices/new"));
        write(page, "80");
        // Tab walks from field to field; no × stands in its way, so that a blank is only ever a blank.
        page.getByLabel("Price, line 1").focus();
        for (int i = 0; i < 8; i++) {
            page.keyboard().press("Tab");
            page.keyboard().press("Space");
        }
        assertThat(page.getByLabel("What, line 1")).hasValue("Tuning");
        page.getByLabel("Remove line 1").click();
        assertThat(page.getByLabel("What, line 1")).not().hasValue("Tuning");
        page.keyboard().press("Control+z");
        assertThat(page.getByLabel("What, line 1")).hasValue("Tuning");
        assertThat(page.getByLabel("Price, line 1")).hasValue("80");
        deleteDraft(page);
        page.context().close();
    }

    @Test
    public void linesMoveByKeyAndAKeyLeadsOnToTheLetter() {
        Page page = signIn();
        page.navigate(app.url("/invoices/new"));
        choose(page, "Kestrel");
        write(page, "80");
        page.getByLabel("What, line 2").fill("Strings");
        page.getByLabel("Quantity, line 2").fill("3");
        page.getByLabel("Price, line 2").fill("10");
        page.getByLabel("Price, line 2").press("Alt+ArrowUp");
        assertThat(page.getByLabel("What, line 1")).hasValue("Strings");
        assertThat(page.getByLabel("What, line 2")).hasValue("Tuning");
        assertThat(page.getByLabel("Price, line 1")).isFocused();
        page.getByLabel("Price, line 1").press("Alt+ArrowUp");
        assertThat(page.getByLabel("What, line 1")).hasValue("Strings");
        page.getByLabel("Price, line 1").press("Alt+Delete");
        assertThat(page.getByLabel("What, line 1")).hasValue("Tuning");
        page.keyboard().press("Control+Enter");
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("Here is invoice");
        page.keyboard().press("Escape");
        deleteDraft(page);
        page.context().close();
    }

    @Test
    public void aClientAddedFromTheSheetComesBackChosen() {
        Page page = signIn();
        page.navigate(app.url("/invoices/new"));
        write(page, "80");
        choose(page, "A new client");
        assertThat(page.getByLabel("Name")).isFocused();
        page.getByLabel("Name").fill("On The Way");
        page.getByLabel("Address", new Page.GetByLabelOptions().setExact(true)).fill("3 Quay");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Save"))
                .click();
        Locator sheet = page.locator(".sheet");
        assertThat(sheet).containsText("3 Quay");
        assertThat(page.getByLabel("What, line 1")).hasValue("Tuning");
        deleteDraft(page);
        page.context().close();
    }

    @Test
    public void anInvoiceIsWrittenAndIssuedOnAPhone() {
        Page desk = signIn();
        Page page = context(390, 844).newPage();
        page.context()
                .addCookies(desk.context().cookies().stream()
                        .map(c -> new com.microsoft.playwright.options.Cookie(c.name, c.value).setUrl(app.url("/")))
                        .toList());
        desk.context().close();
        page.navigate(app.url("/"));
        page.getByText("Places").click();
        page.getByText("New invoice").click();
        choose(page, "Kestrel");
        write(page, "80");
        issueOnly(page);
        assertThat(page.locator(".sheet .kind").first()).containsText("Invoice 2027-");
        assertThat(page.locator(".aside")).containsText("Issued, not sent yet.");
        page.context().close();
    }

    private static void write(Page page, String price) {
        page.getByLabel("What, line 1").fill("Tuning");
        page.getByLabel("Quantity, line 1").fill("1 h");
        page.getByLabel("Price, line 1").fill(price);
        assertThat(page.getByTestId("foot-Net")).containsText(price.startsWith("1") ? "1,000.00" : "80.00");
    }

    private static String when(int place) {
        return "When installment " + place + " is due";
    }
}
