package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.LinkedHashMap;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/**
 * When it is not paid: reminded, kept back, fined, paid from the reminder's link, and waived where the money was in
 * time. In the browser, on the demo's clock, which begins on Monday 15 March 2027 at 08:30.
 */
public class LateStoryTest extends StorySuite {
    private static final String SLOW = "slowpayer@clients.example";
    private static final String PHONED = "telephoned@clients.example";

    private Api api;
    private long slow;
    private long slowInvoice;
    private long phoned;
    private long inTime;
    private long inTimeInvoice;
    private long many;

    @BeforeClass
    public void owe() {
        api = demo.api;
        slow = api.client("Slow Payer");
        // 1,210.00: a deposit of 484.00, and 726.00 due on 25 March
        slowInvoice = api.issue(api.draft(slow, "1000.00", "d40%@0", "rest@10"));
        api.transfer(slow, slowInvoice, "484.00", "slow-deposit").ok();
        phoned = api.client("Telephoned");
        api.issue(api.draft(phoned, "200.00", "100%@10"));
        inTime = api.client("In Time");
        inTimeInvoice = api.issue(api.draft(inTime, "300.00", "100%@10"));
        many = api.client("Many Parts");
        api.issue(api.draft(many, "400.00", "25%@5", "25%@6", "25%@7", "25%@8"));
        api.put("/api/clients/" + many + "/mute", Map.of("until", "2027-03-25")).ok();
        desk.reload();
    }

    @Test
    public void theReminderIsAnnouncedAndArrives() {
        assertThat(coming()).containsText("Slow Payer");
        assertThat(coming()).containsText("€726.00");
        assertThat(coming()).containsText("Monday 22 March");
        assertThat(act("Slow Payer")).containsText("Friendly reminder");
        assertThat(act("Slow Payer")).containsText("09:00");
        act("Slow Payer").locator(".figure-why").click();
        assertThat(desk.locator(".why")).containsText("step 3 days before");

        clock("A week forward");
        assertThat(desk.locator(".masthead .day")).containsText("Mon 22 Mar 2027, 08:30");
        assertThat(demo.count(SLOW, "reminder") + demo.count(SLOW, "note ahead"))
                .isZero();
        clock("To the next thing that happens");
        assertThat(desk.locator(".masthead .day")).containsText("09:01");
        Waiting.until("the note", () -> demo.count(SLOW, "a note ahead of time") == 1);

        demo.forwardDays(4); // to 26 March: the rest fell due on the 25th
        Waiting.until("the letter of the day", () -> demo.count(SLOW, "a friendly reminder") == 1);
        JsonNode letter = demo.letters(SLOW).get(0);
        assertThat(letter.path("text").asString())
                .contains("€726.00")
                .contains("is due today")
                .contains("/p/");
        String html = new Api(demo.outside)
                .get("/post-room/" + SLOW + "/" + letter.path("id").asString() + "/html")
                .text();
        assertThat(html).contains("data:image/png;base64,").contains("reference");
        assertThat(letter.path("attachments").get(0).asString()).endsWith(".pdf");
    }

    @Test(dependsOnMethods = "theReminderIsAnnouncedAndArrives")
    public void fourLateInstallmentsAreOneLetterOnceTheMuteIsOver() {
        // 26 March, before the hour: muted up to the 25th, all four due from the 20th to the 23rd.
        assertThat(demo.count("manyparts@clients.example", "overdue, ")).isZero();
        demo.forward("day");
        Waiting.until("the letter", () -> demo.count("manyparts@clients.example", "overdue, ") == 1);
        JsonNode letter = demo.letters("manyparts@clients.example").get(0);
        assertThat(letter.path("subject").asString())
                .contains("overdue, invoice")
                .contains("€484.00");
        assertThat(letter.path("text").asString())
                .contains("installment 1")
                .contains("installment 2")
                .contains("installment 3")
                .contains("installment 4")
                .contains("6 days late")
                .contains("3 days late");
    }

    @Test(dependsOnMethods = "fourLateInstallmentsAreOneLetterOnceTheMuteIsOver")
    public void oneActIsKeptBackAndAnotherIsOvertakenByAPayment() {
        // 27 March: on the 28th the letters of three days after are due.
        desk.navigate(demo.app.url("/"));
        act("Telephoned").first().getByText("Keep back").click();
        assertThat(act("Telephoned").first()).containsText("kept back");
        assertThat(act("Telephoned").first()).containsText("Send after all");
        demo.forward("day");
        api.transfer(inTime, null, "100.00", "in-time-part").ok(); // after the list of the 28th was written
        demo.forward("next");
        Waiting.until("the other letter", () -> demo.count(SLOW, "overdue, invoice") == 1);
        assertThat(demo.count(PHONED, "overdue, invoice")).isZero();
        desk.getByText("Done so far").click();
        assertThat(desk.locator("tr", new Page.LocatorOptions().setHasText("kept back"))
                        .first())
                .containsText("Firm reminder");
        assertThat(desk.locator("tr", new Page.LocatorOptions().setHasText("announced with 363.00")))
                .containsText("263.00");
    }

