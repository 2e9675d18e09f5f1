package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.Map;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** An invoice that offers up to twelve installments: its client accepts it, picks six, pays one early and one in part; then more time is agreed. */
public class PlanStoryTest extends StorySuite {
    /** 1,890.00 with its tax, offered in up to twelve, 10 % off at once. */
    private long write() {
        desk.navigate(demo.app.url("/invoices/new"));
        choose(desk, "Brandt");
        desk.locator("[data-field=subject]").fill("the new keyboard");
        desk.getByLabel("What, line 1").fill("Keyboard, renewed");
        desk.getByLabel("Quantity, line 1").fill("1");
        desk.getByLabel("Price, line 1").fill("1561.98");
        desk.getByText("+ Let the client choose how to pay").click();
        desk.getByPlaceholder("none; or 2 to 24").fill("400");
        assertThat(desk.locator(".sheet")).containsText("must be a number from 2 to 24");
        desk.getByPlaceholder("none; or 2 to 24").fill("12");
        desk.getByPlaceholder("30 days after issue").fill("31 Mar");
        desk.getByPlaceholder("nothing; 10% or 25.00").fill("10%");
        desk.getByText("Text and files are accepted by name").click();
        assertThat(desk.locator(".sheet")).containsText("1,701.00 is to be paid then");
        issueOnly(desk);
        assertThat(desk.locator(".sheet .kind").first()).containsText("Invoice 2027-");
        return Long.parseLong(desk.url().substring(desk.url().lastIndexOf('/') + 1));
    }

    @Test
    public void sixArePickedOnePaidEarlyOneInPartThenMoreTimeIsAgreed() {
        long invoice = write();
        demo.api.put("/api/page-settings", Map.of("otherAmounts", true)).ok();
        Page phone = context(390, 844).newPage();
        phone.navigate(demo.app.url("/p/" + demo.api.token(invoice)));
        assertThat(phone.locator(".pay")).hasText("Accept");
        phone.getByLabel("Your name, as a signature").fill("Ada Brandt");
        button(phone, "Accept").click();
        assertThat(phone.locator("main")).containsText("Accepted on 15 March 2027 by Ada Brandt");
        // What paying at once would save stands first; it is not taken up.
        assertThat(button(phone, "Pay €1,701.00 by card")).isVisible();
        phone.getByLabel("How many").selectOption("6");
        assertThat(phone.locator("section[aria-label='Pay in installments']")).containsText("31 August 2027");
        button(phone, "Pick these 6 installments").click();
        assertThat(phone.locator("main")).containsText("You picked 6 monthly installments.");
        assertThat(phone.getByLabel("How many")).hasCount(0);
        assertThat(phone.locator(".ask")).containsText("€315.00");
        payAndComeBack(phone, "Pay €315.00 by card", "EUR 315.00");
        assertThat(phone.locator("main")).containsText("€315.00 received");
        phone.getByText("Another amount").click();
        phone.getByLabel("Another amount").last().fill("100.00");
        payAndComeBack(phone, "Pay it by card", "EUR 100.00");
        assertThat(phone.locator("main")).containsText("€100.00 received");
        JsonNode issued = demo.api.get("/api/invoices/" + invoice).ok().path("issued");
        assertThat(issued.path("open").path("amount").asString()).isEqualTo("1475.00");
        phone.context().close();

        desk.reload();
        button(desk, "More").click();
        desk.getByText("Rearrange installments…").click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        dialog.getByLabel("When installment 1 is due").fill("31 May");
        for (int i = 2; i <= 5; i++) {
            dialog.getByLabel("When installment " + i + " is due").fill("monthly");
        }
        assertThat(dialog).containsText("30 Sep");
        button(desk, "See the letter…").click();
        assertThat(desk.getByRole(AriaRole.DIALOG).locator(".letter")).containsText("€1,475.00");
        button(desk, "Agree and send").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).hasCount(0);
        JsonNode measure =
                demo.api.get("/api/invoices/" + invoice).ok().path("issued").path("measure");
        assertThat(measure.findValuesAsString("dueOn")).contains("2027-05-31");
        assertThat(demo.api
                        .get("/api/invoices/" + invoice)
                        .ok()
                        .path("issued")
                        .path("open")
                        .path("amount")
                        .asString())
                .isEqualTo("1475.00");
        desk.getByText("The client’s account").click();
        assertThat(desk.locator(".page")).containsText("The books agree.");
    }
}
