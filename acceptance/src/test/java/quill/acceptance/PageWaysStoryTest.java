package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.AriaRole;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import org.assertj.core.api.Assertions;
import org.testng.annotations.Test;
import quill.http.Waiting;

/** What a client's page takes, by the business's choice: a wallet, a hold; and what whoever paid is sent. */
public class PageWaysStoryTest extends StorySuite {
    private Page page(long document) {
        Page phone = context(390, 844).newPage();
        phone.navigate(demo.app.url("/p/" + demo.api.token(document)));
        return phone;
    }

    private long invoice(String client, String net) {
        return demo.api.issue(demo.api.draft(demo.api.client(client), net, "100%@30"));
    }

    /** A wallet is on the pay page of a device that has it, and on no other. */
    @Test
    public void aWalletIsUsedOnTheDeviceThatHasIt() {
        desk.navigate(demo.app.url("/settings/ways"));
        Locator satchel = desk.getByRole(AriaRole.GROUP, new Page.GetByRoleOptions().setName("By Satchel, a wallet"));
        assertThat(satchel).containsText("only on devices that have it");
        satchel.getByLabel("Offered to clients").check();
        button(desk, "Save").click();
        assertThat(desk.locator("body")).containsText("From now on; what is printed on issued documents stays.");
        long invoice = invoice("Wallet Carrier", "100.00");
        desk.navigate(demo.app.url("/invoices/" + invoice));
        assertThat(desk.getByLabel("Ways to pay"))
                .containsText("Satchel, a wallet; it shows only on devices that have it");
        Page phone = page(invoice);
        assertThat(phone.locator("main")).containsText("Satchel can be used there on a device that has it.");
        button(phone, "Pay €121.00 by card").click();
        assertThat(button(phone, "Pay EUR 121.00")).isVisible();
        assertThat(button(phone, "Pay EUR 121.00 with Satchel")).hasCount(0);
        String payPage = phone.url();
        phone.navigate(demo.outside.url("/counting-house/wallets"));
        button(phone, "Put Satchel on this device").click();
        assertThat(phone.locator("main")).containsText("On this device, with the test card 9901");
        phone.navigate(payPage);
        button(phone, "Pay EUR 121.00 with Satchel").click();
        assertThat(phone.locator(".done")).containsText("from the card in Satchel ending 0019");
        phone.locator("a[href*='back=1']").click();
        assertThat(phone.locator(".ask")).containsText("is paid");
        Assertions.assertThat(demo.api.open(invoice)).isEqualTo("0.00");
        desk.navigate(demo.app.url("/money-in?filter=Wallet"));
        desk.locator(".index .row").first().click();
        assertThat(desk.locator(".record")).containsText("Satchel ending 0019");
        Assertions.assertThat(demo.api.booksAgree()).isTrue();
        phone.context().close();
    }

