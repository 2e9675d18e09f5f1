package quill.server.common;

import org.owasp.html.HtmlPolicyBuilder;
import org.owasp.html.PolicyFactory;

/**
 * Text with a few kinds of marks: paragraphs, headings, lists, bold, italic, underlined, quotations and links to other
 * pages. Whatever else was typed or pasted is left out by the OWASP sanitizer; no script, style or picture remains.
 */
public final class SafeHtml {
    private static final PolicyFactory ALLOWED = new HtmlPolicyBuilder()
            .allowElements(
                    "p",
                    "br",
                    "h2",
                    "h3",
                    "h4",
                    "ul",
                    "ol",
                    "li",
                    "strong",
                    "b",
                    "em",
                    "i",
                    "u",
                    "s",
                    "blockquote",
                    "hr")
            .allowElements("a")
            .allowUrlProtocols("https", "mailto")
            .allowAttributes("href")
            .onElements("a")
            .requireRelNofollowOnLinks()
            .toFactory();

    private SafeHtml() {}

    /** What of it may be shown, as well-formed XHTML; empty for nothing. */
    public static String of(String typed) {
        return typed == null || typed.isBlank() ? "" : ALLOWED.sanitize(typed).strip();
    }

    /** The same without any marks. */
    public static String text(String html) {
        return html.replaceAll("(?i)<br ?/?>|</p>|</li>|</h[2-4]>", "\n")
                .replaceAll("<[^>]*>", "")
                .replace("&lt;", "<")
                .replace("&gt;", ">")
                .replace("&quot;", "\"")
                .replace("&#39;", "'")
                .replaceAll("&#(\\d{2,6});", " ")
                .replace("&amp;", "&")
                .strip();
    }
}
