package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/**
 * A quote with an optional line, written on the sheet, ticked and accepted on a phone with a typed name; the invoice for
 * it with a deposit and milestones; a milestone reached; and what is open agreed anew.
 */
public class QuoteStoryTest extends StorySuite {
    private void line(int place, String what, String price) {
        desk.getByLabel("What, line " + place).fill(what);
        desk.getByLabel("Quantity, line " + place).fill("1");
        desk.getByLabel("Price, line " + place).fill(price);
    }

    private String write() {
        desk.navigate(demo.app.url("/quotes/new"));
        choose(desk, "Ashdown");
        desk.locator("[data-field=subject]").fill("the restoration of your upright");
        line(1, "Action, cleaned and re-felted", "980.00");
        line(2, "Castors with brakes", "126.00");
        desk.getByLabel("More on line 2").click();
        desk.getByText("The client can choose it").click();
        desk.getByLabel("When installment 1 is due").fill("at Delivery + 14");
        desk.getByText("Ask for a deposit first").click();
        desk.getByText("+ Terms and conditions").click();
        desk.locator(".tiptap").click();
        // Letters that are keys elsewhere are only letters here.
        desk.keyboard().type("Nothing is begun / before the deposit has come?");
        // 1,106.00 and 21%.
        assertThat(desk.getByTestId("foot-Total")).containsText("1,338.26");
        button(desk, "Issue and send…").click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        assertThat(dialog.locator(".letter")).containsText("for the restoration of your upright: €1,338.26");
        button(desk, "Issue and send").click();
        assertThat(dialog).hasCount(0);
        assertThat(desk.locator(".sheet .kind").first()).containsText("Quote Q-2027-");
        return desk.url().substring(desk.url().lastIndexOf('/') + 1);
    }

    @Test
    public void fromAQuoteToAPaidInvoiceWithMilestones() {
        String id = write();
        String link = demo.api
                .get("/api/quotes/" + id)
                .ok()
                .path("issued")
                .path("leadsTo")
                .path("link")
                .asString();
        Page phone = context(390, 844).newPage();
        phone.navigate(link);
        assertThat(phone.locator(".ask")).containsText("€1,338.26");
        assertThat(phone.locator(".conditions")).containsText("Nothing is begun / before the deposit has come?");
        phone.getByLabel("Castors with brakes").uncheck();
        // 980.00 and 21%.
        assertThat(phone.locator(".ask")).containsText("€1,185.80");
        button(phone, "Accept, for €1,185.80").click();
        assertThat(phone.locator(".told.refused")).isVisible();
        phone.getByLabel("Your name, as a signature").fill("Rowan Ashdown");
        button(phone, "Accept, for €1,185.80").click();
        assertThat(phone.locator(".told").first()).containsText("by Rowan Ashdown");
        // Accepting asks for the deposit at once: 40 % of 1,185.80.
        payAndComeBack(phone, "Pay €474.32 by card", "EUR 474.32");
        phone.navigate(link);
        assertThat(phone.locator("main")).containsText("€474.32 was paid ahead");
        phone.context().close();

        desk.reload();
        assertThat(desk.locator(".aside")).containsText("Accepted");
        assertThat(desk.locator(".aside")).containsText("it has come");
        assertThat(desk.locator(".aside")).containsText("Deposit invoice 2027-");
        askForMore();
        button(desk, "Invoice…").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).containsText("deducts €474.32 of deposits");
        button(desk, "Begin the invoice").click();
        assertThat(desk.getByLabel("Invoice, not issued yet")).isVisible();
        assertThat(desk.getByLabel("What, line 2")).not().hasValue("Castors with brakes");
        assertThat(desk.getByTestId("foot-Total")).containsText("711.48");
        issueOnly(desk);
        assertThat(desk.locator(".sheet")).containsText("14 days after the milestone “Delivery”");
        assertThat(desk.locator(".sheet")).containsText("With this, all of it is invoiced.");
        String invoice = desk.url().substring(desk.url().lastIndexOf('/') + 1);

