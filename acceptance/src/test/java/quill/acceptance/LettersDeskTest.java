package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.FrameLocator;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.Map;
import java.util.regex.Pattern;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/** A letter is worded at the desk, seen with a real client before it is used, and then goes as it was worded. */
public class LettersDeskTest extends DemoSuite {
    /** A letter that went before is sent again. */
    private static final Pattern SEND_IT = Pattern.compile("^Send( again)?…$");

    private static final Pattern SEND = Pattern.compile("^Send( again)?$");
    private static final Pattern RECEIPT = Pattern.compile("^Receipt");
    private Api api;
    private Page desk;

    @BeforeClass
    public void signInOnce() {
        api = Api.signedIn(app);
        desk = signIn();
    }

    /** Others expect the letters that ship. */
    @AfterClass(alwaysRun = true)
    public void leave() {
        for (JsonNode l : api.get("/api/letters").ok()) {
            String at = "/api/letters/" + l.path("kind").asString();
            if (!l.path("own").isNull()) {
                api.post(
                                at + "/ours",
                                Map.of(
                                        "payer",
                                        false,
                                        "version",
                                        api.get(at).ok().path("version").asInt()))
                        .ok();
            }
        }
        desk.context().close();
    }

    private Locator text() {
        return desk.getByLabel("Text", new Page.GetByLabelOptions().setExact(true));
    }

    private Locator button(String name) {
        return button(desk, name);
    }

    private FrameLocator arriving() {
        return desk.frameLocator("iframe[title='The letter as it would arrive']");
    }

