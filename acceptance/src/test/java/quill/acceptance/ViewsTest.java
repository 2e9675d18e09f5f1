package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.args.AxeRunOptions;
import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.Cookie;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;

/** Every view by axe-core (WCAG 2.2 AA), in both lights, and what a person meets who slips or is signed out. */
public class ViewsTest extends DemoSuite {
    /** What passes is not described for each of its elements: on a long page that takes most of the time. */
    private static final AxeRunOptions VIOLATIONS_ONLY = new AxeRunOptions();

    static {
        VIOLATIONS_ONLY.setResultTypes(List.of("violations"));
    }

    /** Each light once, each width once: colours go by the light, what stands where by the width. */
    @DataProvider
    public Object[][] lightsAndWidths() {
        return new Object[][] {{"light", 1280, 800}, {"dark", 390, 844}};
    }

    /** A window of somebody signed in, in one light. */
    private static Page window(Page signedIn, String light, int width, int height) {
        Page page = stillContext(width, height).newPage();
        page.context()
                .addCookies(signedIn.context().cookies().stream()
                        .map(c -> new Cookie(c.name, c.value).setUrl(app.url("/")))
                        .toList());
        page.addInitScript("localStorage.setItem('mantine-color-scheme-value', '" + light + "')");
        return page;
    }

    @Test(dataProvider = "lightsAndWidths")
    public void viewsPassAxe(String light, int width, int height) {
        Page signedIn = signIn();
        Page page = window(signedIn, light, width, height);
        for (String path : VIEWS) {
            page.navigate(app.url(path));
            page.waitForSelector(".masthead");
            page.waitForSelector(".place > *");
            Waiting.pause(700);
            check(page, path);
        }
        page.context().close();
        signedIn.context().close();
    }

    @Test(dataProvider = "lightsAndWidths")
    public void dialogsPassAxe(String light, int width, int height) {
        Api api = Api.signedIn(app);
        long client = api.client("Dialogs Looked At, " + light + width);
        long invoice = api.issue(api.draft(client, "100.00", "100%@5"));
        api.transfer(client, invoice, "5.00", "looked-at-" + light + width);
        Page signedIn = signIn();
        Page page = window(signedIn, light, width, height);
        page.context().grantPermissions(List.of("clipboard-read", "clipboard-write"));
        page.navigate(app.url("/invoices/" + invoice));
        for (String act : List.of("Send again…", "Send…", "Record a payment", "Undo", "Credit…", "Void it")) {
            open(page, act);
        }
        page.locator(".foot .figure-why").click();
        assertThat(page.locator(".why")).containsText("= 116.00");
        check(page, "why");
        page.keyboard().press("Escape");
        page.navigate(app.url("/clients/" + client));
        page.waitForSelector("h1");
        open(page, "Details");
        open(page, "Merge into another record…");
        page.keyboard().press("?");
        shown(page, "the keys");
        page.keyboard().press("/");
        assertThat(page.getByLabel("Find anything")).isFocused();
        page.keyboard().type("kestrel");
        assertThat(page.locator(".mantine-Spotlight-action").first()).isVisible();
        shown(page, "the search");
        onTheSheet(page);
        page.navigate(app.url("/invoices/list?filter=" + "Dialogs"));
        page.getByLabel("Choose all that are shown").check();
        for (String act : List.of("Send…", "Remind…", "No reminders for a while…")) {
            page.getByRole(
                            AriaRole.BUTTON,
                            new Page.GetByRoleOptions().setName(act).setExact(true))
                    .click();
            assertThat(page.getByText("Looking at each…")).hasCount(0);
            shown(page, "several: " + act);
        }
        page.context().close();
        signedIn.context().close();
    }

