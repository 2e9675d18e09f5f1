package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.Cookie;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;

/** Writing is quick, by keys alone and on a phone, and nothing that was typed is ever lost. */
public class WorkbenchTest extends DemoSuite {
    private Api api;
    private Page desk;
    private int pressed;

    @BeforeClass
    public void begin() {
        api = Api.signedIn(app);
        desk = signIn();
        desk.context().grantPermissions(List.of("clipboard-read", "clipboard-write"));
    }

    @AfterClass(alwaysRun = true)
    public void end() {
        desk.context().close();
    }

    private void key(String key) {
        pressed++;
        desk.keyboard().press(key);
    }

    private void clipboard(String text) {
        desk.evaluate("text => navigator.clipboard.writeText(text)", text);
    }

    private void found() {
        assertThat(desk.locator("[role=option]:visible").first()).isVisible();
    }

    /** All of the name at once: the list has no time to mark what it found. */
    @Test
    public void aNamePastedIntoToIsChosenByEnter() {
        api.client("Pasted At Once");
        desk.navigate(app.url("/invoices/new"));
        assertThat(desk.getByRole(
                        AriaRole.COMBOBOX,
                        new Page.GetByRoleOptions().setName("To").setExact(true)))
                .isFocused();
        desk.keyboard().insertText("Pasted At");
        found();
        key("Enter");
        assertThat(desk.getByLabel("For", new Page.GetByLabelOptions().setExact(true)))
                .isFocused();
    }

    @Test
    public void sixLinesFromCatalogueBundleAndClipboardAreWrittenAndSentWithFewKeys() {
        api.client("Keys Alone");
        desk.navigate(app.url("/"));
        desk.waitForSelector(".almanac");
        clipboard("Tuning pins\t12\t1.35\nA box, \"\"as new\"\"\t1\t40.00");
        pressed = 0;
        key("n");
        key("Enter");
        assertThat(desk.getByRole(
                        AriaRole.COMBOBOX,
                        new Page.GetByRoleOptions().setName("To").setExact(true)))
                .isFocused();
        desk.keyboard().type("Keys Al");
        found();
        key("Enter");
        assertThat(desk.getByLabel("For", new Page.GetByLabelOptions().setExact(true)))
                .isFocused();
        desk.keyboard().type("the music room");
        key("Enter");
        key("Enter");
        assertThat(desk.getByLabel("What, line 1")).isFocused();
        desk.keyboard().type("concert");
        found();
        key("ArrowDown");
        key("Enter");
        assertThat(desk.getByLabel("Quantity, line 1")).isFocused();
        desk.keyboard().type("2");
        key("Enter");
        assertThat(desk.getByLabel("Price, line 1")).hasValue("93.00");
        key("Enter");
        assertThat(desk.getByLabel("What, line 2")).isFocused();
        desk.keyboard().type("yearly");
        found();
        key("ArrowDown");
        key("Enter");
        assertThat(desk.getByLabel("What, line 5")).isFocused();
        key("Control+v");
        assertThat(desk.getByRole(AriaRole.DIALOG)).containsText("2 lines to put on the sheet");
        key("Enter");
        assertThat(desk.getByLabel("What, line 6")).hasValue("A box, \"\"as new\"\"");
        // 2 × 93, 2 × 74, 1.5 × 68, 36 × 0.62, 12 × 1.35 and 40: 514.52.
        assertThat(desk.getByTestId("foot-Net")).containsText("514.52");
        assertThat(desk.getByLabel("What, line 7")).isFocused();
        key("Control+Enter");
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText("Here is invoice");
        for (int i = 0; i < 12 && !goes(); i++) {
            key("Tab");
        }
        key("Enter");
        assertThat(dialog).hasCount(0);
        assertThat(desk.locator(".sheet .kind").first()).containsText("Invoice 2027-");
        assertThat(pressed).as("keys pressed beside the text").isLessThanOrEqualTo(60);
        System.out.println("six lines, from N to sent: " + pressed + " keys beside the text");
    }

    private boolean goes() {
        return Boolean.TRUE.equals(desk.evaluate("() => document.activeElement.innerText === 'Issue and send'"));
    }

