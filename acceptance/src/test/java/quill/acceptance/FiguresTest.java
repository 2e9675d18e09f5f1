package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.Media;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;

/** Figures say why wherever they stand, payments what they will settle, pages print, and nothing is complained of. */
public class FiguresTest extends DemoSuite {
    private Api api;
    private Page desk;
    private long client;
    private long second;
    private final List<String> complaints = new ArrayList<>();

    @BeforeClass
    public void begin() {
        api = Api.signedIn(app);
        client = api.client("Figures Asked");
        api.issue(api.draft(client, "100.00", "100%@5"));
        second = api.issue(api.draft(client, "200.00", "100%@9"));
        desk = signIn();
        // What the browser itself says of a refusal is none of ours.
        desk.onConsoleMessage(m -> {
            if (m.type().equals("error") && !m.text().startsWith("Failed to load resource")) {
                complaints.add(m.text());
            }
        });
    }

    @AfterClass(alwaysRun = true)
    public void end() {
        desk.context().close();
    }

    @Test
    public void everyFigureSaysWhyWhereItStands() {
        desk.navigate(app.url("/clients/" + client));
        ask(desk.locator(".sentence").first(), "€363.00", "open installments and late fees: 363.00");
        ask(desk.locator(".aging").first(), "363.00", "due");
        ask(desk.locator(".ledger").first(), "242.00", "installment 1: 242.00");
        desk.navigate(app.url("/aging"));
        ask(desk.locator("tr:has-text('Figures Asked')"), "363.00", "installment 1, due");
        assertThat(desk.locator(".why")).containsText("= 363.00");
        desk.navigate(app.url("/invoices/" + second));
        ask(desk.locator(".measure-large"), "242.00", "asked for: 242.00");
        ask(desk.locator(".foot"), "€242.00", "= 242.00");
        desk.keyboard().press("Escape");
        assertThat(desk.locator(".why")).hasCount(0);
        assertThat(complaints).isEmpty();
    }

    private void ask(Locator where, String figure, String says) {
        desk.keyboard().press("Escape");
        assertThat(desk.locator(".why")).hasCount(0);
        where.locator(".figure-why")
                .filter(new Locator.FilterOptions().setHasText(figure))
                .first()
                .click();
        assertThat(desk.locator(".why")).containsText(says);
    }

    @Test(dependsOnMethods = "everyFigureSaysWhyWhereItStands")
    public void aPaymentSaysWhatItWillSettleAndIsFoundByItsReference() {
        desk.navigate(app.url("/clients/" + client));
        button("Record a payment").click();
        Locator dialog = desk.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText("A receipt goes to figuresasked@clients.example");
        dialog.getByLabel("Amount").fill("150");
        assertThat(takes(dialog)).hasText(new String[] {"121.00", "29.00"});
        Locator boxes = dialog.locator(".settles input");
        boxes.nth(0).uncheck();
        assertThat(takes(dialog)).hasText(new String[] {"–", "150.00"});
        boxes.nth(0).check();
        boxes.nth(1).uncheck();
        assertThat(takes(dialog)).hasText(new String[] {"121.00", "29.00"});
        boxes.nth(0).uncheck();
        boxes.nth(1).check();
        dialog.getByLabel("Date received").fill("last friday");
        assertThat(dialog).containsText("12 March 2027");
        dialog.getByLabel("Reference").fill("Wolf 12 of March");
        assertThat(dialog.getByLabel("Date received")).hasValue("12 March 2027");
        dialog.getByLabel("A receipt goes to").uncheck();
        button("Record it").click();
        assertThat(dialog).hasCount(0);
        assertThat(desk.locator(".ledger").last()).containsText("reference Wolf 12 of March");
        assertThat(api.get("/api/clients/" + client + "/payments")
                        .ok()
                        .get(0)
                        .path("valueOn")
                        .asString())
                .isEqualTo("2027-03-12");
        assertThat(desk.locator(".chasing")).not().containsText("receipt for");
        desk.getByLabel("Filter clients").fill("wolf 12");
        assertThat(desk.locator(".index a.row")).hasCount(1);
        assertThat(desk.locator(".index")).containsText("Figures Asked");
        assertThat(complaints).isEmpty();
    }

