package quill.acceptance;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.time.Instant;
import java.util.regex.Pattern;

/** How a person works a page: by mouse or finger, or by keyboard alone. Names are how they begin. */
abstract class Hands {
    final Page page;

    private Hands(Page page) {
        this.page = page;
    }

    /** Presses a button or follows a link. */
    abstract void press(String name);

    abstract void type(String label, String text);

    /** Chooses one of a few that stand side by side, the first of which is chosen. */
    abstract void pick(String first, String option, int further);

    /** Goes to a place, or begins something new. */
    void place(String name) {
        boolean narrow = page.viewportSize().width < 900;
        boolean fresh = name.startsWith("New ");
        if (narrow || fresh) {
            press(narrow ? "Places" : "New N");
            page.getByRole(AriaRole.MENUITEM).first().waitFor();
        }
        press(name);
        // Until it has closed, what stands in it could be taken for what is on the page.
        page.waitForCondition(() -> page.getByRole(AriaRole.MENUITEM).count() == 0);
    }

    /** Whatever is open over the page comes before what lies under it. */
    private static Locator front(Page page) {
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        return dialog.count() > 0 ? dialog.last() : page.locator("body");
    }

    /** As the browser writes patterns. */
    private static Pattern beginning(String name) {
        return Pattern.compile("^" + name.replaceAll("[.*+?^${}()|\\[\\]\\\\]", "\\\\$0"));
    }

    static Hands mouse(Page page) {
        return new Hands(page) {
            @Override
            void press(String name) {
                Pattern begins = beginning(name);
                Locator button = front(page).getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(begins));
                Locator link = front(page).getByRole(AriaRole.LINK, new Locator.GetByRoleOptions().setName(begins));
                Locator item = page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName(begins));
                (item.count() > 0 ? item : button.or(link)).first().click();
            }

            @Override
            void type(String label, String text) {
                Pattern begins = beginning(label);
                front(page).getByLabel(begins).first().fill(text);
            }

            @Override
            void pick(String first, String option, int further) {
                front(page).getByText(option).click();
            }
        };
    }

    static Hands keys(Page page) {
        return new Hands(page) {
            @Override
            void press(String name) {
                goTo(name, "A|BUTTON");
                page.keyboard().press("Enter");
            }

            @Override
            void type(String label, String text) {
                goTo(label, "INPUT|TEXTAREA");
                page.keyboard().press("Control+a");
                page.keyboard().type(text);
            }

            @Override
            void pick(String first, String option, int further) {
                goTo(first, "INPUT");
                for (int i = 0; i < further; i++) {
                    page.keyboard().press("ArrowRight");
                }
            }

            /** Walks on by Tab until what has the focus begins so; a page that is slow to come is walked again. */
            private void goTo(String name, String tags) {
                Instant patience = Instant.now().plusSeconds(20);
                for (int i = 0; i < 400 || Instant.now().isBefore(patience); i++) {
                    Object there = page.evaluate(
                            "([name, tags]) => { const e = document.activeElement;"
                                    + " if (!new RegExp('^(' + tags + ')$').test(e.tagName)) return false;"
                                    + " const words = e.getAttribute('aria-label')"
                                    + " || (e.labels && e.labels[0] && e.labels[0].innerText) || e.innerText || '';"
                                    + " return words.trim().startsWith(name); }",
                            new String[] {name, tags});
                    if (Boolean.TRUE.equals(there)) {
                        return;
                    }
                    page.keyboard().press("Tab");
                }
                throw new AssertionError("Tab never comes to " + name);
            }
        };
    }
}
