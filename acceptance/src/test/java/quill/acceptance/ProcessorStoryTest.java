package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.regex.Pattern;
import org.assertj.core.api.Assertions;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;

/** A card processor of one's own: set up, tried, and on; everywhere a trial says that it is one. */
public class ProcessorStoryTest extends DemoSuite {
    private static final String NAME = "Second house";
    private static final String TRIED = "nothing is taken, and nothing is settled";
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

    private Locator form() {
        return desk.getByRole(AriaRole.FORM);
    }

    private Locator button(String name) {
        return button(desk, name);
    }

    private void save() {
        button("Save").click();
    }

    /** Cards go through a processor, whatever was said before. */
    private void through(String name) {
        desk.navigate(app.url("/settings/ways"));
        desk.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Through"))
                .click();
        desk.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName(name))
                .click();
        save();
        assertThat(desk.getByText("From now on; what is printed")).isVisible();
    }

    @Test
    public void oneIsSetUpTriedAndSwitchedOff() throws Exception {
        setUp();
        try {
            through(NAME);
            tried();
        } finally {
            through("the first that is on");
            desk.navigate(app.url("/settings/processors"));
            button("Change " + NAME).click();
            form().getByText("Off", new Locator.GetByTextOptions().setExact(true))
                    .click();
            form().getByLabel("Your passphrase, once more").fill(PASSPHRASE);
            save();
            assertThat(desk.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName(NAME)))
                    .containsText("off");
        }
    }

    private void setUp() {
        desk.navigate(app.url("/settings/processors"));
        button("Add: The counting house (simulated)").click();
        form().getByLabel("Name, as you call it").fill(NAME);
        form().getByLabel("Its address").fill("http://cards.example");
        form().getByLabel("Key", new Locator.GetByLabelOptions().setExact(true)).fill(App.KEY);
        form().getByLabel("Secret of its events", new Locator.GetByLabelOptions().setExact(true))
                .fill(App.SECRET);
        save();
        assertThat(form()).containsText("must begin with https://");
        form().getByLabel("Its address").fill("http://localhost:" + standIns.port);
        save();
        assertThat(form()).containsText("type your passphrase once more");
        form().getByLabel("Your passphrase, once more").fill(PASSPHRASE);
        save();
        Locator kept = desk.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName(NAME));
        assertThat(kept).containsText("being tested");
        assertThat(kept).containsText("No account is chosen that it pays out to.");
        button("Change " + NAME).click();
        assertThat(form().getByLabel("Key", new Locator.GetByLabelOptions().setExact(true)))
                .hasValue("");
        button("Ask whether it answers").click();
        assertThat(form()).containsText(NAME + " answers and knows your key.");
    }

    private void tried() throws Exception {
        long invoice = api.issue(api.draft(api.client("On Trial"), "100.00", "100%@14"));
        desk.navigate(app.url("/invoices/" + invoice));
        assertThat(desk.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Ways to pay")))
                .containsText("card not offered: " + NAME + ", which takes cards, is only being tested");
        Page phone = context(390, 844).newPage();
        phone.navigate(app.url("/p/" + api.token(invoice)));
        assertThat(phone.locator("main")).containsText("only being tested: " + TRIED);
        phone.getByText(Pattern.compile("^Try paying .*121.00 by card$")).click();
        assertThat(phone.locator("main")).containsText("On trial: no money is taken here.");
        phone.getByLabel("Card number").fill(GOOD_CARD);
        phone.getByLabel("Valid until (month/year)").fill("09/29");
        phone.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Pay")))
                .click();
        assertThat(phone.locator("main")).containsText("Tried. Nothing was taken.");
        phone.getByText("Back to the page").click();
        assertThat(phone.locator("main")).containsText("Test: €121.00 by card, Test card ending");
        assertThat(phone.locator(".ask")).containsText("€121.00");
        phone.context().close();
        Assertions.assertThat(Dump.ofFile(api.bytes("/api/invoices/" + invoice + "/pdf")))
                .contains("Payment by card is only being tested")
                .contains("Test, ");
        desk.navigate(app.url("/money-in/list?which=test"));
        assertThat(desk.getByRole(AriaRole.TABLE)).containsText("test card, Test card ending");
        assertThat(desk.getByRole(AriaRole.TABLE)).containsText("nothing was taken, nothing is settled");
        Assertions.assertThat(api.booksAgree()).isTrue();
    }
}
