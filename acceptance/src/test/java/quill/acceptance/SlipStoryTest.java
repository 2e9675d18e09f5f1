package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.regex.Pattern;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;

/** The slip: an invoice by text message, later, to an address that turns out to be wrong. */
public class SlipStoryTest extends DemoSuite {
    private static final Pattern SEND_IT = Pattern.compile("^Send( again)?…$");
    private Api api;
    private Page desk;

    @BeforeClass
    public void signInOnce() {
        api = Api.signedIn(app);
        desk = signIn();
    }

    @AfterClass(alwaysRun = true)
    public void leave() {
        desk.context().close();
    }

    private Locator slip(long invoice) {
        desk.navigate(app.url("/invoices/" + invoice));
        desk.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(SEND_IT))
                .click();
        return desk.getByRole(AriaRole.DIALOG);
    }

    private static Locator number(Locator in) {
        return in.getByLabel("Number", new Locator.GetByLabelOptions().setExact(true));
    }

    private static Locator press(Locator in, String name) {
        return in.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(name));
    }

    @Test
    public void anInvoiceGoesByTextMessageOnceItsNumberIsKnown() {
        long client = api.client("Text Only");
        long invoice = api.issue(api.draft(client, "100.00", "100%@5"));
        Locator dialog = slip(invoice);
        dialog.getByText("By text message").click();
        assertThat(dialog.getByRole(AriaRole.REGION, new Locator.GetByRoleOptions().setName("The text message")))
                .containsText("€121.00 is open. http");
        assertThat(dialog.getByTestId("length")).hasText(Pattern.compile("\\d+ characters, in one part: €0.08"));
        press(dialog, "Send again").click();
        assertThat(dialog).containsText("this client has no telephone number; write one");
        number(dialog).fill("CALL ME");
        press(dialog, "Send again").click();
        assertThat(dialog).containsText("must be a telephone number of digits");
        number(dialog).fill("+44 7700 900321");
        assertThat(dialog.getByLabel("Keep this number with the client")).isChecked();
        press(dialog, "Send again").click();
        assertThat(dialog).hasCount(0);
        assertThat(desk.locator("body")).containsText("Sent by text message to +447700900321");
        Page phone = context(390, 844).newPage();
        phone.navigate(standIns.url("/telegraph-office?number=%2B447700900321"));
        assertThat(phone.locator(".telephone")).containsText("Larkmoor Pianos: invoice");
        String said = phone.locator(".telephone p").first().textContent();
        phone.navigate(said.substring(said.indexOf("http")).strip());
        assertThat(phone.locator(".ask")).containsText("€121.00");
        phone.context().close();
        dialog = slip(invoice);
        dialog.getByText("By text message").click();
        assertThat(number(dialog)).hasValue("+44 7700 900321");
        press(dialog, "Not now").click();
    }

    @Test
    public void aLetterThatIsToLeaveLaterIsShownWithItsMomentAndCalledBack() {
        long client = api.client("Much Later");
        long invoice = api.issue(api.draft(client, "100.00", "100%@5"));
        Locator dialog = slip(invoice);
        dialog.getByText("+ Send it later").click();
        dialog.getByLabel("It leaves on").fill("yesterday");
        assertThat(dialog.locator(".mantine-TextInput-description")).containsText("14 March 2027");
        press(dialog, "Send again, later").click();
        assertThat(dialog).containsText("must lie ahead, within a year");
        dialog.getByLabel("It leaves on").fill("tomorrow");
        assertThat(dialog.locator(".mantine-TextInput-description")).containsText("16 March 2027");
        dialog.getByLabel("at", new Locator.GetByLabelOptions().setExact(true)).fill("08:15");
        press(dialog, "Send again, later").click();
        assertThat(dialog).hasCount(0);
        assertThat(desk.locator("body")).containsText("It goes to muchlater@clients.example at 08:15");
        Locator waits = desk.locator("li")
                .filter(new Locator.FilterOptions().setHasText("08:15").setHas(desk.getByText("Call back")));
        press(waits, "Call back").click();
        assertThat(desk.locator("body")).not().containsText("It goes to muchlater@clients.example at 08:15");
        assertThat(desk.locator("body")).containsText(Pattern.compile("called back", Pattern.CASE_INSENSITIVE));
    }

    @Test
    public void aLetterThatCameBackIsMendedUnderNeedsYouAndSentAgain() {
        long client = api.client("Moved House");
        Page room = context(1280, 800).newPage();
        room.navigate(standIns.url("/post-room"));
        room.getByLabel("Address").fill("movedhouse@clients.example");
        room.getByText("Letters to it come back").click();
        assertThat(room).hasURL(Pattern.compile("post-room"));
        room.context().close();
        long invoice = api.issue(api.draft(client, "100.00", "100%@5"));
        Waiting.until(
                "the letter to come back",
                () -> api.get("/api/invoices/" + invoice + "/messages").text().contains("bounced"));
        desk.navigate(app.url("/"));
        Locator need = desk.locator("[data-need='undelivered']", new Page.LocatorOptions().setHasText("movedhouse@"));
        assertThat(need).containsText("A letter came back");
        assertThat(need).containsText("There is no such mailbox");
        need.getByLabel("The right address").fill("nonsense");
        press(need, "Mend, and send again").click();
        assertThat(need).containsText("must be an address such as");
        need.getByLabel("The right address").fill("newhouse@clients.example");
        press(need, "Mend, and send again").click();
        assertThat(need).hasCount(0);
        Waiting.until(
                "the letter at its new address",
                () -> new Api(standIns)
                                .get("/post-room/boxes/newhouse@clients.example")
                                .ok()
                                .size()
                        == 1);
        desk.navigate(app.url("/clients/" + client));
        assertThat(desk.locator("body")).containsText("newhouse@clients.example");
        assertThat(desk.locator("body")).containsText("bounced");
    }
}
