package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.assertj.core.api.Assertions;
import org.testng.annotations.Test;
import quill.http.Waiting;

/** A tip and a surcharge: switched on, shown before paying, in receipt and books, and given back where that is said. */
public class OnTopStoryTest extends StorySuite {
    private Page page(String path) {
        Page phone = context(390, 844).newPage();
        phone.navigate(demo.app.url(path));
        return phone;
    }

    @Test
    public void aTipAndASurchargeAreSeenBeforePayingAndStandInReceiptAndBooks() {
        desk.navigate(demo.app.url("/settings/ways"));
        desk.getByLabel("Ask something on top for paying by card").check();
        assertThat(desk.getByRole(AriaRole.NOTE)).containsText("Many places restrict this");
        desk.getByLabel("Offer to give a tip").check();
        button(desk, "Save what is on top").click();
        assertThat(desk.locator("body")).containsText("give a percentage or a fixed sum above zero");
        desk.getByLabel("In percent of what is paid").fill("2.5");
        desk.getByLabel("Its tax").first().click();
        desk.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("VAT 21%"))
                .click();
        button(desk, "Save what is on top").click();
        assertThat(desk.locator("body")).containsText("From now on, on clients’ pages.");
        long client = demo.api.client("Generous Player");
        long invoice = demo.api.issue(demo.api.draft(client, "330.58", "100%@30"));
        Page phone = page("/p/" + demo.api.token(invoice));
        // 400.00, with 10.00 and 2.10 of tax on that; then 20.00 as a tip.
        Locator together = phone.getByRole(AriaRole.GROUP, new Page.GetByRoleOptions().setName("What it comes to"));
        assertThat(together).containsText("€12.10");
        assertThat(together).containsText("€2.10 of VAT 21% in it");
        assertThat(together).containsText("€412.10");
        phone.getByLabel("Another tip").first().check();
        phone.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Another tip"))
                .fill("400.01");
        assertThat(phone.locator("[role=alert]")).containsText("must be at most 400.00");
        phone.getByLabel("A tip of 5%").check();
        assertThat(together).containsText("€432.10");
        payAndComeBack(phone, "Pay €432.10 by card", "EUR 432.10");
        assertThat(phone.locator(".ask")).containsText("€400.00 is paid");
        Assertions.assertThat(demo.api.open(invoice)).isEqualTo("0.00");
        String letters = demo.api
                .get("/api/clients/" + client + "/messages?find=tip")
                .ok()
                .toString();
        Assertions.assertThat(letters).contains("receipt for €400.00");
        desk.navigate(demo.app.url("/money-in?filter=Generous"));
        desk.locator(".index .row").first().click();
        Locator record = desk.locator(".record");
        assertThat(record).containsText("€20.00 as a tip; €10.00 for paying by card, and €2.10 of tax on that");
        assertThat(record).containsText("Tips");
        assertThat(record).containsText("Surcharges");
        button(desk, "Refund…").click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        dialog.getByLabel("Amount, in EUR").fill("100.00");
        dialog.getByLabel("What this payment settled is owed again").check();
        dialog.getByLabel("What came on top goes back too").check();
        button(desk, "Refund it").click();
        assertThat(dialog).hasCount(0);
        Waiting.until("the refund", () -> demo.api.open(invoice).equals("100.00"));
        CountingHouseBooks house = new CountingHouseBooks(demo.outside);
        Waiting.until(
                "the money back",
                () -> house.entries().stream()
                        .anyMatch(e -> e.path("kind").asString().equals("refunded")
                                && e.path("amount").asString().equals("-132.10")));
        Assertions.assertThat(demo.api.booksAgree()).isTrue();
        phone.context().close();
    }

    /** On a payment link, in the same way. */
    @Test(dependsOnMethods = "aTipAndASurchargeAreSeenBeforePayingAndStandInReceiptAndBooks")
    public void aLinkTakesATip() {
        desk.navigate(demo.app.url("/money-in/links/new"));
        desk.getByLabel("What it is for").fill("House concert");
        desk.getByLabel("Amount with its taxes").fill("40.00");
        button(desk, "Make the link").click();
        String address = Codes.read(desk.getByAltText("Square code that leads to"));
        Page phone = context(390, 844).newPage();
        phone.navigate(address);
        phone.getByLabel("Your name").fill("Evening Guest");
        phone.getByLabel("Your e-mail address").fill("evening@guest.example");
        phone.getByLabel("A tip of 10%").check();
        // 40.00, 1.00 and 0.21 of tax for paying by card, 4.00 as a tip.
        payAndComeBack(phone, "Pay €45.21 by card", "EUR 45.21");
        assertThat(phone.locator("main.client")).containsText("is paid. The receipt goes to evening@guest.example");
        desk.navigate(demo.app.url("/money-in?filter=Evening"));
        desk.locator(".index .row").first().click();
        assertThat(desk.locator(".record")).containsText("€4.00 as a tip");
        Assertions.assertThat(demo.api.booksAgree()).isTrue();
        phone.context().close();
    }
}
