package quill.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.http.Api;
import quill.http.Waiting;
import tools.jackson.databind.JsonNode;

/** kill -9 at the worst moments. An installation of its own, begun on the first-run page. */
public class KillTest extends Suite {
    private App outside;
    private App victim;
    private Tap processorTap;
    private Tap mailTap;
    private Api api;

    @BeforeClass
    public void begin() throws IOException {
        Path own = Files.createTempDirectory("quill-kill");
        int port = App.freePort();
        int mail = App.freePort();
        outside = App.standIns(own, port, mail);
        processorTap = new Tap(outside.port);
        mailTap = new Tap(mail);
        victim = App.server(own.resolve("app"), port, processorTap.port(), mailTap.port(), Map.of());
        firstRun();
        api = Api.signedIn(victim);
        assertThat(api.firstRun("else@larkmoor.example", PASSPHRASE, "Other", false)
                        .status())
                .isEqualTo(409);
    }

    /** The first-run page of an empty installation, with a slip on the way. */
    private void firstRun() {
        Page page = context(1280, 800).newPage();
        page.navigate(victim.url("/"));
        page.getByLabel("Your name").fill("Odile Farrant");
        page.getByLabel("Your e-mail address").fill(EMAIL);
        Locator passphrase = page.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("A passphrase"));
        passphrase.fill("short");
        page.getByLabel("Its name").fill("Larkmoor Pianos");
        page.getByLabel("Its e-mail address").fill("post@larkmoor.example");
        page.getByLabel("Time zone").fill("Europe/Dublin");
        page.getByLabel("Tax number").fill("XX 1");
        Locator begin = page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Begin"));
        begin.click();
        PlaywrightAssertions.assertThat(page.locator(".mantine-PasswordInput-error"))
                .containsText("must have from 12 to 200");
        passphrase.fill(PASSPHRASE);
        Locator rate = page.getByLabel("Rate of that tax, in percent");
        rate.fill("much");
        begin.click();
        PlaywrightAssertions.assertThat(rate).hasAttribute("aria-invalid", "true");
        PlaywrightAssertions.assertThat(page.locator(".mantine-TextInput-error"))
                .hasCount(1);
        rate.fill("21");
        begin.click();
        PlaywrightAssertions.assertThat(page.getByText("Nothing is late")).isVisible();
        page.context().close();
    }

    @AfterClass(alwaysRun = true)
    public void end() throws IOException {
        victim.close();
        outside.close();
        processorTap.close();
        mailTap.close();
    }

    private void rise() {
        Waiting.until("death", () -> !victim.isAlive());
        victim.start("/api/health");
        api = Api.signedIn(victim);
    }

    @Test
    public void whatWasCommittedIsThereAfterTheKill() {
        long client = api.client("Committed");
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        api.transfer(client, invoice, "21.00", "killed-after-commit").ok();
        victim.kill();
        rise();
        assertThat(api.open(invoice)).isEqualTo("100.00");
        assertThat(api.transfer(client, invoice, "21.00", "killed-after-commit")
                        .ok()
                        .path("amount")
                        .path("amount")
                        .asString())
                .isEqualTo("21.00");
        assertThat(api.open(invoice)).isEqualTo("100.00");
        assertThat(api.booksAgree()).isTrue();
    }

    @Test
    public void aPaymentIsBookedOnceThoughWeDiedBetweenPaidAndBooking() {
        long client = api.client("Half Booked");
        long invoice = api.issue(api.draft(client, "100.00", "d40%@0", "rest@30"));
        String token = api.token(invoice);
        String payAt =
                api.order(token, api.choice(token, 0)).ok().path("address").asString();
        processorTap.set(answer -> answer.contains("\"state\":\"paid\""), victim::kill);
        assertThat(api.typeCard(payAt, GOOD_CARD)).contains("Paid");
        rise();
        Waiting.until("booking", () -> api.open(invoice).equals("72.60"));
        Waiting.pause(2500);
        JsonNode payments = api.get("/api/clients/" + client + "/payments").ok();
        assertThat(payments).hasSize(1);
        assertThat(payments.get(0).path("fee").path("amount").asString()).isEqualTo("1.70"); // 1.4036 + 0.30
        assertThat(api.booksAgree()).isTrue();
    }

    /** Wherever between the press and the letter we die: it is accepted once, its deposit asked for once, its client told once. */
    @Test
    public void aQuoteIsAcceptedOnceAndToldOnceWhereverWeDie() throws Exception {
        String[] names = {"atonce", "soon", "later", "last"};
        for (int i = 0; i < names.length; i++) {
            int delay = 25 * i;
            long client = api.client("Accepts " + names[i]);
            Map<String, Object> draft = api.draft(client, "100.00", "d40%@0", "rest@30");
            draft.put("offer", Map.of("validUntil", "+30", "conditions", ""));
            String quote = "/api/quotes/"
                    + api.post("/api/quotes", draft).ok().path("id").asLong();
            api.post(quote + "/issue", Map.of("version", 1)).ok();
            JsonNode leadsTo = api.get(quote).ok().path("issued").path("leadsTo");
            String link = leadsTo.path("link").asString();
            String page = "/api/public/" + link.substring(link.lastIndexOf('/') + 1) + "/quote";
            String seal = new Api(victim).get(page).ok().path("seal").asString();
            Map<String, Object> accept = Map.of("name", "Ada Accepts", "ticked", List.of(), "seen", seal);
            Thread killer = new Thread(() -> {
                Waiting.pause(delay);
                victim.kill();
            });
            killer.start();
            try {
                new Api(victim).post(page + "/acceptance", accept);
            } catch (RuntimeException e) {
                assertThat(e).as("its answer was cut off").isNotNull();
            }
            killer.join();
            rise();
            assertThat(new Api(victim).post(page + "/acceptance", accept).status())
                    .isIn(200, 409);
            assertThat(api.get(quote).ok().path("issued").path("state").asString())
                    .isEqualTo("accepted");
            String id = quote.substring(quote.lastIndexOf('/') + 1);
            assertThat(api.get("/api/documents/" + id + "/requests").ok()).hasSize(1);
            String box = "/post-room/boxes/accepts" + names[i] + "@clients.example";
            Waiting.until(
                    "the record of it", () -> new Api(outside).get(box).ok().size() > 0);
            Waiting.pause(1500);
            assertThat(new Api(outside).get(box).ok()).hasSize(1);
        }
    }

    @Test
    public void aTextMessageWhoseAnswerWasLostIsUncertainAndIsNotRepeated() {
        long client = api.client("Text Uncertain");
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        Waiting.until("the letter", () -> state(invoice).equals("sent"));
        processorTap.set(answer -> answer.contains("\"state\":\"taken\""), victim::kill);
        api.post(
                        "/api/invoices/" + invoice + "/sendings",
                        Map.of(
                                "key",
                                "text-and-kill",
                                "slip",
                                Map.of(
                                        "channel",
                                        "TEXT",
                                        "to",
                                        "+447700900199",
                                        "bare",
                                        false,
                                        "copy",
                                        false,
                                        "keep",
                                        true)))
                .ok();
        rise();
        Waiting.until("the row says so", () -> state(invoice).equals("uncertain"));
        Waiting.pause(1500);
        assertThat(texts("+447700900199")).isEqualTo(1);
        assertThat(state(invoice)).isEqualTo("uncertain");
        assertThat(api.get("/api/today").ok().path("needs").toString()).contains("Did this text message arrive?");
    }

    private int texts(String number) {
        return new Api(outside)
                .get("/telegraph-office/texts?number="
                        + java.net.URLEncoder.encode(number, java.nio.charset.StandardCharsets.UTF_8))
                .ok()
                .size();
    }

    @Test
    public void aLetterWhoseAnswerWasLostIsSentOnceAndShownAsUncertain() {
        long client = api.client("Uncertain");
        mailTap.set(answer -> answer.matches("(?s).*354 [^\r]*\r\n250 .*"), victim::kill);
        long invoice = api.issue(api.draft(client, "100.00", "100%@30"));
        rise();
        Waiting.until("the row says so", () -> state(invoice).equals("uncertain"));
        Waiting.pause(1500);
        assertThat(lettersOutside()).isEqualTo(1);
        assertThat(state(invoice)).isEqualTo("uncertain");
        JsonNode needs = api.get("/api/today").ok().path("needs");
        assertThat(needs.toString()).contains("Did this letter arrive?").contains("uncertain@clients.example");
        long message = api.get("/api/invoices/" + invoice + "/messages")
                .ok()
                .get(0)
                .path("id")
                .asLong();
        api.post("/api/messages/" + message + "/retry", null).ok();
        Waiting.until("sending by hand", () -> state(invoice).equals("sent"));
        assertThat(lettersOutside()).isEqualTo(2);
        JsonNode letters = new Api(outside)
                .get("/post-room/boxes/uncertain@clients.example")
                .ok();
        assertThat(letters.get(0).path("messageId").asString())
                .isEqualTo(letters.get(1).path("messageId").asString());
    }

    private String state(long invoice) {
        return api.get("/api/invoices/" + invoice + "/messages")
                .ok()
                .get(0)
                .path("state")
                .asString();
    }

    private int lettersOutside() {
        return new Api(outside)
                .get("/post-room/boxes/uncertain@clients.example")
                .ok()
                .size();
    }
}
