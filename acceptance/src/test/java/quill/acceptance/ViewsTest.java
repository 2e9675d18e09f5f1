package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.List;
import org.testng.annotations.Test;

/** Every view by axe-core (WCAG 2.2 AA), in both lights, and what a person meets who slips or is signed out. */
public class ViewsTest extends Suite {
    @Test
    public void viewsPassAxeInBothLights() {
        Page page = signIn();
        for (String light : List.of("Candlelight", "Daylight")) {
            for (String path : List.of(
                    "/",
                    "/?weeks=52",
                    "/done",
                    "/aging",
                    "/settings/reminders",
                    "/invoices",
                    "/invoices/30",
                    "/invoices/new",
                    "/clients/1",
                    "/clients/new",
                    "/books",
                    "/settings",
                    "/settings/access")) {
                page.navigate(app.url(path));
                page.waitForLoadState();
                page.waitForSelector("h1, h2, .empty");
                Waiting.pause(400);
                check(page, path + " before " + light);
            }
            page.getByText(light, new Page.GetByTextOptions().setExact(true)).click();
        }
        page.context().close();
    }

    @Test
    public void dialogsPassAxeInBothLights() {
        Api api = Api.signedIn(app);
        long client = api.client("Dialogs Looked At");
        long invoice = api.issue(api.draft(client, "100.00", "100%@5"));
        Page page = signIn();
        for (String light : List.of("Candlelight", "Daylight")) {
            page.navigate(app.url("/invoices/" + invoice));
            for (String act : List.of("Send again…", "Record a payment", "Credit…")) {
                page.getByRole(
                                AriaRole.BUTTON,
                                new Page.GetByRoleOptions().setName(act).setExact(true))
                        .click();
                page.waitForSelector("[role=dialog] button[type=submit]");
                Waiting.pause(400);
                check(page, act + " before " + light);
                page.keyboard().press("Escape");
                assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
            }
            page.locator(".foot .figure-why").click();
            assertThat(page.locator(".why")).containsText("= 121.00");
            check(page, "why before " + light);
            page.keyboard().press("Escape");
            page.getByText(light, new Page.GetByTextOptions().setExact(true)).click();
        }
        page.context().close();
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
        var violations = new AxeBuilder(page)
                .withTags(List.of("wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"))
                .analyze()
                .getViolations();
        assertThat(violations.stream()
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
        assertThat(page.locator(".parties .problem")).containsText("choose the client");
        assertThat(page.getByLabel("Quantity, line 1")).hasValue("abc");
        page.reload();
        assertThat(page.getByLabel("Quantity, line 1")).hasValue("abc");
        page.getByText("Delete draft").click();
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
        page.getByText("Delete draft").click();
        page.context().close();
    }
}
