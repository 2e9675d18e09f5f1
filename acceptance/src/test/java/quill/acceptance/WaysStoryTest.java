package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.Map;
import java.util.regex.Pattern;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;

/** Which way to pay is missing and why, before anything goes; and by which plan a document is reminded of. */
public class WaysStoryTest extends DemoSuite {
    private static final String OVER = "EUR 4,840.00 is above its ceiling, EUR 3,000.00";
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

    private Locator part(String name) {
        return desk.getByRole(
                AriaRole.REGION, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    private Locator slip() {
        desk.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName(Pattern.compile("^(Send( again)?…|Issue and send…?)$")))
                .click();
        return desk.getByRole(AriaRole.DIALOG);
    }

    @Test
    public void aSumAboveTheCeilingSaysSoOnSheetSlipRecordAndPage() {
        long client = api.client("Large Sum");
        long draft = api.post("/api/invoices", api.draft(client, "4000.00", "100%@14"))
                .ok()
                .path("id")
                .asLong();
        desk.navigate(app.url("/invoices/" + draft));
        assertThat(part("Ways to pay")).containsText("Ways to pay €4,840.00");
        assertThat(part("Ways to pay")).containsText("card not offered: " + OVER);
        assertThat(part("Ways to pay")).containsText("bank transfer costs you nothing");
        Locator dialog = slip();
        assertThat(dialog.getByLabel("Ways to pay that are missing")).containsText("Not by card: " + OVER);
        assertThat(dialog.getByRole(AriaRole.REGION, new Locator.GetByRoleOptions().setName("The letter")))
                .containsText("You can pay by bank debit on its page, or by bank transfer.");
        dialog.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Not now"))
                .click();
        api.post("/api/invoices/" + draft + "/issue", Map.of("version", 1)).ok();
        desk.navigate(app.url("/invoices/" + draft));
        assertThat(part("Ways to pay")).containsText(OVER);
        Page phone = context(390, 844).newPage();
        phone.navigate(app.url("/p/" + api.token(draft)));
        assertThat(phone.locator(".ask")).containsText("€4,840.00");
        assertThat(phone.getByText("by card")).hasCount(0);
        assertThat(button(phone, "Pay €4,840.00 by bank debit")).isVisible();
        assertThat(phone.getByText("By bank transfer")).isVisible();
        phone.context().close();
    }

    @Test
    public void withNoWayAtAllTheWarningCannotBeOverlooked() {
        long client = api.client("No Way");
        long invoice = api.issue(api.draft(client, "100.00", "100%@14"));
        desk.navigate(app.url("/invoices/" + invoice));
        part("Ways to pay").getByText("Only some of them…").click();
        for (String way : new String[] {"card", "Satchel", "bank transfer", "cash", "cheque"}) {
            Locator box = part("Ways to pay").getByLabel(way, new Locator.GetByLabelOptions().setExact(true));
            box.click();
            assertThat(box).not().isChecked();
            assertThat(box).isEnabled();
        }
        assertThat(part("Ways to pay").getByRole(AriaRole.ALERT)).containsText("There is no way to pay this.");
        Locator dialog = slip();
        assertThat(dialog.getByLabel("Ways to pay that are missing"))
                .containsText("There is no way to pay €121.00: the letter asks for it, and its page can take nothing.");
        dialog.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Not now"))
                .click();
        part("Ways to pay").getByText("As usual").click();
        assertThat(part("Ways to pay").getByRole(AriaRole.ALERT)).hasCount(0);
    }

    @Test
    public void aDocumentIsRemindedOfByItsOwnPlanAndThePictureShowsWhen() {
        long client = api.client("Planned Well");
        long invoice = api.issue(api.draft(client, "100.00", "100%@14"));
        desk.navigate(app.url("/invoices/" + invoice));
        assertThat(part("Reminders")).containsText("3 days after, firm");
        part("Reminders").getByLabel("By the plan").selectOption("Schools and halls");
        assertThat(part("Reminders")).containsText("45 days after, final, a copy to you");
        assertThat(part("Reminders")).not().containsText("3 days after, firm");
        part("Reminders").getByLabel("By the plan").selectOption("none: no reminder goes");
        assertThat(part("Reminders")).containsText("No reminder goes.");
        desk.navigate(app.url("/clients/" + client));
        desk.getByLabel("Reminded by the plan").selectOption("By telephone");
        desk.navigate(app.url("/invoices/" + invoice));
        part("Reminders").getByLabel("By the plan").selectOption("as its client");
        assertThat(part("Reminders")).containsText("1 day after, friendly, by text message");
    }
}