        reach();
        rearrange();
        JsonNode measure =
                demo.api.get("/api/invoices/" + invoice).ok().path("issued").path("measure");
        assertThat(measure.size()).isEqualTo(3);
        assertThat(measure.get(1).path("amount").path("amount").asString()).isEqualTo("237.16");
        paidBySomebodyElseInTwo(invoice);
        Waiting.until(
                "the letters",
                java.time.Duration.ofSeconds(90),
                () -> demo.count("rowan@ashdown.example", "what changes for") == 2);
    }

    /** More is asked for by letter, which is looked at first, and is then asked for no more. */
    private void askForMore() {
        button(desk, "More").click();
        desk.getByText("Ask for money…").click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        dialog.getByLabel("Amount, or a percentage of the whole").fill("900");
        button(desk, "See the letter…").click();
        assertThat(dialog).containsText("at most 711.48");
        dialog.getByLabel("Amount, or a percentage of the whole").fill("10%");
        dialog.getByLabel("What for").fill("the felt, ordered ahead");
        button(desk, "See the letter…").click();
        assertThat(dialog.locator(".letter")).containsText("We ask you for €118.58: the felt, ordered ahead");
        button(desk, "Ask and send").click();
        assertThat(dialog).hasCount(0);
        assertThat(desk.locator(".aside")).containsText("€118.58, the felt, ordered ahead");
        button(desk, "Ask for it no more").click();
        assertThat(desk.locator(".aside")).containsText("withdrawn");
    }

    private void reach() {
        desk.getByText("Reached…").click();
        button(desk, "See the letter…").click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        assertThat(dialog.locator(".letter")).containsText("The work has reached “Delivery” on 15 March 2027.");
        button(desk, "Mark it and send").click();
        assertThat(dialog).hasCount(0);
        assertThat(desk.locator(".measure-large").first()).containsText("due 29 Mar");
    }

    /** The balance comes in two amounts of a payer's own choice, from somebody else than the client. */
    private void paidBySomebodyElseInTwo(String invoice) {
        demo.api.put("/api/page-settings", Map.of("otherAmounts", true)).ok();
        Page phone = context(390, 844).newPage();
        phone.navigate(demo.app.url("/p/" + demo.api.token(Long.parseLong(invoice))));
        phone.getByText("Another amount").click();
        phone.getByLabel("Another amount").last().fill("800");
        button(phone, "Pay it by card").click();
        assertThat(phone.getByRole(AriaRole.ALERT)).containsText("at most 711.48");
        phone.getByLabel("Another amount").last().fill("300.00");
        phone.getByText("Does somebody else pay?").click();
        phone.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("May Ashdown");
        phone.getByLabel("E-mail address").fill("may@ashdown.example");
        payAndComeBack(phone, "Pay it by card", "EUR 300.00");
        assertThat(phone.locator("main.client")).containsText("€300.00 received");
        phone.getByText("All that is open").click();
        payAndComeBack(phone, "Pay €411.48 by card", "EUR 411.48");
        assertThat(phone.locator(".ask")).containsText("is paid");
        phone.context().close();
        JsonNode now = demo.api.get("/api/invoices/" + invoice).ok();
        assertThat(now.path("issued").path("open").path("amount").asString()).isEqualTo("0.00");
        Waiting.until(
                "the receipt of whoever paid",
                java.time.Duration.ofSeconds(90),
                () -> demo.count("may@ashdown.example", "300.00") == 1);
        desk.navigate(demo.app.url("/clients/" + now.path("clientId").asLong()));
        assertThat(desk.locator(".page")).containsText("was paid by May Ashdown");
        assertThat(desk.locator(".page")).containsText("The books agree.");
        desk.getByText("Make this the payer, who gets the receipts").click();
        assertThat(desk.locator(".page")).containsText("May Ashdown, may@ashdown.example (pays)");
    }

    /** 711.48 that is open after the deposit, in three. */
    private void rearrange() {
        button(desk, "More").click();
        desk.getByText("Rearrange installments…").click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        dialog.getByLabel("When installment 1 is due").fill("30 Apr");
        dialog.getByLabel("Share of installment 1").fill("3x");
        dialog.getByLabel("Share of installment 1").press("Enter");
        assertThat(dialog.getByLabel("When installment 3 is due")).hasValue("monthly");
        assertThat(dialog).containsText("30 Jun");
        button(desk, "See the letter…").click();
        Locator letter = desk.getByRole(AriaRole.DIALOG).locator(".letter");
        assertThat(letter).containsText("It was €711.48 on 29 March 2027 before.");
        button(desk, "Agree and send").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).hasCount(0);
        assertThat(desk.locator(".aside")).containsText("What was agreed before");
    }

    /** Two windows at the same moment, and somebody who comes later: accepted once, told once. */
    @Test
    public void twoAtOnceAcceptItOnce() throws Exception {
        long client = demo.api.client("Two At Once");
        Map<String, Object> draft = demo.api.draft(client, "100.00", "rest@30");
        draft.put("offer", Map.of("validUntil", "+30", "conditions", ""));
        JsonNode kept = demo.api.post("/api/quotes", draft).ok();
        String path = "/api/quotes/" + kept.path("id").asLong();
        demo.api.post(path + "/issue", Map.of("version", 1)).ok();
        String link = demo.api
                .get(path)
                .ok()
                .path("issued")
                .path("leadsTo")
                .path("link")
                .asString();
        String page = "/api/public/" + link.substring(link.lastIndexOf('/') + 1) + "/quote";
        Api stranger = new Api(demo.app);
        String seal = stranger.get(page).ok().path("seal").asString();
        Map<String, Object> accept = Map.of("name", "Ada Two", "ticked", List.of(), "seen", seal);
        assertThat(stranger.post(page + "/acceptance", Map.of("name", "Ada Two", "ticked", List.of(), "seen", "other"))
                        .status())
                .isEqualTo(409);
        ExecutorService pool = Executors.newFixedThreadPool(2);
        Callable<Integer> one =
                () -> new Api(demo.app).post(page + "/acceptance", accept).status();
        int done = 0;
        for (Future<Integer> f : pool.invokeAll(List.of(one, one))) {
            assertThat(f.get()).isIn(200, 409);
            done += f.get() == 200 ? 1 : 0;
        }
        pool.shutdown();
        assertThat(done).isEqualTo(1);
        assertThat(stranger.post(page + "/declining", Map.of("reason", "late")).status())
                .isEqualTo(409);
        Waiting.until(
                "the record of it",
                java.time.Duration.ofSeconds(60),
                () -> demo.count("twoatonce@clients.example", "is accepted") == 1);
    }
}