    @Test
    public void sixLinesAreWrittenAndIssuedWithFingersOnAPhone() {
        api.client("Fingers Alone");
        BrowserContext context = desk.context()
                .browser()
                .newContext(new Browser.NewContextOptions()
                        .setViewportSize(390, 844)
                        .setHasTouch(true)
                        .setIsMobile(true)
                        .setLocale("en-GB"));
        context.addCookies(desk.context().cookies().stream()
                .map(c -> new Cookie(c.name, c.value).setUrl(app.url("/")))
                .toList());
        Page phone = context.newPage();
        phone.navigate(app.url("/"));
        phone.getByText("Places").tap();
        phone.getByText("New invoice").tap();
        choose(phone, "Fingers Alone");
        for (int i = 1; i <= 5; i++) {
            phone.getByLabel("What, line " + i).tap();
            phone.keyboard().type("Work " + i);
            phone.getByLabel("Quantity, line " + i).tap();
            phone.keyboard().type("2");
            phone.getByLabel("Price, line " + i).tap();
            phone.keyboard().type("10");
        }
        phone.getByLabel("What, line 6").tap();
        phone.keyboard().type("concert");
        phone.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("Concert tuning"))
                .tap();
        // A line is two rows, and opens in place; another one closes.
        assertThat(phone.getByText("2 × 10 · 21%")).hasCount(5);
        phone.getByText("Work 1").tap();
        phone.getByLabel("Remove line 1").tap();
        assertThat(phone.getByTestId("foot-Total")).containsText("209.33"); // 80 + 93, and 21%
        phone.getByText("Bring it back").tap();
        assertThat(phone.getByTestId("foot-Total")).containsText("233.53");
        phone.getByText("As the client").tap();
        assertThat(phone.getByRole(AriaRole.DIALOG)).containsText("Fingers Alone");
        assertThat(phone.getByRole(AriaRole.DIALOG)).containsText("€233.53");
        phone.getByLabel("Close").tap();
        issueOnly(phone);
        assertThat(phone.locator(".sheet .kind").first()).containsText("Invoice 2027-");
        context.close();
    }

    @Test
    public void aPasteOfFortyRowsIsUndoneInOneStepAndDoneAgain() {
        clipboardOnSheet(IntStream.rangeClosed(1, 40)
                .mapToObj(i -> "Row " + i + "\t1\t10.00")
                .collect(Collectors.joining("\n")));
        assertThat(desk.getByRole(AriaRole.DIALOG)).containsText("40 lines to put on the sheet");
        desk.keyboard().press("Enter");
        assertThat(desk.getByTestId("foot-Net")).containsText("400.00");
        assertThat(desk.getByLabel("What, line 41")).isFocused();
        desk.keyboard().press("Control+z");
        assertThat(desk.getByLabel("What, line 2")).hasCount(0);
        assertThat(desk.getByLabel("What, line 1")).hasValue("");
        desk.keyboard().press("Control+y");
        assertThat(desk.getByLabel("What, line 40")).hasValue("Row 40");
        assertThat(desk.getByTestId("foot-Net")).containsText("400.00");
        deleteDraft(desk);
    }

    private void clipboardOnSheet(String text) {
        desk.navigate(app.url("/invoices/new"));
        clipboard(text);
        desk.getByLabel("What, line 1").click();
        desk.keyboard().press("Control+v");
    }

    @Test
    public void cellsWithLineBreaksAndCommasForDecimalsLandAsTheyAreMeant() {
        clipboardOnSheet("Anzahl\tWhat\tPrice\n2\t\"Soundboard,\ntwo cracks\"\t1.240,50");
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText("1 line to put on the sheet");
        dialog.getByLabel("Column 1").selectOption("quantity");
        desk.getByText("Put them on the sheet").click();
        assertThat(desk.getByLabel("What, line 1")).hasValue("Soundboard,\ntwo cracks");
        assertThat(desk.getByTestId("foot-Net")).containsText("2,481.00");
        deleteDraft(desk);
    }

    @Test
    public void aLostLineLosesNothingThatIsTypedMeanwhile() {
        desk.navigate(app.url("/invoices/new"));
        desk.getByLabel("What, line 1").fill("Before");
        assertThat(desk.getByText("Kept at")).isVisible();
        desk.context().setOffline(true);
        desk.getByLabel("What, line 1").fill("Typed without a line");
        assertThat(desk.locator(".foot")).containsText("does not answer");
        desk.context().setOffline(false);
        assertThat(desk.getByText("Kept at")).isVisible();
        desk.reload();
        assertThat(desk.getByLabel("What, line 1")).hasValue("Typed without a line");
        deleteDraft(desk);
    }

    @Test
    public void aWindowClosedRightAfterAKeyLosesNothing() {
        Page window = desk.context().newPage();
        window.navigate(app.url("/invoices/new"));
        window.getByLabel("What, line 1").fill("Kept");
        assertThat(window.getByText("Kept at")).isVisible();
        String address = window.url();
        window.context().setOffline(true);
        window.getByLabel("What, line 1").press("End");
        window.keyboard().type("!");
        window.close();
        desk.context().setOffline(false);
        desk.navigate(address);
        assertThat(desk.getByLabel("What, line 1")).hasValue("Kept!");
        assertThat(desk.getByText("Kept at")).isVisible();
        deleteDraft(desk);
    }

    @Test
    public void aDeletedDraftComesBackAndALineBecomesAnItem() {
        desk.navigate(app.url("/invoices/new"));
        desk.getByLabel("What, line 1").fill("Castor cups, set of four");
        desk.getByLabel("Quantity, line 1").fill("1");
        desk.getByLabel("Price, line 1").fill("18.50");
        assertThat(desk.getByText("Kept at")).isVisible();
        desk.getByLabel("More on line 1").click();
        desk.getByText("Keep it in the catalogue").click();
        assertThat(desk.getByText("It stands in the catalogue now.")).isVisible();
        desk.getByLabel("More on line 1").click();
        desk.getByText("A note under it").click();
        desk.getByLabel("Note under line 1").fill("felted");
        assertThat(desk.getByText("Kept at")).isVisible();
        deleteDraft(desk);
        desk.getByText("Bring it back").click();
        assertThat(desk.getByLabel("Note under line 1")).hasValue("felted");
        desk.getByLabel("What, line 2").fill("castor");
        assertThat(desk.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName("Castor cups")))
                .containsText("18.50");
        deleteDraft(desk);
    }

    /** What is typed into a sheet that is about to go would go with it, where its draft was brought back meanwhile. */
    @Test
    public void thatADraftIsDeletedIsSaidOnceItsSheetIsGone() {
        desk.navigate(app.url("/invoices/new"));
        desk.getByLabel("What, line 1").fill("Goes first");
        assertThat(desk.getByText("Kept at")).isVisible();
        desk.evaluate("""
                () => {
                  window.saidWithSheet = [];
                  new MutationObserver(() => {
                    if (document.body.innerText.includes('The draft is deleted.'))
                      window.saidWithSheet.push(document.querySelector('[aria-label="What, line 1"]') !== null);
                  }).observe(document.body, { childList: true, subtree: true });
                }""");
        deleteDraft(desk);
        assertThat(desk.getByText("The draft is deleted.")).isVisible();
        assertThat((List<?>) desk.evaluate("window.saidWithSheet")).isNotEmpty().allMatch(Boolean.FALSE::equals);
    }

    @Test
    public void whoLeavesWhileADraftIsDeletedStaysThereAndIsTold() {
        desk.navigate(app.url("/invoices/new"));
        desk.getByLabel("What, line 1").fill("Left behind");
        assertThat(desk.getByText("Kept at")).isVisible();
        List<Route> held = new ArrayList<>();
        Consumer<Route> hold = route -> {
            if ("DELETE".equals(route.request().method())) {
                held.add(route);
            } else {
                route.resume();
            }
        };
        desk.route("**/api/invoices/*", hold);
        desk.waitForRequest(asked -> "DELETE".equals(asked.method()), () -> deleteDraft(desk));
        desk.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Clients").setExact(true))
                .click();
        assertThat(desk.getByLabel("What, line 1")).hasCount(0);
        held.get(0).resume();
        assertThat(desk.getByText("The draft is deleted.")).isVisible();
        assertThat(desk).hasURL(app.url("/clients"));
        desk.unroute("**/api/invoices/*", hold);
    }

    @Test
    public void anythingIsFoundByKeyAloneAndActedOn() {
        desk.navigate(app.url("/"));
        desk.waitForSelector(".almanac");
        desk.keyboard().press("Control+k");
        Locator found = desk.getByRole(AriaRole.DIALOG);
        assertThat(desk.getByLabel("Find anything")).isFocused();
        desk.keyboard().type("kestral");
        assertThat(found).containsText("Kestrel Theatre");
        assertThat(found).containsText("New invoice for Kestrel Theatre");
        desk.keyboard().press("ArrowDown");
        desk.keyboard().press("Enter");
        assertThat(desk.locator("h1").first()).hasText("Kestrel Theatre");
        assertThat(found).isHidden();
        desk.keyboard().press("/");
        assertThat(desk.getByLabel("Find anything")).isFocused();
        desk.keyboard().type("aging");
        assertThat(found).containsText("Aging");
        desk.keyboard().press("ArrowDown");
        desk.keyboard().press("Enter");
        assertThat(desk.locator("h1").first()).hasText("Aging");
        desk.keyboard().press("/");
        desk.keyboard().type("card telephone");
        assertThat(found).containsText("Card without an invoice");
        desk.keyboard().press("ArrowDown");
        desk.keyboard().press("Enter");
        assertThat(desk.getByRole(AriaRole.DIALOG)).containsText("Take a card, with no invoice");
        Locator who = desk.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Who pays"));
        assertThat(who).isFocused();
        desk.keyboard().type("kestrel");
        desk.keyboard().press("Enter");
        assertThat(who).hasValue("Kestrel Theatre");
        desk.keyboard().press("Escape");
        assertThat(desk.getByRole(AriaRole.DIALOG)).isHidden();
    }
}
