package quill.acceptance;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.testng.SkipException;
import org.testng.annotations.Test;
import quill.http.Api;
import tools.jackson.databind.JsonNode;

/** The pictures of docs/screenshots, from the demo's data; taken only by {@code ./quill shots}. */
public class Screenshots extends DemoSuite {
    private final Path to = App.ROOT.resolve("docs/screenshots");

    @Test
    public void takeThem() throws IOException {
        if (!Boolean.getBoolean("quill.shots")) {
            throw new SkipException("only for ./quill shots");
        }
        Api api = Api.signedIn(app);
        Page page = signIn();
        shoot(page, "/", "today");
        long hotel = of(api, "late", "Captain");
        shoot(page, "/invoices/" + hotel, "invoice");
        shoot(page, "/clients/" + clientOf(api, hotel), "account");
        ways(page, of(api, "later", "Kestrel"));
        letters(page);
        printed(api.bytes("/api/quotes/" + quoteId(api, "accepted", 0) + "/pdf"));
        shoot(page, "/invoices/" + of(api, "late", "Dr A. Lindqvist"), "six-installments");
        shoot(page, "/quotes/" + quoteId(api, "accepted", 0), "quote");
        shoot(page, "/money-in/" + contested(api), "money-in");
        shoot(page, "/money-in/payouts", "payouts");
        shoot(page, "/books", "books");
        shoot(page, "/catalogue/5", "catalogue");
        sheet(page);
        Page phone = context(390, 844).newPage();
        phone.context().addCookies(page.context().cookies(app.url("/")));
        shoot(phone, "/", "today-on-a-phone");
        sheetOnAPhone(phone);
        phone.context().clearCookies();
        String token = api.token(of(api, "week", "Halden"));
        shoot(phone, app.url("/p/" + token), "client-page");
        shoot(phone, linkPage(api), "payment-link");
        shoot(phone, app.url("/p/" + quote(api, "open", 0)), "quote-on-a-phone");
    }

    private static String contested(Api api) {
        for (JsonNode group : api.get("/api/money-in").ok()) {
            if (group.path("state").asString().equals("CONTESTED")) {
                return group.path("rows").get(0).path("key").asString();
            }
        }
        throw new IllegalStateException("the demo has no contested payment");
    }

    private static long quoteId(Api api, String when, int place) {
        for (JsonNode group : api.get("/api/quotes").ok()) {
            if (group.path("when").asString().equals(when)) {
                return group.path("rows").get(place).path("id").asLong();
            }
        }
        throw new IllegalStateException("the demo has no quote that is " + when);
    }

    private static String quote(Api api, String when, int place) {
        String link = api.get("/api/quotes/" + quoteId(api, when, place))
                .ok()
                .path("issued")
                .path("leadsTo")
                .path("link")
                .asString();
        return link.substring(link.lastIndexOf('/') + 1);
    }

    /** When its reminders go, and which ways to pay are missing and why: a sum above the ceiling for cards. */
    private void ways(Page page, long invoice) {
        page.navigate(app.url("/invoices/" + invoice));
        page.locator("section[aria-label='Ways to pay']").evaluate("e => e.scrollIntoView({ block: 'end' })");
        page.waitForTimeout(700);
        page.screenshot(new Page.ScreenshotOptions().setPath(to.resolve("ways-to-pay.png")));
    }

    /** One being worded: a field is about to be picked. */
    private void letters(Page page) {
        page.navigate(app.url("/settings/letters/firm"));
        page.getByLabel("With whom").selectOption("Captain’s House Hotel");
        Locator text = page.getByLabel("Text", new Page.GetByLabelOptions().setExact(true));
        text.focus();
        page.keyboard().press("Control+End");
        page.keyboard().type("\n\nIt is about your {inst");
        page.waitForTimeout(1200);
        page.screenshot(new Page.ScreenshotOptions().setPath(to.resolve("letters.png")));
        page.getByText("Leave it as it was").click();
    }