    @Test(dependsOnMethods = "oneActIsKeptBackAndAnotherIsOvertakenByAPayment")
    public void afterTheGraceAFeeIsChargedOnceAndPaidFromTheReminder() {
        while (demo.forward("day").path("today").asString().compareTo("2027-04-09") < 0) {
            continue;
        }
        desk.navigate(demo.app.url("/clients/" + slow));
        assertThat(desk.locator(".page")).containsText("Late fee on");
        assertThat(desk.locator(".sentence").first()).containsText("€733.26"); // 726.00 and 1% of it
        assertThat(desk.locator(".page")).containsText("The books agree.");
        assertThat(desk.getByRole(AriaRole.GROUP, new Page.GetByRoleOptions().setName("Aging")))
                .containsText("733.26");
        Waiting.until("the final letter", () -> demo.count(SLOW, "final reminder") == 1);
        String text = demo.letters(SLOW).get(0).path("text").asString();
        assertThat(text).contains("late fee").contains("€7.26").contains("In all: €733.26");
        payFrom(text.replaceAll("(?s).*See and pay: (\\S+).*", "$1"));
        long before = demo.letters(SLOW).size();
        demo.forward("month");
        assertThat(demo.letters(SLOW).size()).isEqualTo((int) before);
        assertThat(owes(slow)).isEqualTo("0.00");
        assertThat(api.booksAgree()).isTrue();
    }

    private void payFrom(String link) {
        Page phone = context(390, 844).newPage();
        phone.navigate(link);
        assertThat(phone.locator("body")).containsText("Late fee of 2 April 2027");
        button(phone, "Pay €733.26 by card").click();
        card(phone, GOOD_CARD, "EUR 733.26");
        assertThat(phone.locator(".done")).containsText("Paid");
        phone.context().close();
        Waiting.until("the receipt", () -> demo.count(SLOW, "receipt for €733.26") == 1);
        assertThat(api.get("/api/invoices/" + slowInvoice + "/timeline")
                        .ok()
                        .path("past")
                        .toString())
                .contains("The client opened the page");
    }

    @Test(dependsOnMethods = "afterTheGraceAFeeIsChargedOnceAndPaidFromTheReminder")
    public void aFeeChargedOnMoneyThatWasInTimeIsWaivedWithOneKey() {
        // 1% of the 263.00 that were open on 2 April; the transfer is dated the last day of grace, 1 April.
        assertThat(owes(inTime)).isEqualTo("265.63");
        Map<String, Object> body = new LinkedHashMap<>();
        body.put("key", "in-time-rest");
        body.put("clientId", inTime);
        body.put("invoiceId", inTimeInvoice);
        body.put("way", "TRANSFER");
        body.put("amount", "263.00");
        body.put("valueOn", "2027-04-01");
        body.put("reference", "");
        api.post("/api/payments", body).ok();
        desk.navigate(demo.app.url("/"));
        Locator need = desk.locator("[data-need='fee']", new Page.LocatorOptions().setHasText("In Time"));
        assertThat(need).containsText("Waive this late fee? €2.63, In Time");
        assertThat(need).containsText("1 April 2027");
        need.getByRole(AriaRole.BUTTON).first().focus();
        desk.keyboard().press("w");
        assertThat(need).hasCount(0);
        assertThat(owes(inTime)).isEqualTo("0.00");
        JsonNode fee = api.get("/api/invoices/" + inTimeInvoice + "/chasing")
                .ok()
                .path("fees")
                .get(0);
        assertThat(fee.path("waived").path("why").asString()).contains("paid in time");
        Api.Answer again =
                api.post("/api/late-fees/" + fee.path("id").asLong() + "/waiving", Map.of("reason", "once more"));
        assertThat(again.status()).isEqualTo(409);
        assertThat(again.text()).contains("waived already");
        assertThat(api.booksAgree()).isTrue();
    }

    private Locator coming() {
        return desk.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("What will happen"));
    }

    private Locator act(String client) {
        return coming().locator("li", new Locator.LocatorOptions().setHasText(client));
    }

    private void clock(String step) {
        desk.locator(".masthead .day").click();
        desk.getByText(step).click();
        // It waits until the days have gone by.
        assertThat(desk.locator(".masthead .day")).containsText("2027");
        Waiting.pause(300);
    }

    private String owes(long client) {
        return api.get("/api/clients/" + client)
                .ok()
                .path("sums")
                .path("owes")
                .path("amount")
                .asString();
    }
}
