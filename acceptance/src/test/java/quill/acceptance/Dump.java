package quill.acceptance;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.SkipException;
import org.testng.annotations.Test;
import quill.http.Api;
import tools.jackson.databind.JsonNode;

/**
 * Everything that can be seen of the demo, as text in files: each page of the business with each paper and table that it
 * leads to, each letter, each client's page. Without ids, tokens and times of the day, so that two builds which show the
 * same leave the same files. Only for {@code ./quill dump}.
 */
public class Dump extends DemoSuite {
    private static final Pattern CLIENTS_PAGE = Pattern.compile("/p/([\\w-]{16,})");
    private static final Pattern FILE = Pattern.compile("/api/.*(/pdf|/ubl|/html|\\.csv|\\.vcf)(\\?.*)?");
    private static final int SETTLES_AFTER = 450;
    private final Map<String, List<String>> texts = new TreeMap<>();

    @Test
    public void writeIt() throws IOException {
        String folder = System.getProperty("quill.dump", "");
        if (folder.isEmpty()) {
            throw new SkipException("only for ./quill dump");
        }
        Page page = signIn();
        Set<String> files = new LinkedHashSet<>();
        pages(page, files);
        Api api = Api.signedIn(app);
        for (String file : files) {
            write("file " + withoutIds(file), ofFile(api.bytes(file)));
        }
        Set<String> clientsPages = letters();
        Page client = context(1280, 800).newPage();
        for (String path : clientsPages) {
            client.navigate(app.url(path));
            client.waitForSelector("main");
            write("client's page", settled(client));
            write("client's paper", ofFile(new Api(app).bytes("/api/public" + path.substring(2) + "/pdf")));
        }
        Path to = Files.createDirectories(Path.of(folder));
        for (Map.Entry<String, List<String>> some : texts.entrySet()) {
            List<String> sorted = some.getValue().stream().sorted().toList();
            for (int i = 0; i < sorted.size(); i++) {
                Files.writeString(to.resolve(String.format("%s %04d.txt", some.getKey(), i)), sorted.get(i));
            }
        }
    }

    /** What a page shows once nothing more comes. */
    private static String settled(Page page) {
        String before;
        String now = "";
        do {
            before = now;
            page.waitForTimeout(SETTLES_AFTER);
            now = page.locator("body").innerText();
        } while (!now.equals(before) || page.locator("[aria-label^='Loading']").count() > 0);
        return now;
    }

    /** Goes through every page that links lead to, from the known views on, and collects the files they offer. */
    private void pages(Page page, Set<String> files) {
        Deque<String> left = new ArrayDeque<>(VIEWS);
        Set<String> known = new LinkedHashSet<>(VIEWS);
        while (!left.isEmpty()) {
            String path = left.poll();
            page.navigate(app.url(path));
            page.waitForSelector(".place > *");
            String text = settled(page);
            write("page " + withoutIds(path), page.title() + "\n" + text);
            @SuppressWarnings("unchecked")
            List<String> links = (List<String>)
                    page.evaluate("[...document.querySelectorAll('a[href]')].map(a => a.getAttribute('href'))");
            for (String link : links) {
                String own = link.startsWith(app.url(""))
                        ? link.substring(app.url("").length())
                        : link;
                if (FILE.matcher(own).matches()) {
                    files.add(own);
                } else if (own.startsWith("/") && !own.startsWith("/api") && !own.startsWith("/p/") && known.add(own)) {
                    left.add(own);
                }
            }
        }
    }

    /** Every letter of the post room, with its papers. @return the clients' pages that they lead to */
    private Set<String> letters() throws IOException {
        Api outside = new Api(standIns);
        Set<String> boxes = new TreeSet<>();
        Matcher box = Pattern.compile("post-room\\?box=([^\"&]+)")
                .matcher(outside.get("/post-room").text());
        while (box.find()) {
            boxes.add(box.group(1).replace("%40", "@"));
        }
        Set<String> clientsPages = new LinkedHashSet<>();
        for (String address : boxes) {
            for (JsonNode letter : letters(address)) {
                String at = "/post-room/" + address + "/" + letter.path("id").asString();
                StringBuilder text = new StringBuilder();
                text.append("From ").append(letter.path("from").asString()).append("\nSubject ");
                text.append(letter.path("subject").asString()).append("\n\n");
                text.append(letter.path("text").asString()).append("\n----\n");
                text.append(outside.get(at + "/html").text());
                for (int i = 0; i < letter.path("attachments").size(); i++) {
                    text.append("\n---- ")
                            .append(letter.path("attachments").get(i).asString())
                            .append('\n');
                    text.append(ofFile(outside.bytes(at + "/attachments/" + i)));
                }
                write("letter to " + address, text.toString());
                Matcher page = CLIENTS_PAGE.matcher(letter.path("text").asString());
                while (page.find()) {
                    clientsPages.add("/p/" + page.group(1));
                }
            }
        }
        return clientsPages;
    }

    static String ofFile(byte[] bytes) throws IOException {
        String text = new String(bytes, StandardCharsets.UTF_8);
        if (!text.startsWith("%PDF")) {
            return text;
        }
        try (PDDocument document = Loader.loadPDF(bytes)) {
            return new PDFTextStripper().getText(document);
        }
    }

    private static String withoutIds(String path) {
        return path.replaceAll("\\d+", "n").replaceAll("[^a-z.]+", " ").strip();
    }

    private void write(String name, String text) {
        String same = text.replace(standIns.url(""), "http://stand-ins")
                .replace(app.url(""), "http://quill")
                .replaceAll("/p/[\\w-]{16,}", "/p/token")
                .replaceAll("\\b\\d\\d:\\d\\d(:\\d\\d)?\\b", "hh:mm")
                .replaceAll("\\d+ (seconds?|minutes?) ago", "a moment ago")
                .replaceAll("[0-9a-f]{8}-[0-9a-f-]{27}", "uuid");
        texts.computeIfAbsent(name, n -> new ArrayList<>()).add(same);
    }
}