    /** The first page of a PDF, as it comes out of a printer. */
    private void printed(byte[] pdf) throws IOException {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            ImageIO.write(
                    new PDFRenderer(document).renderImageWithDPI(0, 96),
                    "png",
                    to.resolve("acceptance-record.png").toFile());
        }
    }

    private void sheet(Page page) {
        page.navigate(app.url("/invoices/new"));
        choose(page, "Kestrel");
        page.getByLabel("For", new Page.GetByLabelOptions().setExact(true)).fill("restoration of a 1911 upright");
        String[][] lines = {
            {"Soundboard repair and re-crowning", "1", "2,650.00", ""},
            {"Bass strings, wound by hand", "32", "24.50", ""},
            {"Regulating and voicing, hours", "14.5", "68.00", "10%"},
        };
        write(page, lines);
        page.getByText("40% deposit, the rest in 30 days").click();
        page.waitForTimeout(900);
        page.getByText("887.40").first().click();
        page.waitForTimeout(300);
        page.screenshot(new Page.ScreenshotOptions().setPath(to.resolve("sheet.png")));
        page.keyboard().press("Escape");
        page.getByText("Issue and send…").click();
        page.waitForSelector(".letter");
        page.waitForTimeout(600);
        page.screenshot(new Page.ScreenshotOptions().setPath(to.resolve("letter.png")));
        page.getByText("Not now").click();
        deleteDraft(page);
        page.waitForTimeout(400);
    }

    private static void write(Page page, String[][] lines) {
        for (int i = 0; i < lines.length; i++) {
            page.getByLabel("What, line " + (i + 1)).fill(lines[i][0]);
            page.getByLabel("Quantity, line " + (i + 1)).fill(lines[i][1]);
            page.getByLabel("Price, line " + (i + 1)).fill(lines[i][2]);
            page.getByLabel("Less, line " + (i + 1)).fill(lines[i][3]);
        }
    }

    private void sheetOnAPhone(Page phone) {
        phone.navigate(app.url("/invoices/new"));
        choose(phone, "Kestrel");
        phone.getByLabel("For", new Page.GetByLabelOptions().setExact(true)).fill("restoration of a 1911 upright");
        write(phone, new String[][] {
            {"Soundboard repair and re-crowning", "1", "2,650.00", ""},
            {"Bass strings, wound by hand", "32", "24.50", ""},
            {"Regulating and voicing", "14.5 h", "68.00", "10%"},
        });
        phone.waitForTimeout(900);
        phone.getByText("For", new Page.GetByTextOptions().setExact(true)).scrollIntoViewIfNeeded();
        phone.screenshot(new Page.ScreenshotOptions().setPath(to.resolve("sheet-on-a-phone.png")));
        deleteDraft(phone);
        phone.waitForTimeout(400);
    }

    private static String linkPage(Api api) {
        for (var group : api.get("/api/payment-links").ok()) {
            for (var row : group.path("rows")) {
                if (row.path("title").asString().startsWith("Workshop evening")) {
                    return api.get("/api/payment-links/" + row.path("id").asLong())
                            .ok()
                            .path("page")
                            .asString();
                }
            }
        }
        throw new IllegalStateException("the demo has no such link");
    }

    private void shoot(Page page, String address, String name) {
        page.navigate(address.startsWith("http") ? address : app.url(address));
        assertThat(page.locator(".mantine-Loader-root")).hasCount(0);
        page.waitForTimeout(1200);
        page.screenshot(new Page.ScreenshotOptions().setPath(to.resolve(name + ".png")));
    }

    private static long of(Api api, String when, String client) {
        String filter = java.net.URLEncoder.encode(client, java.nio.charset.StandardCharsets.UTF_8);
        for (JsonNode group : api.get("/api/invoices?filter=" + filter).ok()) {
            for (JsonNode row : group.path("rows")) {
                if (group.path("when").asString().equals(when)
                        && row.path("clientName").asString().startsWith(client)) {
                    return row.path("id").asLong();
                }
            }
        }
        throw new AssertionError("no " + when + " invoice of " + client);
    }

    private static long clientOf(Api api, long invoice) {
        return api.get("/api/invoices/" + invoice).ok().path("clientId").asLong();
    }
}
