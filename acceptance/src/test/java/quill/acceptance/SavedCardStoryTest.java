package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.Map;
import org.assertj.core.api.Assertions;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;

/** A card that is kept: used again, planned with, taken from, and removed, on the desk and on telephones. */
public class SavedCardStoryTest extends StorySuite {
    private Api api;

    @BeforeClass
    public void begin() {
        api = demo.api;
    }

    private Page phone(long invoice) {
        Page phone = context(390, 844).newPage();
        phone.navigate(demo.app.url("/p/" + api.token(invoice)));
        return phone;
    }

    private static Locator page(Page phone) {
        return phone.locator("main.client");
    }

    /** Ticked while paying, offered first at the next payment, removed after it: it is offered no more. */
    @Test
    public void aCardIsKeptUsedAgainAndRemoved() {
        long client = api.client("Keeps Cards");
        long first = api.issue(api.draft(client, "100.00", "100%@30"));
        Page phone = phone(first);
        phone.getByLabel("Keep this card or account for next time").check();
        payAndComeBack(phone, "Pay €121.00 by card", "EUR 121.00");
        assertThat(page(phone)).containsText("Kept for later");
        assertThat(page(phone)).containsText("nothing is taken from it unless I say so");
        long second = api.issue(api.draft(client, "50.00", "100%@30"));
        phone.navigate(demo.app.url("/p/" + api.token(second)));
        assertThat(phone.getByLabel("Test card ending 0019")).isChecked();
        button(phone, "Pay €60.50 from Test card ending 0019").click();
        assertThat(phone.locator(".ask")).containsText("€60.50 is paid");
        Assertions.assertThat(api.open(second)).isEqualTo("0.00");
        // The business may not take from it: its holder did not agree to that.
        long third = api.issue(api.draft(client, "10.00", "100%@30"));
        desk.navigate(demo.app.url("/invoices/" + third));
        button(desk, "More").click();
        desk.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName("Take from what is kept…"))
                .click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).containsText("for their own payments alone");
        phone.navigate(demo.app.url("/p/" + api.token(third)));
        button(phone, "Remove").click();
        button(phone, "Yes, remove it").click();
        assertThat(phone.getByText("Kept for later")).hasCount(0);
        assertThat(phone.getByLabel("Test card ending 0019")).hasCount(0);
        assertThat(button(phone, "Pay €12.10 by card")).isVisible();
        desk.navigate(demo.app.url("/clients/" + client));
        assertThat(desk.getByLabel("Kept for later payments")).containsText("No card or mandate of theirs is kept.");
        Assertions.assertThat(api.booksAgree()).isTrue();
        phone.context().close();
    }

    /** Planned, taken back, planned again: taken on its day, and nobody was reminded meanwhile. */
    @Test
    public void aPaymentIsPlannedForADay() {
        long client = api.client("Pays Later");
        Page phone = phone(api.issue(api.draft(client, "10.00", "100%@30")));
        phone.getByLabel("Keep this card or account for next time").check();
        payAndComeBack(phone, "Pay €12.10 by card", "EUR 12.10");
        assertThat(page(phone)).containsText("Kept for later");
        long invoice = api.issue(api.draft(client, "100.00", "100%@2"));
        phone.navigate(demo.app.url("/p/" + api.token(invoice)));
        phone.getByText("Rather on another day, until").click();
        button(phone, "Plan it for that day").click();
        assertThat(phone.locator("[role=alert]")).containsText("choose a day");
        String today =
                api.get("/api/public/" + api.token(invoice)).ok().path("today").asString();
        String in5 = java.time.LocalDate.parse(today).plusDays(5).toString();
        phone.getByLabel("On which day is").fill(in5);
        button(phone, "Plan it for that day").click();
        assertThat(page(phone)).containsText("€121.00 is taken on");
        button(phone, "Take it back").click();
        assertThat(phone.getByText("€121.00 is taken on")).hasCount(0);
        phone.getByText("Rather on another day, until").click();
        phone.getByLabel("On which day is").fill(in5);
        button(phone, "Plan it for that day").click();
        assertThat(page(phone)).containsText("€121.00 is taken on");
        desk.navigate(demo.app.url("/money-in?filter=Pays"));
        desk.locator(".index .row").first().click();
        assertThat(desk.locator(".record")).containsText("as the client wants it");
        demo.forwardDays(6);
        Waiting.until("what was planned", () -> api.open(invoice).equals("0.00"));
        String letters =
                api.get("/api/clients/" + client + "/messages?find=").ok().toString();
        Assertions.assertThat(letters).doesNotContain("overdue").contains("receipt for €121.00");
        Assertions.assertThat(api.booksAgree()).isTrue();
        phone.context().close();
    }

    /** Asked for beforehand by letter, given on a telephone, taken from within what was agreed. */
    @Test
    public void aCardIsAskedForAndTakenFrom() {
        long client = api.client("Asked Beforehand");
        desk.navigate(demo.app.url("/clients/" + client));
        button(desk, "Ask for a card or mandate").click();
        assertThat(desk.getByLabel("Kept for later payments")).containsText("Asked for one since");
        String link = desk.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Open its page"))
                .getAttribute("href");
        Page phone = context(390, 844).newPage();
        phone.navigate(link);
        assertThat(page(phone)).containsText("Nothing is taken now.");
        phone.getByLabel("may take open sums of my invoices from it").check();
        phone.getByLabel("So much at a time").fill("0");
        button(phone, "Give a card or account").click();
        assertThat(phone.locator("[role=alert]")).containsText("must be above zero");
        phone.getByLabel("So much at a time").fill("200");
        button(phone, "Give a card or account").click();
        phone.getByLabel("Card number").fill(GOOD_CARD);
        phone.getByLabel("Valid until").fill("09/29");
        button(phone, "Keep this card").click();
        assertThat(phone.locator(".done")).containsText("Kept. Thank you.");
        phone.locator("a[href*='back=1']").click();
        assertThat(page(phone)).containsText("Test card ending 0019 is kept for later");
        assertThat(desk.getByLabel("Kept for later payments")).containsText("at most €200.00 at a time");
        long small = api.issue(api.draft(client, "100.00", "100%@30"));
        long large = api.issue(api.draft(client, "200.00", "100%@30"));
        takeFromSaved(large, "Take €242.00");
        assertThat(desk.getByRole(AriaRole.DIALOG)).containsText("EUR 200.00 at a time, at most");
        takeFromSaved(small, "Take €121.00");
        Waiting.until("what is taken", () -> api.open(small).equals("0.00"));
        Assertions.assertThat(api.open(large)).isEqualTo("242.00");
        button(phone, "Have it removed").click();
        assertThat(page(phone)).containsText("nothing is kept");
        Assertions.assertThat(api.post(
                                "/api/documents/" + large + "/saved-collections",
                                Map.of("method", 1, "amount", "242.00"))
                        .status())
                .isGreaterThanOrEqualTo(400);
        Assertions.assertThat(api.booksAgree()).isTrue();
        phone.context().close();
    }

    private void takeFromSaved(long invoice, String action) {
        desk.navigate(demo.app.url("/invoices/" + invoice));
        button(desk, "More").click();
        desk.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName("Take from what is kept…"))
                .click();
        button(desk, action).click();
    }
}
