package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.Map;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/** People's habits at the desk and on the client's page, in the browser. */
public class DeskTest extends DemoSuite {
    @Test
    public void rowsPastedFromASpreadsheetBecomeLines() {
        Page page = signIn();
        page.navigate(app.url("/invoices/new"));
        Locator first = page.getByLabel("What, line 1");
        first.click();
        page.evaluate("""
                () => {
                  const data = new DataTransfer();
                  data.setData('text', 'Tuning\\t2\\t74.00\\nTravel\\t18\\t0.62\\n');
                  document.activeElement.dispatchEvent(
                    new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
                }
                """);
        // What would land is shown first, with the columns as they were recognised.
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog.getByLabel("Column 3")).hasValue("unitPrice");
        assertThat(page.getByLabel("What, line 2")).hasCount(0);
        page.keyboard().press("Enter");
        assertThat(page.getByLabel("What, line 2")).hasValue("Travel");
        assertThat(page.getByLabel("Quantity, line 2")).hasValue("18");
        // 148.00 + 11.16 = 159.16
        assertThat(page.getByTestId("foot-Net")).containsText("159.16");
        page.getByLabel("Quantity, line 1").press("Enter");
        assertThat(page.getByLabel("Price, line 1")).isFocused();
        page.keyboard().press("Enter");
        assertThat(page.getByLabel("What, line 2")).isFocused();
        page.keyboard().press("ArrowUp");
        assertThat(page.getByLabel("What, line 1")).isFocused();
        page.getByLabel("Remove line 2").click();
        assertThat(page.getByTestId("foot-Net")).containsText("148.00");
        deleteDraft(page);
        page.context().close();
    }

    @Test
    public void twoWindowsOnOneDraftAskWhoseCounts() {
        Api api = Api.signedIn(app);
        long client = api.client("Two Windows");
        long id = api.post("/api/invoices", api.draft(client, "10.00", "100%@30"))
                .ok()
                .path("id")
                .asLong();
        Page one = signIn();
        Page two = one.context().newPage();
        one.navigate(app.url("/invoices/" + id));
        two.navigate(app.url("/invoices/" + id));
        assertThat(two.getByLabel("What, line 1")).hasValue("Work");
        one.getByLabel("What, line 1").fill("Mine");
        assertThat(one.getByRole(AriaRole.STATUS)).containsText("Kept at");
        two.getByLabel("What, line 1").fill("Theirs");
        // Both texts are shown; nothing of either is lost.
        Locator both = two.getByRole(AriaRole.DIALOG);
        assertThat(both).containsText("changed in another window");
        assertThat(both).containsText("Theirs · 1 · 10.00");
        assertThat(both).containsText("Mine · 1 · 10.00");
        two.getByText("Take the other").click();
        assertThat(two.getByLabel("What, line 1")).hasValue("Mine");
        two.getByLabel("What, line 1").press("Control+z");
        assertThat(two.getByLabel("What, line 1")).hasValue("Theirs");
        assertThat(two.getByRole(AriaRole.STATUS)).containsText("Kept at");
        String kept = api.get("/api/invoices/" + id)
                .ok()
                .path("draft")
                .path("typed")
                .path("lines")
                .get(0)
                .path("description")
                .asString();
        assertThat(kept).isEqualTo("Theirs");
        one.context().close();
    }

    @Test
    public void theIndexFiltersTurnsAndKeepsItsFilterInTheAddress() {
        Page page = signIn();
        page.navigate(app.url("/invoices"));
        Locator rows = page.locator(".index .row");
        assertThat(rows.first()).isVisible();
        page.keyboard().press("f");
        page.keyboard().type("lindqvist");
        assertThat(rows.first()).containsText("Lindqvist");
        assertThat(page).hasURL(java.util.regex.Pattern.compile(".*filter=lindqvist"));
        page.reload();
        assertThat(page.getByLabel("Filter invoices")).hasValue("lindqvist");
        rows.first().click();
        assertThat(page.locator(".sheet")).containsText("Dr A. Lindqvist");
        String before = page.url();
        rows.first().focus();
        page.keyboard().press("ArrowDown");
        assertThat(page).not().hasURL(before);
        page.getByLabel("Filter invoices").fill("nobody of this name");
        assertThat(page.locator(".index")).containsText("No invoice fits");
        page.context().close();
    }

    @Test
    public void anOldClientPageIsToldTheTruthAndShowsIt() {
        Api api = Api.signedIn(app);
        long client = api.client("Left Open");
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        Page phone = context(390, 844).newPage();
        // This page hears nothing by itself, as on a train.
        phone.route("**/events", route -> route.abort());
        phone.navigate(app.url("/p/" + api.token(invoice)));
        Locator pay = phone.locator("button.pay");
        assertThat(pay).containsText("€121.00");
        api.transfer(client, invoice, "100.00", "left-open-transfer").ok();
        pay.click();
        assertThat(phone.getByRole(AriaRole.ALERT)).containsText("it is 21.00 now, not 121.00. Nothing was taken");
        assertThat(pay).containsText("€21.00");
        phone.context().close();
    }

    @Test
    public void theClientsPageChangesByItselfWhenATransferIsRecorded() {
        Api api = Api.signedIn(app);
        long client = api.client("Watching");
        long invoice = api.issue(api.draft(client, "100.00", "d40%@0", "rest@30"));
        Page phone = context(390, 844).newPage();
        phone.navigate(app.url("/p/" + api.token(invoice)));
        assertThat(phone.locator(".ask")).containsText("€48.40");
        api.transfer(client, invoice, "121.00", "watching-transfer").ok();
        assertThat(phone.locator(".ask")).containsText("is paid");
        assertThat(phone.locator("button.pay")).hasCount(0);
        phone.context().close();
    }

    @Test
    public void aReceiptThatWasAMistakeIsTakenBack() {
        Api api = Api.signedIn(app);
        long client = api.client("Mistaken");
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        JsonNode payment =
                api.transfer(client, invoice, "50.00", "mistaken-transfer").ok();
        Waiting.until("the receipt", () -> hasLetter("mistaken@clients.example", "receipt for €50.00"));
        api.post("/api/payments/" + payment.path("id").asLong() + "/undoing", Map.of("why", "another client's"))
                .ok();
        Waiting.until("the correction", () -> hasLetter("mistaken@clients.example", "a mistake"));
        assertThat(letters("mistaken@clients.example").get(0).path("text").asString())
                .contains("€50.00", "our mistake", "€121.00");
    }

    @Test
    public void settingsAndTaxesAreCheckedFieldByField() {
        Api api = Api.signedIn(app);
        JsonNode own = api.get("/api/business").ok().path("business");
        String text = own.toString();
        assertThat(api.put("/api/business", text.replace("XX51 LARK", "XX52 LARK"))
                        .problem("account.iban"))
                .contains("check digits");
        assertThat(api.put("/api/business", text.replace("Europe/Dublin", "Larkmoor"))
                        .problem("zone"))
                .contains("time zone");
        assertThat(api.put("/api/business", text.replace("{year}-{seq}", "{year}"))
                        .problem("habits.invoicePattern"))
                .contains("{seq}");
        assertThat(api.put("/api/business", text.replace("\"EUR\"", "\"GBP\"")).problem("currency"))
                .contains("stays EUR");
        Api.Answer tax = api.post(
                "/api/business/taxes", Map.of("name", "VAT 21%", "rate", "900", "category", "X", "reason", ""));
        assertThat(tax.problem("name")).contains("taken");
        assertThat(tax.problem("rate")).contains("0% to 100%");
        assertThat(tax.problem("category")).contains("one of S, Z, E");
        assertThat(api.put("/api/business", text.replace("\"version\":1", "\"version\":99"))
                        .status())
                .isEqualTo(409);
    }
}
