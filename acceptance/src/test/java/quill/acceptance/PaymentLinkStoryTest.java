package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.assertj.core.api.Assertions;
import org.testng.annotations.Test;

/** A payment link from its making to the invoice of what came, on the desk and on a telephone. */
public class PaymentLinkStoryTest extends StorySuite {
    private Locator link(String name) {
        return desk.getByRole(
                AriaRole.LINK, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    @Test
    public void aLinkIsMadeReadByTelephonePaidAndInvoiced() {
        desk.navigate(demo.app.url("/money-in/links/new"));
        desk.getByLabel("What it is for").fill("Voicing demonstration");
        desk.getByLabel("Amount with its taxes").fill("48.40");
        button(desk, "+ Field").click();
        desk.getByPlaceholder("Instrument").fill("Instrument");
        desk.getByLabel("Conditions that are accepted").fill("No refunds on the day itself.");
        desk.getByLabel("What is said after paying").fill("Bring your ears.");
        desk.getByLabel("Where the payer goes on to").fill("http://club.example");
        button(desk, "Make the link").click();
        assertThat(desk.locator("form")).containsText("must be an https address");
        assertThat(desk.getByLabel("What it is for")).hasValue("Voicing demonstration");
        desk.getByLabel("Where the payer goes on to").fill("");
        button(desk, "Make the link").click();
        Locator code = desk.getByAltText("Square code that leads to");
        assertThat(code).isVisible();
        desk.waitForFunction("() => document.querySelector('img[alt^=\"Square code\"]').naturalWidth > 0");
        String read = Codes.read(code);
        Page phone = context(390, 844).newPage();
        phone.navigate(read);
        assertThat(phone.locator("main.client")).containsText("€8.40 of VAT 21% is in it.");
        button(phone, "Pay €48.40 by card").click();
        assertThat(phone.locator("main.client")).containsText("Accept the conditions before you pay.");
        phone.getByLabel("Your name").fill("Telephone Payer");
        phone.getByLabel("Your e-mail address").fill("telephone@payer.example");
        phone.getByLabel("Instrument").fill("upright");
        phone.getByLabel("I accept these conditions").check();
        button(phone, "Pay €48.40 by card").click();
        // Declined first; then what was filled in is still there, and another card pays.
        card(phone, POOR_CARD, "EUR 48.40");
        assertThat(phone.locator("[role=alert]")).containsText("not enough funds");
        phone.locator("a[href*='back=1']").click();
        assertThat(phone.locator("main.client")).containsText("The card was declined: not enough funds");
        phone.getByText("Go back and pay").click();
        assertThat(phone.getByLabel("Instrument")).hasValue("upright");
        phone.getByLabel("I accept these conditions").check();
        payAndComeBack(phone, "Pay €48.40 by card", "EUR 48.40");
        assertThat(phone.locator("main.client"))
                .containsText("€48.40 is paid. The receipt goes to telephone@payer.example");
        assertThat(phone.locator("main.client")).containsText("Bring your ears.");
        phone.context().close();
        Locator paid = desk.getByRole(AriaRole.TABLE, new Page.GetByRoleOptions().setName("Paid through it"));
        assertThat(paid).containsText("Telephone Payer");
        assertThat(paid).containsText("Instrument: upright");
        paid.getByRole(AriaRole.LINK, new Locator.GetByRoleOptions().setName("48.40"))
                .click();
        Locator letter = desk.getByRole(
                AriaRole.LINK, new Page.GetByRoleOptions().setName("Read “Larkmoor Pianos: receipt for €48.40”"));
        Page receipt = desk.context().waitForPage(letter::click);
        assertThat(receipt.locator("body"))
                .containsText("Your payment of €48.40 for “Voicing demonstration” has arrived.");
        assertThat(receipt.locator("body")).containsText("It includes €8.40 of VAT 21%.");
        receipt.close();
        button(desk, "Make the invoice…").click();
        assertThat(desk.locator("body")).containsText("Deposit already paid");
        issueAndSend(desk);
        assertThat(desk.locator(".record")).containsText("Voicing demonstration");
        Assertions.assertThat(demo.api.booksAgree()).isTrue();
    }

    /** Closed, it takes nothing, and says whom to ask; opened again, it does. */
    @Test
    public void aClosedLinkSaysWhomToAsk() {
        desk.navigate(demo.app.url("/money-in/links"));
        link("For the youth instrument fund €5.00 – €500.00 not paid yet").click();
        String page = desk.getByAltText("Square code that leads to")
                .getAttribute("alt")
                .replace("Square code that leads to ", "");
        Page phone = context(390, 844).newPage();
        phone.navigate(page);
        phone.getByLabel("Amount, from").fill("4.99");
        button(phone, "Pay by card").click();
        assertThat(phone.locator("main.client")).containsText("must be from 5.00 to 500.00");
        button(desk, "Close it").click();
        assertThat(button(desk, "Open it again")).isVisible();
        phone.reload();
        assertThat(phone.locator("main.client")).containsText("This link takes no payments any more.");
        button(desk, "Open it again").click();
        assertThat(button(desk, "Close it")).isVisible();
        phone.reload();
        assertThat(button(phone, "Pay by card")).isVisible();
        phone.context().close();
    }
}