    @Test
    public void aLetterIsRewordedByKeyboardAndTheNextMailSaysSo() {
        desk.navigate(app.url("/settings"));
        desk.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Letters"))
                .click();
        desk.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(RECEIPT))
                .click();
        assertThat(arriving().locator("body")).containsText("Thank you.");
        text().focus();
        desk.keyboard().press("Control+End");
        desk.keyboard().type("\n\nWith thanks,\n{busi");
        assertThat(desk.getByRole(AriaRole.LISTBOX, new Page.GetByRoleOptions().setName("Fields"))
                        .getByRole(AriaRole.OPTION))
                .hasCount(1);
        desk.keyboard().press("Enter");
        assertThat(text()).hasValue(Pattern.compile("With thanks,\n\\{business}$"));
        desk.keyboard().type(", of {documnt}");
        assertThat(desk.getByText("“{documnt}”: there is no such field in this letter; the nearest is {document}")
                        .first())
                .isVisible();
        // It is refused, and what was typed stays.
        button("Use from now on").click();
        assertThat(text()).hasValue(Pattern.compile("of \\{documnt}$"));
        text().focus();
        desk.keyboard().press("Control+End");
        for (int i = 0; i < "nt}".length(); i++) {
            desk.keyboard().press("Backspace");
        }
        desk.keyboard().type("ent}");
        assertThat(arriving().locator("body")).containsText("Larkmoor Pianos, of invoice");
        button("Use from now on").click();
        assertThat(desk.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(RECEIPT)))
                .containsText("yours");
        long client = api.client("Worded Anew");
        long invoice = api.issue(api.draft(client, "100.00", "100%@5"));
        api.transfer(client, invoice, "30.00", "worded-anew-1").ok();
        Waiting.until("the receipt", () -> hasLetter("wordedanew@clients.example", "receipt for €30.00"));
        assertThat(letters("wordedanew@clients.example")
                        .get(0)
                        .path("text")
                        .asString()
                        .replace("\r\n", "\n"))
                .contains("With thanks,\nLarkmoor Pianos, of invoice");
    }

    @Test
    public void whatWasTypedIsThereAgainAndCanBeginAnewFromOurs() {
        desk.navigate(app.url("/settings/letters/final"));
        text().fill("Mine for now.");
        assertThat(desk.getByText("offers no way to pay it")).isVisible();
        assertThat(arriving().locator("body")).containsText("Mine for now.");
        desk.navigate(app.url("/settings/letters/firm"));
        assertThat(text()).not().hasValue("Mine for now.");
        desk.navigate(app.url("/settings/letters/final"));
        assertThat(text()).hasValue("Mine for now.");
        assertThat(desk.getByText("What you typed here before is back")).isVisible();
        button("Begin again from ours").click();
        desk.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName("Firm"))
                .click();
        assertThat(text()).hasValue(Pattern.compile("our last letter before other steps"));
        button("Bring mine back").click();
        assertThat(text()).hasValue("Mine for now.");
        button("Leave it as it was").click();
        assertThat(button("Use from now on")).isDisabled();
    }

    @Test
    public void twoWindowsOnOneLetterLoseNothing() {
        desk.navigate(app.url("/settings/letters/ahead"));
        Page other = desk.context().newPage();
        other.navigate(app.url("/settings/letters/ahead"));
        Locator theirs = other.getByLabel("Text", new Page.GetByLabelOptions().setExact(true));
        text().fill("Mine. {how it stands}");
        theirs.fill("Theirs. {how it stands}");
        other.getByText("Use from now on").click();
        assertThat(other.getByText("It goes like this from now on.").first()).isVisible();
        assertThat(desk.getByText("This letter was changed in another window. What you typed stands here"))
                .isVisible();
        assertThat(text()).hasValue("Mine. {how it stands}");
        button("Leave it as it was").click();
        assertThat(text()).hasValue("Theirs. {how it stands}");
        other.close();
    }

    @Test
    public void itIsLookedAtWithAClientOfOnesChoiceInBothForms() {
        desk.navigate(app.url("/settings/letters/firm"));
        desk.getByLabel("With whom").selectOption("Captain’s House Hotel");
        assertThat(desk.getByTestId("preview-subject")).containsText("overdue, invoice 2027-0007, €1,838.04");
        assertThat(arriving().locator("img[alt*='Square code for a bank transfer of €1,838.04']"))
                .isVisible();
        desk.getByText("As plain text", new Page.GetByTextOptions().setExact(true))
                .click();
        assertThat(desk.locator("pre")).containsText("Dear Imre Dahl,");
        assertThat(desk.locator("pre")).containsText("By bank transfer: IBAN");
    }

    @Test
    public void onAPhoneAFieldIsPickedFromTheList() {
        Page phone = context(390, 844).newPage();
        phone.context().addCookies(desk.context().cookies(app.url("/")));
        phone.navigate(app.url("/settings/letters/credit_note"));
        Locator text = phone.getByLabel("Text", new Page.GetByLabelOptions().setExact(true));
        text.fill("It is ");
        phone.getByText("Or pick one here").click();
        phone.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("today").setExact(true))
                .click();
        assertThat(text).hasValue("It is {today}");
        phone.context().close();
    }

    @Test
    public void anInvoiceIsGivenByACodeOnScreenThatAPhoneReads() throws Exception {
        long client = api.client("Shown A Code");
        long invoice = api.issue(api.draft(client, "100.00", "100%@5"));
        desk.navigate(app.url("/invoices/" + invoice));
        desk.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(SEND_IT))
                .click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText("Here is invoice");
        dialog.getByText("A code on screen", new Locator.GetByTextOptions().setExact(true))
                .click();
        Locator code = dialog.getByAltText("Square code that leads to the page");
        assertThat(code).isVisible();
        desk.waitForFunction("() => document.querySelector('img[alt^=\"Square code\"]').naturalWidth > 0");
        String read = Codes.read(code);
        dialog.getByText("A link", new Locator.GetByTextOptions().setExact(true))
                .click();
        assertThat(dialog.getByLabel("The link to its page")).hasValue(read);
        dialog.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Note it as given to the client"))
                .click();
        assertThat(dialog).hasCount(0);
        Page phone = context(390, 844).newPage();
        phone.navigate(read);
        assertThat(phone.locator(".ask")).containsText("€121.00");
        phone.context().close();
    }

    @Test
    public void copiesGoToOthersAndThePaperCanStayHere() {
        long client = api.client("Copied To");
        long invoice = api.issue(api.draft(client, "100.00", "100%@5"));
        desk.navigate(app.url("/invoices/" + invoice));
        desk.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(SEND_IT))
                .click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        dialog.getByText("+ Copies to others").click();
        dialog.getByLabel("Copies to").fill("nobody");
        dialog.getByLabel("Attached: invoice-").uncheck();
        dialog.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(SEND))
                .click();
        assertThat(dialog).containsText("must be an address such as");
        dialog.getByLabel("Copies to").fill("other@clients.example");
        dialog.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(SEND))
                .click();
        assertThat(dialog).hasCount(0);
        assertThat(desk.locator("body"))
                .containsText("Sent to copiedto@clients.example, copies to other@clients.example");
    }

    @Test
    public void whatThePageSaysAfterADeclinedCardCanBeWorded() {
        desk.navigate(app.url("/settings/letters/page_given_up"));
        assertThat(desk.getByLabel("Subject")).hasCount(0);
        text().fill("Your card said: {why declined}. No coin moved.");
        assertThat(desk.locator("pre")).containsText("Your card said: not enough funds. No coin moved.");
        button("Use from now on").click();
        assertThat(desk.locator(".index")).containsText(Pattern.compile("After giving up.*yours", Pattern.DOTALL));
        long client = api.client("Given Up");
        long invoice = api.issue(api.draft(client, "100.00", "100%@5"));
        Page phone = context(390, 844).newPage();
        phone.navigate(app.url("/p/" + api.token(invoice)));
        phone.getByText("Pay €121.00 by card").click();
        card(phone, POOR_CARD, "EUR 121.00");
        assertThat(phone.getByRole(AriaRole.ALERT)).containsText("not enough funds");
        phone.navigate(app.url("/p/" + api.token(invoice) + "?back=1"));
        assertThat(phone.locator(".told.refused")).hasText("Your card said: not enough funds. No coin moved.");
        phone.context().close();
    }
}
