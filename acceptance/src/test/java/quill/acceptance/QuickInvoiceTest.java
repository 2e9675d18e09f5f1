package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.testng.annotations.Test;
import quill.http.Waiting;

/** Three fields and Enter, by keys alone: what is wrong stands beside its field, then the letter is there. */
public class QuickInvoiceTest extends StorySuite {
    @Test
    public void anAmountATaxAndAClientMakeAnInvoice() {
        long client = demo.api.client("Quick Client");
        desk.keyboard().press("q");
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        Locator to = dialog.getByRole(AriaRole.COMBOBOX, new Locator.GetByRoleOptions().setName("To"));
        assertThat(to).isFocused();
        desk.keyboard().press("Enter");
        assertThat(dialog).containsText("choose a client");
        to.pressSequentially("Quick Cl");
        assertThat(desk.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("Quick Client")))
                .isVisible();
        desk.keyboard().press("Enter");
        Locator amount = dialog.getByLabel("Amount without tax, in EUR");
        assertThat(amount).isFocused();
        desk.keyboard().type("eighty");
        desk.keyboard().press("Enter");
        assertThat(dialog).containsText("write a number such as");
        amount.fill("80");
        assertThat(dialog).containsText("€96.80 in all");
        desk.keyboard().press("Enter");
        assertThat(dialog.locator(".letter")).containsText("In all, due 14 April 2027: €96.80");
        // The hands stay at the keys: the next Enter sends.
        assertThat(button(desk, "Issue and send")).isFocused();
        button(desk, "Not now").click();
        assertThat(dialog).hasCount(0);
        // Loaded again, it is a draft like any other.
        desk.reload();
        assertThat(desk.getByTestId("foot-Total")).containsText("96.80");
        assertThat(dialog).hasCount(0);
        issueAndSend(desk);
        assertThat(desk.locator(".sheet .kind").first()).containsText("Invoice 2027-");
        Waiting.until(
                "the letter",
                java.time.Duration.ofSeconds(60),
                () -> demo.count("quickclient@clients.example", "invoice") == 1);
        org.assertj.core.api.Assertions.assertThat(owes(client)).isEqualTo("96.80");
        writtenOffAndOwedAgain(client);
    }

    private String owes(long client) {
        return demo.api
                .get("/api/clients/" + client)
                .ok()
                .path("sums")
                .path("owes")
                .path("amount")
                .asString();
    }

    /** The same invoice is given up, and money comes after all. */
    private void writtenOffAndOwedAgain(long client) {
        button(desk, "More").click();
        desk.getByText("Write off what is open…").click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        button(desk, "Write it off").click();
        assertThat(dialog).containsText("say why");
        dialog.getByLabel("Why").fill("cannot pay");
        button(desk, "Write it off").click();
        assertThat(dialog).hasCount(0);
        assertThat(desk.locator(".sheet")).containsText("written off");
        assertThat(desk.locator(".aside")).containsText("96.80 written off: cannot pay");
        org.assertj.core.api.Assertions.assertThat(owes(client)).isEqualTo("0.00");
        String id = desk.url().substring(desk.url().lastIndexOf('/') + 1);
        Page phone = context(390, 844).newPage();
        phone.navigate(demo.app.url("/p/" + demo.api.token(Long.parseLong(id))));
        assertThat(phone.locator(".ask")).containsText("nothing more is to be paid");
        assertThat(phone.locator("main")).not().containsText("written off");
        phone.context().close();
        button(desk, "More").click();
        desk.getByText("What was written off is owed again").click();
        assertThat(desk.locator(".foot .figure b")).hasText("€96.80");
        org.assertj.core.api.Assertions.assertThat(demo.api.booksAgree()).isTrue();
    }
}
