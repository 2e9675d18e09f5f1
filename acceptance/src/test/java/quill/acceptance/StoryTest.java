package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/** The whole job once, in the browser: from the first keystroke to money in the books. */
public class StoryTest extends DemoSuite {
    private final Map<String, List<String>> booksOf = new HashMap<>();

    @DataProvider
    Object[][] posts() {
        return new Object[][] {
            {"as it should", "", 0}, {"lost", "lose", 1}, {"doubled", "double", 1}, {"late", "delay", 3}
        };
    }

    @AfterMethod(alwaysRun = true)
    public void dialsBack() {
        for (String dial : List.of("lose", "double", "delay", "cut")) {
            dial(dial, 0);
        }
    }

    @Test(dataProvider = "posts")
    public void fromALineOfWorkToMoneyInTheBooks(String name, String dial, int setting) {
        Api api = Api.signedIn(app);
        long client = api.client("Story " + name);
        String address = "story" + name.replace(" ", "") + "@clients.example";
        if (!dial.isEmpty()) {
            dial(dial, setting);
        }
        Page desk = signIn();
        writeAndSend(desk, name);
        Waiting.until("the letter", () -> hasLetter(address, "invoice"));
        JsonNode letter = letters(address).get(0);
        assertThat(letter.path("attachments").get(0).asString()).endsWith(".pdf");
        String link = letter.path("text").asString().replaceAll("(?s).*(http://\\S+/p/\\S+).*", "$1");

        payDeposit(link);
        // Nobody touches the desk: it shows the payment by itself.
        assertThat(desk.locator(".foot .figure b")).hasText("€644.26");
        assertThat(desk.locator(".aside")).containsText("429.51 received by card");
        assertThat(desk.locator(".aside")).containsText("processing fee 12.76");
        Waiting.until("the receipt", () -> hasLetter(address, "receipt"));
        transferWronglyThenRightly(desk, client);

        assertThat(desk.locator(".foot .figure b")).hasText("€0.00");
        desk.getByText("The client’s account").click();
        assertThat(desk.locator(".sentence").first()).containsText("€0.00");
        assertThat(desk.locator(".page")).containsText("The books agree.");
        booksOf.put(name, entriesOf(api, client));
        assertThat(booksOf.get(name)).isEqualTo(booksOf.get("as it should"));
        desk.context().close();
    }

    private void writeAndSend(Page desk, String name) {
        desk.waitForSelector(".almanac");
        desk.keyboard().press("n");
        desk.keyboard().press("Enter");
        choose(desk, "Story " + name);
        desk.getByLabel("For", new Page.GetByLabelOptions().setExact(true)).fill("an upright");
        line(desk, 1, "Regulating and voicing, hours", "14.5", "68.00", "10%");
        line(desk, 2, "Method book, second hand", "2", "9.00", "");
        desk.getByLabel("Tax, line 2").selectOption(new com.microsoft.playwright.options.SelectOption().setLabel("6%"));
        line(desk, 3, "Call-out", "-1", "0.00", "");
        // Worked by hand: 986.00 - 98.60 = 887.40, 21 % of it 186.354; 18.00, 6 % of it 1.08; 40 % of 1,092.83 ...
        assertThat(foot(desk, "Net")).containsText("905.40");
        assertThat(foot(desk, "Tax")).containsText("187.43");
        assertThat(foot(desk, "Total")).containsText("€1,092.83");
        line(desk, 3, "Call-out, kindly halved", "0", "0.00", "");
        desk.getByLabel("Quantity, line 2").fill("1");
        desk.getByLabel("Price, line 2").fill("0.00");
        assertThat(foot(desk, "Total")).containsText("€1,073.75");
        button(desk, "40% deposit, the rest in 30 days").click();
        // 40 % of 1,073.75 is 429.50 exactly; the rest 644.25: shares that need no spare cent
        assertThat(foot(desk, "First due")).containsText("429.50");
        desk.getByLabel("Price, line 2").fill("0.02");
        // 0.02 and its tax of 0.00: 1,073.77 gives 429.508 and 644.262, the spare cent goes to the first
        assertThat(foot(desk, "First due")).containsText("429.51");
        desk.locator("td:has-text('€1,073.77') button, tr.total button").first().click();
        assertThat(desk.locator(".why")).containsText("887.42 + 186.35 = 1,073.77");
        Suite.issueAndSend(desk);
        assertThat(desk.locator(".sheet .kind")).containsText("Invoice 2027-");
    }

    private void payDeposit(String link) {
        Page phone = context(390, 844).newPage();
        phone.navigate(link);
        assertThat(phone.locator(".ask")).containsText("€429.51");
        button(phone, "Pay €429.51 by card").click();
        card(phone, POOR_CARD, "EUR 429.51");
        assertThat(phone.getByRole(AriaRole.ALERT)).containsText("not enough funds. Nothing was taken");
        card(phone, GOOD_CARD, "EUR 429.51");
        assertThat(phone.locator(".done")).containsText("Paid");
        // The payer closes the page without going back: only the event, or the poll, can tell.
        phone.context().close();
    }

    private void transferWronglyThenRightly(Page desk, long client) {
        button(desk, "Record a payment").click();
        desk.getByLabel("Amount").fill("64.43");
        button(desk, "Record it").click();
        assertThat(desk.locator(".foot .figure b")).hasText("€579.83");
        desk.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("Undo").setExact(true))
                .click();
        desk.getByLabel("Why", new Page.GetByLabelOptions().setExact(true)).fill("a slip of the pen");
        button(desk, "Undo it").click();
        assertThat(desk.locator(".foot .figure b")).hasText("€644.26");
        button(desk, "Record a payment").click();
        button(desk, "Record it").click();
    }

    private static void line(Page desk, int number, String what, String quantity, String price, String less) {
        desk.getByLabel("What, line " + number).fill(what);
        desk.getByLabel("Quantity, line " + number).fill(quantity);
        desk.getByLabel("Price, line " + number).fill(price);
        desk.getByLabel("Less, line " + number).fill(less);
    }

    private static Locator foot(Page desk, String name) {
        return desk.getByTestId("foot-" + name);
    }

    /** A client's entries without what differs by name and number. */
    private static List<String> entriesOf(Api api, long client) {
        List<String> entries = new ArrayList<>();
        for (JsonNode e : api.get("/api/books").ok().path("entries")) {
            if (e.path("clientId").asLong() == client) {
                entries.add(e.path("event").asString() + " " + e.path("postings"));
            }
        }
        return entries;
    }
}