    /** An invoice's own page holds; what is taken is less. */
    @Test
    public void aPageHoldsUntilTheWorkIsDone() {
        long invoice = invoice("Page Holder", "200.00");
        desk.navigate(demo.app.url("/invoices/" + invoice));
        desk.getByLabel("Its page only holds the money on a card").check();
        Page phone = page(invoice);
        assertThat(phone.locator("main")).containsText("It is only held on your card");
        button(phone, "Let €242.00 be held by card").click();
        holdAndComeBack(phone, "242.00");
        Assertions.assertThat(demo.api.open(invoice)).isEqualTo("242.00");
        desk.navigate(demo.app.url("/money-in?filter=Page"));
        desk.locator(".index .row").first().click();
        button(desk, "Take it…").click();
        desk.getByRole(AriaRole.DIALOG).getByLabel("Amount, in EUR").fill("200.00");
        button(desk, "Take it").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).hasCount(0);
        Waiting.until("the part", () -> demo.api.open(invoice).equals("42.00"));
        assertThat(phone.locator(".ask")).containsText("€42.00");
        Assertions.assertThat(demo.api.booksAgree()).isTrue();
        phone.context().close();
    }

    /** On the card company's page that is open, and what the client's own says then. */
    private static void holdAndComeBack(Page phone, String sum) {
        phone.getByLabel("Card number").fill(GOOD_CARD);
        phone.getByLabel("Valid until").fill("09/29");
        button(phone, "Hold EUR " + sum).click();
        assertThat(phone.locator(".done")).containsText("Held. Thank you.");
        phone.locator("a[href*='back=1']").click();
        assertThat(phone.locator("main")).containsText("€" + sum + " is held on a card until");
    }

    /** A quote's page too: what is asked for is held. */
    @Test
    public void aQuotesPageHoldsWhatIsAskedFor() {
        Map<String, Object> draft = demo.api.draft(demo.api.client("Offered Holder"), "200.00", "d50%@0", "rest@14");
        draft.put("offer", Map.of("validUntil", "+30", "conditions", ""));
        long quote = demo.api.post("/api/quotes", draft).ok().path("id").asLong();
        demo.api.post("/api/quotes/" + quote + "/issue", Map.of("version", 1)).ok();
        demo.api
                .post("/api/quotes/" + quote + "/acceptance", Map.of("name", "By telephone", "ticked", List.of()))
                .ok();
        desk.navigate(demo.app.url("/quotes/" + quote));
        desk.getByLabel("Its page only holds the money on a card").check();
        Page phone = context(390, 844).newPage();
        phone.navigate(demo.api
                .get("/api/quotes/" + quote)
                .ok()
                .path("issued")
                .path("leadsTo")
                .path("link")
                .asString());
        button(phone, "Let €121.00 be held by card").click();
        holdAndComeBack(phone, "121.00");
        phone.context().close();
    }

    /** What is promised on the page is what happens. */
    @Test
    public void thePayerGetsWhatTheBusinessChose() {
        desk.navigate(demo.app.url("/settings/ways"));
        desk.getByLabel("The invoice, marked paid").check();
        long invoice = invoice("Marked Payer", "100.00");
        Page phone = page(invoice);
        assertThat(phone.locator("summary").first()).containsText("The receipt can go there too.");
        payAndComeBack(phone, "Pay €121.00 by card", "EUR 121.00");
        Waiting.until("the letter", () -> demo.count("markedpayer@clients.example", "receipt for") == 1);
        Assertions.assertThat(demo.letters("markedpayer@clients.example").toString())
                .contains("invoice-")
                .contains(".pdf");
        Locator nothing = desk.getByRole(
                AriaRole.RADIO, new Page.GetByRoleOptions().setName("Nothing").setExact(true));
        nothing.check();
        assertThat(nothing).isChecked();
        phone.navigate(demo.app.url("/p/" + demo.api.token(invoice("Marked Payer", "50.00"))));
        assertThat(phone.locator("summary").first()).hasText("Does somebody else pay?");
        desk.getByLabel("A receipt", new Page.GetByLabelOptions().setExact(true))
                .check();
        phone.context().close();
    }

    /** What changes after the page was read and before its line is up is told to nobody: the page looks again. */
    @Test
    public void aPageWhoseLineComesLateShowsWhatCameMeanwhile() {
        long client = demo.api.client("Late Listener");
        long invoice = demo.api.issue(demo.api.draft(client, "100.00", "100%@30"));
        Page phone = context(390, 844).newPage();
        List<Route> lines = new CopyOnWriteArrayList<>();
        phone.route("**/api/public/*/events", lines::add);
        phone.navigate(demo.app.url("/p/" + demo.api.token(invoice)));
        assertThat(phone.locator(".ask")).containsText("€121.00");
        Assertions.assertThat(demo.api
                        .transfer(client, invoice, "121.00", "late-listener-1")
                        .status())
                .isLessThan(300);
        phone.waitForTimeout(500);
        assertThat(phone.locator(".ask")).not().containsText("is paid");
        lines.forEach(Route::resume);
        assertThat(phone.locator(".ask")).containsText("is paid");
        phone.context().close();
    }
}
