package quill.acceptance;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ReducedMotion;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;

/** One browser for all classes that a process runs, and what people do in it. */
public class Suite {
    static final String EMAIL = "odile@larkmoor.example";
    static final String PASSPHRASE = "felt hammers and copper strings";
    static final String GOOD_CARD = "9901000000000019";
    static final String POOR_CARD = "9902000000000026";

    static Browser browser;

    /** Once in this process, for all classes that it runs; it ends with it. */
    @BeforeClass
    public void startTheBrowser() throws IOException {
        if (browser != null) {
            return;
        }
        // Limits that only a broken page reaches: machines are slow at times, and no test asserts a time.
        PlaywrightAssertions.setDefaultAssertionTimeout(20_000);
        Path driver = Files.createTempDirectory("quill-driver");
        Files.createSymbolicLink(driver.resolve("package"), App.ROOT.resolve("web/node_modules/playwright-core"));
        Files.createSymbolicLink(driver.resolve("node"), onPath("node"));
        System.setProperty("playwright.cli.dir", driver.toString());
        String chromium = System.getenv().getOrDefault("QUILL_CHROMIUM", "/usr/bin/chromium");
        browser = Playwright.create(
                        new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")))
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of(chromium))
                        .setArgs(List.of(
                                "--no-sandbox",
                                "--disable-gpu",
                                "--lang=en-GB",
                                "--disable-quic",
                                "--no-first-run",
                                "--disable-background-networking",
                                "--disable-component-update",
                                "--disable-sync")));
    }

    /** Pages that a class leaves open go on asking their server, which is gone with the class, and keep their memory. */
    @AfterClass(alwaysRun = true)
    public void leaveNoPageOpen() {
        if (browser != null) {
            List.copyOf(browser.contexts()).forEach(BrowserContext::close);
        }
    }

    private static Path onPath(String program) {
        for (String folder : System.getenv("PATH").split(":")) {
            if (Files.isExecutable(Path.of(folder, program))) {
                return Path.of(folder, program);
            }
        }
        throw new IllegalStateException(program + " is not on the path");
    }

    /** Each view, as long as it is known by its address. */
    static final List<String> VIEWS = List.of(
            "/",
            "/?weeks=52",
            "/done",
            "/aging",
            "/quotes",
            "/quotes/new",
            "/invoices",
            "/invoices/list",
            "/invoices/30",
            "/invoices/new",
            "/money-in",
            "/money-in/list",
            "/money-in/payouts",
            "/money-in/payment-1",
            "/clients",
            "/clients/1",
            "/clients/new",
            "/clients/table",
            "/catalogue",
            "/catalogue/5",
            "/catalogue/bundle",
            "/catalogue/table",
            "/catalogue/units",
            "/books",
            "/settings",
            "/settings/taxes",
            "/settings/documents",
            "/settings/schedules",
            "/settings/reminders",
            "/settings/ways",
            "/settings/processors",
            "/settings/notices",
            "/settings/letters",
            "/settings/letters/firm",
            "/settings/access");

    static Locator button(Page page, String name) {
        return page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    /** Fills the simulated card page, and pays. @param sum as it stands on the button there */
    static void card(Page phone, String number, String sum) {
        phone.getByLabel("Card number").fill(number);
        phone.getByLabel("Valid until").fill("09/29");
        button(phone, "Pay " + sum).click();
    }

    /** Pays by a good card from a client's page, and comes back to it. @param words on the button there */
    static void payAndComeBack(Page phone, String words, String sum) {
        button(phone, words).click();
        card(phone, GOOD_CARD, sum);
        PlaywrightAssertions.assertThat(phone.locator(".done")).containsText("Paid");
        phone.locator("a[href*='back=1']").click();
        // Not before it was asked what came of it: whoever goes on at once leaves that question behind.
        PlaywrightAssertions.assertThat(phone.locator("main.client")).not().containsText("One moment");
    }

    /** Looks at the letter of the draft that is open, and sends it. */
    static void issueAndSend(Page page) {
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Issue and send…"))
                .click();
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        PlaywrightAssertions.assertThat(dialog).containsText("Here is invoice");
        dialog.getByRole(
                        AriaRole.BUTTON,
                        new Locator.GetByRoleOptions().setName("Issue and send").setExact(true))
                .click();
        PlaywrightAssertions.assertThat(dialog).hasCount(0);
    }

    /** Chooses whom the sheet is for, as one does: by a part of the name. */
    static void choose(Page page, String part) {
        Locator to = page.getByRole(
                AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("To").setExact(true));
        to.click();
        to.pressSequentially(part);
        page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName(part))
                .first()
                .click();
    }

    static void deleteDraft(Page page) {
        more(page, "Delete draft");
    }

    static void issueOnly(Page page) {
        more(page, "Issue only, without sending");
    }

    private static void more(Page page, String what) {
        page.locator(".foot")
                .getByRole(
                        AriaRole.BUTTON,
                        new Locator.GetByRoleOptions().setName("More").setExact(true))
                .click();
        page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName(what))
                .click();
    }

    static BrowserContext context(int width, int height) {
        return context(width, height, ReducedMotion.NO_PREFERENCE);
    }

    /** Without motion: what is half faded in has other colours. */
    static BrowserContext stillContext(int width, int height) {
        return context(width, height, ReducedMotion.REDUCE);
    }

    private static BrowserContext context(int width, int height, ReducedMotion motion) {
        BrowserContext context = browser.newContext(new Browser.NewContextOptions()
                .setViewportSize(width, height)
                .setLocale("en-GB")
                .setReducedMotion(motion));
        context.setDefaultTimeout(60_000);
        return context;
    }
}