    private static Locator takes(Locator dialog) {
        return dialog.locator(".settles b");
    }

    @Test
    public void pagesPrintAsTheyAreWithoutWhatOnlyAScreenNeeds() {
        desk.emulateMedia(new Page.EmulateMediaOptions().setMedia(Media.PRINT));
        for (String page : List.of("/", "/aging", "/books", "/clients/" + client, "/invoices/" + second)) {
            desk.navigate(app.url(page));
            assertThat(desk.locator(".place table, .place .almanac").first()).isVisible();
            assertThat(desk.locator(".masthead")).isHidden();
            assertThat(desk.locator("main .link:visible")).hasCount(0);
            assertThat(desk.locator("main button.mantine-Button-root:visible")).hasCount(0);
            Object cut = desk.evaluate("() => [...document.querySelectorAll('.page, .record, .place, .record > .body')]"
                    + ".some(e => getComputedStyle(e).overflow !== 'visible')");
            assertThat(cut).as(page + " is cut").isEqualTo(false);
        }
        desk.emulateMedia(new Page.EmulateMediaOptions().setMedia(Media.SCREEN));
        assertThat(complaints).isEmpty();
    }

    @Test
    public void whatCouldMeanTwoNumbersIsSaidInWordsAndGoesByTheMark() {
        desk.navigate(app.url("/settings"));
        desk.getByLabel("Before the decimals stands").selectOption(",");
        assertThat(desk.locator("body")).containsText("Drafts that were begun before keep the mark");
        desk.navigate(app.url("/invoices/new"));
        desk.getByLabel("What, line 1").fill("Wire");
        desk.getByLabel("Quantity, line 1").fill("1");
        desk.getByLabel("Price, line 1").fill("1,234");
        assertThat(desk.locator(".understood")).containsText("1 and 234 thousandths");
        assertThat(desk.getByTestId("foot-Net")).containsText("1.23");
        assertThat(desk.locator(".foot")).containsText("Kept at");
        String draft = desk.url();
        desk.navigate(app.url("/settings"));
        desk.getByLabel("Before the decimals stands").selectOption(".");
        assertThat(desk.locator("body")).containsText("Drafts that were begun before keep the mark");
        desk.navigate(draft);
        assertThat(desk.getByTestId("foot-Net")).containsText("1.23");
        deleteDraft(desk);
        desk.navigate(app.url("/invoices/new"));
        desk.getByLabel("What, line 1").fill("Wire");
        desk.getByLabel("Quantity, line 1").fill("1");
        desk.getByLabel("Price, line 1").fill("1,234");
        assertThat(desk.locator(".understood")).containsText("1 thousand 234");
        assertThat(desk.getByTestId("foot-Net")).containsText("1,234.00");
        deleteDraft(desk);
        assertThat(complaints).isEmpty();
    }

    @Test
    public void daysAndSumsAreTypedAsPeopleSayThem() {
        desk.navigate(app.url("/invoices/new"));
        desk.getByLabel("What, line 1").fill("Regulation");
        desk.getByLabel("Quantity, line 1").fill("2h30");
        assertThat(desk.locator(".understood")).containsText("read as 2.5");
        desk.getByLabel("Price, line 1").fill("2*45");
        assertThat(desk.getByTestId("foot-Net")).containsText("225.00");
        Locator supplied = desk.getByLabel("Supplied on, or from");
        supplied.fill("3/4");
        assertThat(desk.locator(".sheet .problem")).containsText("could be 3 April 2027 or 4 March 2027");
        supplied.fill("end of last month");
        assertThat(desk.locator(".sheet label .understood")).hasText("28 February 2027");
        supplied.press("Tab");
        assertThat(supplied).hasValue("28 February 2027");
        assertThat(desk.locator(".foot")).containsText("Kept at");
        desk.reload();
        assertThat(desk.getByLabel("Supplied on, or from")).hasValue("28 February 2027");
        assertThat(desk.getByLabel("Quantity, line 1")).hasValue("2h30");
        deleteDraft(desk);
        assertThat(complaints).isEmpty();
    }

    private Locator button(String name) {
        return button(desk, name);
    }
}
