package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.Cookie;
import java.util.Map;
import java.util.regex.Pattern;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.http.Waiting;

/**
 * A new client, an invoice with a deposit and two installments on days, sent after a look, paid on a phone in part,
 * reminded and credited: by mouse, by keyboard alone, and on a phone. And a letter that is called back.
 */
public class WholeStoryTest extends StorySuite {
    @DataProvider
    Object[][] ways() {
        return new Object[][] {{"mouse"}, {"keys"}, {"phone"}};
    }

    @Test(dataProvider = "ways")
    public void fromANewClientToACreditNote(String way) {
        Page page = context(way.equals("phone") ? 390 : 1280, way.equals("phone") ? 844 : 800)
                .newPage();
        page.context()
                .addCookies(desk.context().cookies().stream()
                        .map(c -> new Cookie(c.name, c.value).setUrl(demo.app.url("/")))
                        .toList());
        page.navigate(demo.app.url("/"));
        page.waitForSelector(".masthead");
        Hands hands = way.equals("keys") ? Hands.keys(page) : Hands.mouse(page);
        String name = "Whole Story by " + way;
        String address = "story." + way + "@clients.example";

        clientAndSheet(hands, name, address);
        send(hands);
        String text = demo.letters(address).get(0).path("text").asString();
        // 800.00 and 21% are 968.00; 30% of it 290.40, and half of 677.60 twice.
        assertThat(text)
                .contains("See you soon.")
                .contains("Deposit, due 15 March 2027: €290.40")
                .contains("Installment 2, due 19 March 2027: €338.80")
                .contains("Installment 3, due 19 April 2027: €338.80");
        payTheDeposit(text.replaceAll("(?s).*See and pay: (\\S+).*", "$1"));
        assertThat(page.locator(".foot .figure b")).hasText("€677.60");

        hands.place("Today");
        Locator act = page.locator("[aria-label='What will happen'] li")
                .filter(new Locator.FilterOptions().setHasText(name))
                .first();
        assertThat(act).containsText("€338.80");
        String deed = act.getByRole(
                        AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(Pattern.compile("^Send now")))
                .getAttribute("aria-label");
        hands.press(deed);
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("€338.80 on invoice 2027-");
        hands.press("Send now");
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
        // What went keeps its row, so that nothing moves under the pointer.
        assertThat(act).containsText("it leaves in a moment");
        Waiting.until("the reminder", () -> demo.count(address, "a note ahead of time") == 1);

        hands.place("Invoices");
        hands.press(name);
        if (way.equals("phone")) {
            // Where the window is narrow it stands with what is done less often.
            hands.press("More");
            page.getByRole(AriaRole.MENUITEM).first().waitFor();
        }
        hands.press("Credit…");
        hands.pick("The whole", "An amount", 2);
        hands.type("Amount, tax included", "100");
        hands.type("Reason, as it is printed", "a kindness");
        hands.press("Write the credit note");
        assertThat(page.locator(".foot .figure b")).hasText("€577.60");
        Waiting.until("the credit note", () -> demo.count(address, "credit note") == 1);
        assertThat(demo.letters(address).get(0).path("text").asString())
                .contains("€577.60 is still to be paid for invoice 2027-");
        assertThat(demo.api.booksAgree()).isTrue();
        page.context().close();
    }

    private void clientAndSheet(Hands hands, String name, String address) {
        hands.place("Clients");
        hands.press("New client");
        hands.type("Name", name);
        hands.type("E-mail address", address);
        hands.press("Save");
        assertThat(hands.page.locator("h1").last()).hasText(name);
        hands.place("New invoice");
        hands.type("What, line 1", "Regulation");
        hands.type("Quantity, line 1", "2");
        hands.type("Price, line 1", "400,00");
        hands.press("Ask for a deposit first");
        hands.type("Share of installment 1", "30%");
        hands.press("+ Installment");
        hands.press("Add it");
        hands.type("When installment 2", "19 Mar 2027");
        hands.type("When installment 3", "19 April 2027");
        assertThat(hands.page.locator(".sheet")).containsText("338.80");
    }

    private static void send(Hands hands) {
        hands.press("Issue and send…");
        hands.type("A line of your own", "See you soon.");
        Locator dialog = hands.page.getByRole(AriaRole.DIALOG);
        assertThat(dialog.locator(".letter")).containsText("See you soon.");
        assertThat(dialog.locator(".letter")).containsText("/p/…");
        hands.press("Issue and send");
        assertThat(dialog).hasCount(0);
        assertThat(hands.page.locator(".sheet .kind").first()).containsText("Invoice 2027-");
        assertThat(hands.page.locator(".aside")).containsText("Sent to");
    }

    private static void payTheDeposit(String link) {
        Page phone = context(390, 844).newPage();
        phone.navigate(link);
        button(phone, "Pay €290.40 by card").click();
        card(phone, GOOD_CARD, "EUR 290.40");
        assertThat(phone.locator(".done")).containsText("Paid");
        phone.context().close();
    }

    @Test
    public void aLetterIsCalledBackOverAKill() {
        try (Demo patient = new Demo(Map.of("quill.call-back-seconds", "900"))) {
            long client = patient.api.client("Called Back");
            long draft = patient.api
                    .post("/api/invoices", patient.api.draft(client, "200.00", "100%@10"))
                    .ok()
                    .path("id")
                    .asLong();
            Page page = patient.signIn();
            page.navigate(patient.app.url("/invoices/" + draft));
            issueAndSend(page);
            assertThat(page.locator(".leaving")).containsText("calledback@clients.example");
            patient.app.kill();
            patient.app.start("/api/health");
            patient.ready();
            page.context().close();
            page = patient.signIn();
            assertThat(page.locator(".leaving")).containsText("leaves in");
            button(page, "Call back").click();
            assertThat(page.locator(".leaving")).hasCount(0);
            assertThat(page.locator("[data-need=unsent]")).containsText("Called Back");
            page.navigate(patient.app.url("/invoices/" + draft));
            assertThat(page.locator(".aside")).containsText("Issued, not sent yet.");
            assertThat(page.locator(".aside")).containsText("Called back before it left");
            assertThat(patient.letters("calledback@clients.example").size()).isZero();
            page.context().close();
        }
    }
}
