package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/** At the desk, without moving the clock: keeping back, muting, policies, zoom and aging, in the browser. */
public class ChasingDeskTest extends DemoSuite {
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

    @Test
    public void everythingIsKeptBackAndLetGoAgain() {
        desk.navigate(app.url("/"));
        button("Keep everything back…").click();
        desk.getByLabel("Kept back until").fill("yesterday");
        button("Keep everything back").click();
        assertThat(coming()).containsText("must be a day from today");
        desk.getByLabel("Kept back until").fill("+300");
        button("Keep everything back").click();
        assertThat(coming())
                .containsText(Pattern.compile("kept back until \\d.*: nothing is sent or charged by itself"));
        assertThat(coming().locator("li.stopped").first()).containsText("everything is kept back");
        button("Stop keeping back").click();
        assertThat(coming().locator("li.stopped")).hasCount(0);
    }

    @Test
    public void theAlmanacLooksFurtherAndIsWalkedByKeys() {
        desk.navigate(app.url("/"));
        button("a year").click();
        assertThat(desk.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("a year").setExact(true)))
                .hasAttribute("aria-pressed", "true");
        assertThat(desk).hasURL(Pattern.compile("weeks=52"));
        desk.waitForResponse(
                r -> r.url().contains("weeks=26"), () -> desk.keyboard().press("+"));
        assertThat(desk).hasURL(Pattern.compile("weeks=26"));
        Waiting.pause(800); // the lanes of the year give way to those of the half year
        Locator first = desk.locator("[data-lane] [data-mark]").first();
        first.focus();
        String told = (String) first.evaluate("e => e.getAttribute('aria-label')");
        assertThat(told).contains("Captain’s House Hotel");
        assertThat(desk.locator(".reading")).hasText(told);
        desk.keyboard().press("ArrowRight");
        assertThat(desk.locator(".reading")).not().hasText(told);
        desk.keyboard().press("ArrowDown");
        assertThat(desk.locator(".reading")).not().containsText("Captain’s House Hotel");
        desk.keyboard().press("Enter");
        assertThat(desk.locator(".sheet .kind")).containsText("Invoice 202");
    }

    @Test
    public void aClientIsMutedKeptBackAndGivenItsOwnLateFee() {
        long client = api.client("Special Case");
        desk.navigate(app.url("/clients/" + client));
        desk.getByLabel("No reminders until").fill("2027-03-01");
        button("Mute").click();
        assertThat(desk.locator(".mute")).containsText("must be a day from today");
        desk.getByLabel("No reminders until").fill("2027-04-30");
        button("Mute").click();
        assertThat(desk.locator(".chasing")).containsText("No reminders until 30 April 2027");
        button("Remind again").click();
        assertThat(desk.locator(".chasing")).containsText("Reminders go by the plan");
        button("Keep everything back…").click();
        desk.getByLabel("Kept back until").fill("1 April");
        button("Keep everything back").click();
        assertThat(desk.locator(".chasing")).containsText("Everything for this client is kept back until 1 April 2027");
        button("Let everything go").click();
        button("Late fees of its own").click();
        desk.getByLabel("What is charged on an installment that is late").selectOption("flat");
        desk.getByLabel("The sum").fill("none");
        button("Keep it").click();
        assertThat(desk.getByRole(AriaRole.DIALOG)).containsText("write a number");
        desk.getByLabel("The sum").fill("7.50");
        button("Keep it").click();
        assertThat(desk.locator(".chasing")).containsText("Late fees of its own.");
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        desk.navigate(app.url("/invoices/" + invoice));
        assertThat(desk.locator(".sheet")).containsText("Late fee: EUR 7.50, after 7 days of grace, once.");
        JsonNode page = api.get("/api/public/" + api.token(invoice)).ok();
        assertThat(page.path("document").path("paying").path("lateFee").asString())
                .startsWith("Late fee: EUR 7.50");
    }

    @Test
    public void anInvoiceOfItsOwnIsAgreedOnTheSheet() {
        desk.navigate(app.url("/invoices/new"));
        assertThat(desk.locator(".drawer")).containsText("1% of what is overdue");
        desk.getByLabel("This invoice has its own late fee").check();
        assertThat(desk.locator(".drawer")).containsText("No late fee is agreed.");
        desk.getByLabel("What is charged on an installment that is late").selectOption("percent");
        desk.getByLabel("The percentage").fill("25%");
        assertThat(desk.locator(".drawer")).containsText("at most the ceiling of 10%");
        desk.getByLabel("The percentage").fill("2%");
        assertThat(desk.locator(".drawer")).containsText("Late fee: 2% of what is overdue");
        deleteDraft(desk);
    }

    @Test
    public void agingIsATableThatAddsUpAndSavesAsCsv() {
        desk.navigate(app.url("/clients"));
        desk.getByText("Aging", new Page.GetByTextOptions().setExact(true)).click();
        assertThat(desk.locator("tr", new Page.LocatorOptions().setHasText("Rowan Ashdown")))
                .containsText("1,017.87");
        // Two currencies stand side by side; each adds up by itself, and neither is in the other's sum.
        JsonNode tables = api.get("/api/aging").ok().path("tables");
        List<String> currencies = new ArrayList<>();
        for (JsonNode table : tables) {
            currencies.add(table.path("currency").asString());
            long sum = 0;
            for (JsonNode row : table.path("rows")) {
                long bands = 0;
                for (JsonNode band : row.path("bands")) {
                    bands += minor(band.path("amount"));
                }
                assertThat(bands).isEqualTo(minor(row.path("total")));
                sum += bands;
            }
            assertThat(sum).isEqualTo(minor(table.path("total")));
        }
        assertThat(currencies).startsWith("EUR", "GBP");
        assertThat(desk.locator(".page")).containsText("£865.00");
        String csv = api.get("/api/aging.csv").text();
        assertThat(csv.split("\r\n")[0])
                .isEqualTo("\ufeffclient,not due,1–30 days,31–60 days,61–90 days,over 90 days,total,currency");
        assertThat(csv).contains("Rowan Ashdown,").contains(",865.00,GBP\r\n").doesNotContain("all clients");
        String debts = api.get("/api/aging/debts.csv").text();
        assertThat(debts).startsWith("\ufeffclient,invoice,what,due,days late,open,currency\r\n");
        assertThat(debts).containsPattern("Rowan Ashdown,2026-0021,installment 2,2027-[0-9-]+,[1-9]\\d*,[0-9.]+,EUR");
    }

    @Test
    public void theFeeThatIsPutUpCanStand() {
        // In the demo the café paid on the last day of its grace; the transfer was recorded later.
        JsonNode need = null;
        for (JsonNode each : api.get("/api/today").ok().path("needs")) {
            need = each.path("kind").asString().equals("fee") ? each : need;
        }
        assertThat(need).isNotNull();
        String path = "/api/late-fees/" + need.path("id").asLong();
        assertThat(api.post(path + "/waiving", Map.of("reason", "")).problem("reason"))
                .contains("say why");
        api.post(path + "/standing", null).ok();
        assertThat(api.post(path + "/standing", null).status()).isEqualTo(409);
        desk.navigate(app.url("/"));
        assertThat(desk.locator("[data-need='draft']").first()).isVisible();
        assertThat(desk.locator("[data-need='fee']")).hasCount(0);
    }

    private static long minor(JsonNode amount) {
        return Long.parseLong(amount.path("amount").asString().replace(".", ""));
    }

    private Locator coming() {
        return desk.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("What will happen"));
    }

    private Locator button(String name) {
        return button(desk, name);
    }

    @Test
    public void thePlanPageShowsTheSlipBesideTheStepAndKeepsWhatWasTyped() {
        Page page = signIn();
        page.navigate(app.url("/settings/reminders"));
        page.getByLabel("Days, step 3").fill("14");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Save the plan"))
                .click();
        assertThat(page.locator(".plan-step", new Page.LocatorOptions().setHasText("another step has this day")))
                .hasCount(1);
        assertThat(page.getByLabel("Days, step 3")).hasValue("14");
        page.getByLabel("The hour of the daily run").fill("25:00");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Save the plan"))
                .click();
        assertThat(page.locator("body")).containsText("from 00:00 to 23:59");
        page.getByLabel("Days of grace").fill("-1");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Save the late fees"))
                .click();
        assertThat(page.locator("body")).containsText("must be from 0 to 365 days");
        page.context().close();
    }

    @Test
    public void theDemosClockMovesByWhatItKnows() {
        assertThat(Api.signedIn(app)
                        .post("/api/demo/clock", Map.of("by", "year"))
                        .problem("by"))
                .contains("day, week, month or next");
    }
}