    /** The dialogs of a draft: rows pasted, as the client sees it, and two windows on it. */
    private static void onTheSheet(Page page) {
        page.navigate(app.url("/invoices/new"));
        choose(page, "Kestrel");
        page.getByLabel("What, line 1").fill("Looked at");
        page.getByLabel("Quantity, line 1").fill("1");
        page.getByLabel("Price, line 1").fill("10");
        assertThat(page.getByText("Kept at")).isVisible();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("As the client"))
                .click();
        shown(page, "as the client");
        page.evaluate("text => navigator.clipboard.writeText(text)", "Strings\t2\t3.00\nFelt\t1\t4.00");
        page.getByLabel("What, line 2").click();
        page.keyboard().press("Control+v");
        shown(page, "pasted rows");
        String draft = page.url().replaceAll(".*/", "");
        Api api = Api.signedIn(app);
        var typed = api.get("/api/invoices/" + draft).ok().path("draft");
        api.put(
                        "/api/invoices/" + draft,
                        java.util.Map.of("version", typed.path("version").asInt(), "typed", typed.path("typed")))
                .ok();
        page.getByLabel("For", new Page.GetByLabelOptions().setExact(true)).fill("two windows");
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("changed in another window");
        check(page, "two windows");
        page.getByText("Keep mine").click();
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
        // Whoever was typing when the dialog came can go on.
        assertThat(page.getByLabel("For", new Page.GetByLabelOptions().setExact(true)))
                .isFocused();
        deleteDraft(page);
        page.waitForURL(url -> !url.endsWith("/" + draft)); // Its id can be part of another one, and of the port.
    }

    /** Opens a dialog of a record, by its button or from what is done less often, and looks at it. */
    private static void open(Page page, String act) {
        Locator button = page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(act).setExact(true));
        if (button.count() == 0) {
            page.getByRole(
                            AriaRole.BUTTON,
                            new Page.GetByRoleOptions().setName("More").setExact(true))
                    .click();
            Locator item = page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName(act));
            page.getByRole(AriaRole.MENUITEM).first().waitFor();
            if (item.count() == 0) {
                page.keyboard().press("Escape");
                assertThat(page.getByRole(AriaRole.MENU)).hasCount(0); // A menu on its way out holds no acts any more.
                return; // It is said otherwise here: a letter that never went is sent, not sent again.
            }
            item.click();
        } else {
            button.first().click();
        }
        shown(page, act);
    }

    private static void shown(Page page, String what) {
        Locator dialog = page.getByRole(AriaRole.DIALOG).last();
        dialog.waitFor();
        Waiting.pause(400);
        check(page, what);
        page.keyboard().press("Escape");
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
        Waiting.pause(200); // A dialog gives the focus back a moment after it is gone.
    }

    @Test
    public void theClientsPageAndSignInPassAxe() {
        Api api = Api.signedIn(app);
        String token = api.token(firstOpen(api));
        Page phone = context(390, 844).newPage();
        for (String path : List.of("/p/" + token, "/p/dead-link", "/")) {
            phone.navigate(app.url(path));
            phone.waitForSelector("main");
            Waiting.pause(500);
            check(phone, path);
        }
        phone.context().close();
    }

    private static void check(Page page, String what) {
        none(new AxeBuilder(page).exclude(".almanac .mark"), what, "");
        if (page.locator(".almanac .mark").count() > 0) {
            // Criterion 2.5.8 lets a target be small where another control of the page does the same: beside each lane
            // of marks stands its client's link, and all that is open is listed.
            none(new AxeBuilder(page).include(".almanac"), what, "target-size");
        }
    }

    private static void none(AxeBuilder axe, String what, String excused) {
        var violations = axe.options(VIOLATIONS_ONLY)
                .withTags(List.of("wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"))
                .analyze()
                .getViolations();
        assertThat(violations.stream()
                        .filter(v -> !v.getId().equals(excused))
                        .map(v -> v.getId() + " " + v.getNodes().get(0).getHtml())
                        .toList())
                .as(what)
                .isEmpty();
    }

    static long firstOpen(Api api) {
        for (var group : api.get("/api/invoices").ok()) {
            if (group.path("when").asString().equals("late")) {
                return group.path("rows").get(0).path("id").asLong();
            }
        }
        throw new AssertionError("the demo has late invoices");
    }

    @Test
    public void aSlipStandsBesideItsFieldAndWhatWasTypedStays() {
        Page page = signIn();
        page.navigate(app.url("/invoices/new"));
        page.getByLabel("What, line 1").fill("Tuning");
        page.getByLabel("Quantity, line 1").fill("abc");
        page.getByLabel("Price, line 1").fill("74.00");
        assertThat(page.locator("td:has(input[aria-label='Quantity, line 1']) .problem"))
                .containsText("such as 14.5");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Issue and send"))
                .click();
        assertThat(page.locator(".sheet .problem").first()).containsText("choose the client");
        assertThat(page.getByLabel("Quantity, line 1")).hasValue("abc");
        page.reload();
        assertThat(page.getByLabel("Quantity, line 1")).hasValue("abc");
        deleteDraft(page);
        page.context().close();
    }

    @Test
    public void whatTheServerSaysOfItselfStandsAboveEveryPlace() {
        Page page = signIn();
        page.route(
                "**/api/health",
                route -> route.fulfill(new com.microsoft.playwright.Route.FulfillOptions()
                        .setStatus(503)
                        .setContentType("application/json")
                        .setBody("{\"state\":\"disk full\",\"why\":\"The disk is nearly full.\"}")));
        page.navigate(app.url("/clients"));
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("The disk is nearly full.");
        page.unroute("**/api/health");
        page.reload();
        assertThat(page.locator(".masthead")).isVisible();
        assertThat(page.getByText("The disk is nearly full.")).hasCount(0);
        page.context().close();
    }

    @Test
    public void anEndedSessionAsksToSignInAndLosesNothing() {
        Page page = signIn();
        page.navigate(app.url("/invoices/new"));
        page.getByLabel("What, line 1").fill("Written before the session ended");
        page.context().clearCookies();
        page.getByLabel("Price, line 1").fill("12.00");
        page.getByLabel("E-mail address").fill(EMAIL);
        page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Passphrase"))
                .fill(PASSPHRASE);
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("Sign in").setExact(true))
                .click();
        assertThat(page.getByLabel("What, line 1")).hasValue("Written before the session ended");
        assertThat(page.getByRole(AriaRole.STATUS)).containsText("Kept at");
        page.reload();
        assertThat(page.getByLabel("What, line 1")).hasValue("Written before the session ended");
        deleteDraft(page);
        page.context().close();
    }
}
