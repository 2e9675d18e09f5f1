package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.net.URI;
import java.net.http.HttpRequest;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.assertj.core.api.Assertions;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/** Money on its way, seen by those who send it and by whoever waits for it: debits, payouts, disputes, holds, refunds. */
public class MoneyInStoryTest extends StorySuite {
    private Api api;

    /** Bank debits for any sum: the demo has them for large ones only. */
    @BeforeClass
    public void begin() {
        api = demo.api;
        JsonNode setting = api.get("/api/ways-to-pay").ok();
        List<Object> ways = new ArrayList<>();
        setting.path("ways").forEach(w -> {
            Map<String, Object> way = new TreeMap<>();
            w.properties().forEach(p -> way.put(p.getKey(), p.getValue()));
            if (w.path("way").asString().equals("BANK_DEBIT")) {
                way.put("smallest", "");
            }
            ways.add(way);
        });
        api.put(
                        "/api/ways-to-pay",
                        Map.of("ways", ways, "version", setting.path("version").asInt()))
                .ok();
    }

    private Page phone(long invoice) {
        Page phone = context(390, 844).newPage();
        phone.navigate(demo.app.url("/p/" + api.token(invoice)));
        return phone;
    }

    /** From the record that is open on the desk. */
    private void holdByCard(String sum) {
        button(desk, "More").click();
        desk.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName("Take a card…"))
                .click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        dialog.getByLabel("Only hold it on the card now").check();
        button(desk, "Hold by card").click();
        Locator link = dialog.getByRole(AriaRole.LINK, new Locator.GetByRoleOptions().setName("Open its page here"));
        Page there = desk.context().waitForPage(link::click);
        there.getByLabel("Card number").fill(GOOD_CARD);
        there.getByLabel("Valid until").fill("09/29");
        button(there, "Hold " + sum).click();
        assertThat(there.locator(".done")).containsText("Held");
        there.close();
    }

    private Locator recordOf(String who) {
        desk.navigate(demo.app.url("/money-in?filter=" + who));
        desk.locator(".index .row").first().click();
        return desk.locator(".record");
    }

    /** By bank debit: on its way, certain after three working days, in the bank after its payout. */
    @Test
    public void aBankDebitIsOnItsWayAndThenInThePayout() {
        long invoice = api.issue(api.draft(api.client("Debtor Payout"), "100.00", "100%@30"));
        Page phone = phone(invoice);
        button(phone, "Pay €121.00 by card or bank debit").click();
        phone.locator("input[name=account][value=GOOD]").check();
        button(phone, "Pay EUR 121.00 by bank debit").click();
        assertThat(phone.locator("[role=alert]")).containsText("Tick that the sum may be taken");
        phone.locator("input[name=account][value=GOOD]").check();
        phone.locator("input[name=agreed]").check();
        button(phone, "Pay EUR 121.00 by bank debit").click();
        assertThat(phone.locator(".done")).containsText("On its way");
        phone.locator("a[href*='back=1']").click();
        assertThat(phone.locator("main.client")).containsText("€121.00 is on its way by bank debit");
        assertThat(phone.locator(".ask")).containsText("nothing is to be done now");
        assertThat(phone.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Pay €121.00")))
                .hasCount(0);
        Locator record = recordOf("Debtor");
        assertThat(record).containsText("A bank debit from the bank account ending 0101 brings it");
        assertThat(record).containsText("What it is for");
        demo.forward("week");
        Waiting.until("the debit", () -> api.open(invoice).equals("0.00"));
        record = recordOf("Debtor");
        assertThat(record).containsText("fee 1.21 = 1% of 121.00");
        demo.forward("week");
        record = recordOf("Debtor");
        assertThat(record).containsText("119.79 of");
        desk.navigate(demo.app.url("/money-in/payouts"));
        assertThat(desk.locator(".record")).containsText("Paid out");
        Assertions.assertThat(api.booksAgree()).isTrue();
        phone.context().close();
    }

    /** Contested by its holder: answered with what is known, and won. */
    @Test
    public void aDisputeIsAnsweredAndWon() {
        long invoice = api.issue(api.draft(api.client("Doubtful Holder"), "200.00", "100%@30"));
        Page phone = phone(invoice);
        payAndComeBack(phone, "Pay €242.00 by card or bank debit", "EUR 242.00");
        Waiting.until("the payment", () -> api.open(invoice).equals("0.00"));
        CountingHouseBooks house = new CountingHouseBooks(demo.outside);
        JsonNode taken = house.entries().stream()
                .filter(e -> e.path("kind").asString().equals("taken")
                        && e.path("amount").asString().equals("242.00"))
                .reduce((a, b) -> b)
                .orElseThrow();
        form("/counting-house/contests", "order=" + taken.path("order").asString() + "&reason=not+as+agreed");
        Waiting.until("the contest", () -> api.open(invoice).equals("242.00"));
        desk.navigate(demo.app.url("/"));
        assertThat(desk.locator("[data-need=dispute]").filter(new Locator.FilterOptions().setHasText("Doubtful")))
                .containsText("Contested: €242.00, Doubtful Holder");
        Locator record = recordOf("Doubtful");
        assertThat(record).containsText("€242.00 was taken back, “not as agreed”, and €15.00 was kept for it");
        button(desk, "Answer…").click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        Locator text = dialog.getByLabel("What speaks for you");
        Assertions.assertThat(text.inputValue())
                .contains("What it paid: invoice")
                .contains("Work");
        text.fill("We tuned it on the day that was agreed, and they thanked us.");
        button(desk, "Send the answer").click();
        assertThat(dialog).hasCount(0);
        assertThat(record).containsText("You answered; the payer’s bank decides.");
        JsonNode contested = house.entries().stream()
                .filter(e -> e.path("kind").asString().equals("contested")
                        && e.path("amount").asString().equals("-242.00"))
                .findFirst()
                .orElseThrow();
        form("/counting-house/contests/" + contested.path("subject").asString(), "won=true");
        Waiting.until("the decision", () -> api.open(invoice).equals("0.00"));
        assertThat(record).containsText("Won: the money is here again");
        Assertions.assertThat(api.booksAgree()).isTrue();
        phone.context().close();
    }

    /** In the workshop: held on a card, of which less is taken when the work is done. */
    @Test
    public void aCardIsHeldInTheWorkshopAndAPartIsTaken() {
        long invoice = api.issue(api.draft(api.client("Workshop Holder"), "100.00", "100%@30"));
        desk.navigate(demo.app.url("/invoices/" + invoice));
        holdByCard("EUR 121.00");
        Waiting.until(
                "the hold",
                () -> api.get("/api/money-in?filter=Workshop").ok().toString().contains("HELD"));
        Assertions.assertThat(api.open(invoice)).isEqualTo("121.00");
        Locator record = recordOf("Workshop");
        Page other = desk.context().newPage();
        other.navigate(desk.url());
        assertThat(other.locator(".record")).containsText("Nothing is taken yet");
        button(desk, "Take it…").click();
        Locator amount = desk.getByRole(AriaRole.DIALOG).getByLabel("Amount, in EUR");
        amount.fill("121.01");
        button(desk, "Take it").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).containsText("at most 121.00, what is held");
        amount.fill("80.00");
        button(desk, "Take it").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).hasCount(0);
        Waiting.until("the part", () -> api.open(invoice).equals("41.00"));
        record = recordOf("Workshop");
        assertThat(record).containsText("€80.00 from Workshop Holder");
        // The window that was left open at the order.
        other.waitForURL("**/money-in/payment-*");
        assertThat(other.locator(".record")).containsText("€80.00 from Workshop Holder");
        other.close();
        Assertions.assertThat(api.booksAgree()).isTrue();
    }

    /** On an accepted quote: what is asked for is held on a card, and less of it is taken; the rest is asked for still. */
    @Test
    public void aHoldOnAQuoteIsTakenInPart() {
        Map<String, Object> draft = api.draft(api.client("Quoted Holder"), "200.00", "d50%@0", "rest@14");
        draft.put("offer", Map.of("validUntil", "+30", "conditions", ""));
        long quote = api.post("/api/quotes", draft).ok().path("id").asLong();
        api.post("/api/quotes/" + quote + "/issue", Map.of("version", 1)).ok();
        api.post("/api/quotes/" + quote + "/acceptance", Map.of("name", "By telephone", "ticked", List.of()))
                .ok();
        desk.navigate(demo.app.url("/quotes/" + quote));
        assertThat(desk.locator(".aside")).containsText("€121.00 is asked for and has not come yet");
        holdByCard("EUR 121.00");
        Waiting.until(
                "the hold",
                () -> api.get("/api/money-in?filter=Quoted").ok().toString().contains("HELD"));
        Locator record = recordOf("Quoted");
        button(desk, "Take it…").click();
        desk.getByRole(AriaRole.DIALOG).getByLabel("Amount, in EUR").fill("50.00");
        button(desk, "Take it").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).hasCount(0);
        Waiting.until(
                "the part",
                () -> api.get("/api/money-in?filter=Quoted").ok().toString().contains("payment-"));
        recordOf("Quoted");
        assertThat(record).containsText("€50.00 from Quoted Holder");
        desk.navigate(demo.app.url("/quotes/" + quote));
        assertThat(desk.locator(".aside")).containsText("€71.00");
        Assertions.assertThat(api.booksAgree()).isTrue();
    }

    /** Given back in part to the card; more than was paid is refused with the figure, and what was typed stays. */
    @Test
    public void aRefundNamesWhatCanGoBack() {
        long invoice = api.issue(api.draft(api.client("Refunded Payer"), "100.00", "100%@30"));
        Page phone = phone(invoice);
        payAndComeBack(phone, "Pay €121.00 by card or bank debit", "EUR 121.00");
        Waiting.until("the payment", () -> api.open(invoice).equals("0.00"));
        Locator record = recordOf("Refunded");
        button(desk, "Refund…").click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText("Up to €121.00 can go back if that is owed again");
        dialog.getByLabel("Amount, in EUR").fill("121.01");
        button(desk, "Refund it").click();
        assertThat(dialog).containsText("at most 121.00 of this payment is left");
        dialog.getByLabel("Amount, in EUR").fill("21.00");
        button(desk, "Refund it").click();
        assertThat(dialog).containsText("say that what this payment settled is owed again");
        dialog.getByLabel("What this payment settled is owed again").check();
        button(desk, "Refund it").click();
        assertThat(dialog).hasCount(0);
        assertThat(record).containsText("Given back by card");
        assertThat(record).containsText("sent by the card processor");
        Assertions.assertThat(api.open(invoice)).isEqualTo("21.00");
        Assertions.assertThat(api.booksAgree()).isTrue();
        phone.context().close();
    }

    private void form(String path, String body) {
        new Api(demo.outside)
                .exchange(HttpRequest.newBuilder(URI.create(demo.outside.url(path)))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(HttpRequest.BodyPublishers.ofString(body))
                        .build());
    }
}
