package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Two stages and a final invoice over two rates, after a deposit; then the work falls through, and the deposit goes back. */
public class StagesStoryTest extends StorySuite {
    private String taxAt(String rate) {
        for (JsonNode tax : demo.api.get("/api/business").ok().path("taxes")) {
            if (tax.path("rate").asString().startsWith(rate)
                    && tax.path("name").asString().contains(rate)) {
                return tax.path("id").asString();
            }
        }
        throw new IllegalStateException("the demo has no tax at " + rate);
    }

    private static Map<String, Object> line(String what, String quantity, String price, String tax) {
        Map<String, Object> line = new LinkedHashMap<>(
                Map.of("description", what, "quantity", quantity, "unit", "", "unitPrice", price, "discount", ""));
        line.put("taxes", List.of(tax));
        return line;
    }

    /** 6,000.05 at 21 % and 953.70 at 6 %, accepted by hand: 8,270.98, half of it asked for. */
    private long accepted() {
        long client = demo.api.client("Stage By Stage");
        Map<String, Object> draft = demo.api.draft(client, "1.00", "d50%@0", "rest@14");
        draft.put(
                "lines",
                new ArrayList<>(List.of(
                        line("Restoration", "1", "6000.05", taxAt("21")),
                        line("Sheet music", "10", "95.37", taxAt("6")))));
        draft.put("offer", Map.of("validUntil", "+30", "conditions", ""));
        long id = demo.api.post("/api/quotes", draft).ok().path("id").asLong();
        demo.api.post("/api/quotes/" + id + "/issue", Map.of("version", 1)).ok();
        demo.api
                .post("/api/quotes/" + id + "/acceptance", Map.of("name", "Ada, on the telephone", "ticked", List.of()))
                .ok();
        return id;
    }

    private Locator typed(String label) {
        return desk.getByRole(
                AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName(label).setExact(true));
    }

    private void begin(String choice) {
        button(desk, "Invoice…").click();
        desk.getByLabel(choice).check();
    }

    private void issueAndBack(long quote) {
        button(desk, "Begin the invoice").click();
        assertThat(desk.getByLabel("Invoice, not issued yet")).isVisible();
        issueOnly(desk);
        assertThat(desk.locator(".sheet .kind").first()).containsText("Invoice 2027-");
        desk.navigate(demo.app.url("/quotes/" + quote));
    }

    @Test
    public void theTaxesOfTheStagesSumToTheWholeAndTheDepositGoesBack() {
        long quote = accepted();
        desk.navigate(demo.app.url("/quotes/" + quote));
        assertThat(desk.locator(".aside")).containsText("€4,135.49 is asked for and has not come yet");
        button(desk, "Record a payment").click();
        button(desk, "Record it").click();
        assertThat(desk.locator(".aside")).containsText("it has come");
        begin("A percentage of the whole");
        typed("Percentage").fill("20%");
        issueAndBack(quote);
        begin("A part of each line");
        typed("Sheet music").fill("9");
        button(desk, "Begin the invoice").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).containsText("at most 8, what is left of the line");
        typed("Sheet music").fill("4");
        issueAndBack(quote);
        begin("All that is left: the final invoice");
        issueAndBack(quote);
        assertThat(desk.locator(".aside")).containsText("All of it is invoiced.");
        long sum = 0;
        long tax = 0;
        long deposit = 0;
        long client = demo.api.get("/api/quotes/" + quote).ok().path("clientId").asLong();
        for (JsonNode led : demo.api
                .get("/api/quotes/" + quote)
                .ok()
                .path("issued")
                .path("leadsTo")
                .path("invoices")) {
            JsonNode sums = demo.api
                    .get("/api/invoices/" + led.path("id").asLong())
                    .ok()
                    .path("issued")
                    .path("document")
                    .path("sums");
            sum += cents(sums.path("total"));
            tax += cents(sums.path("tax"));
            deposit = led.path("title").asString().equals("Deposit invoice")
                    ? led.path("id").asLong()
                    : deposit;
        }
        // 1,260.01 and 57.22.
        assertThat(sum).isEqualTo(827_098);
        assertThat(tax).isEqualTo(131_723);
        fallsThrough(deposit, client, quote);
    }

    private static long cents(JsonNode amount) {
        return Long.parseLong(amount.path("amount").asString().replace(".", ""));
    }

    private void fallsThrough(long deposit, long client, long quote) {
        desk.navigate(demo.app.url("/invoices/" + deposit));
        button(desk, "Credit…").click();
        desk.getByLabel("Reason, as it is printed").fill("the work falls through");
        desk.getByText("Write the credit note").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).hasCount(0);
        // What was credited settles what the stages ask for; what is over goes back.
        desk.navigate(demo.app.url("/clients/" + client));
        assertThat(desk.locator(".page")).containsText("The books agree.");
        for (JsonNode led : demo.api
                .get("/api/quotes/" + quote)
                .ok()
                .path("issued")
                .path("leadsTo")
                .path("invoices")) {
            if (led.path("id").asLong() != deposit) {
                creditTheRest(led.path("id").asLong());
            }
        }
        desk.reload();
        desk.getByText("Give money back…").click();
        button(desk, "Note it").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).hasCount(0);
        assertThat(desk.locator(".sentence").first()).containsText("Owes nothing");
        assertThat(desk.locator(".page")).containsText("Given back by bank transfer");
        assertThat(desk.locator(".page")).containsText("The books agree.");
    }

    private void creditTheRest(long invoice) {
        demo.api
                .post(
                        "/api/invoices/" + invoice + "/credit-notes",
                        Map.of("what", "rest", "reason", "the work falls through", "replace", false))
                .ok();
    }
}
