package quill.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.image.BufferedImage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.text.Normalizer;
import java.time.LocalDate;
import java.util.List;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.Server;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Fonts;
import quill.server.invoices.InvoicesService;

/** What is printed is what was typed, in whatever script a client's name is written. */
public class ScriptsTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 1);
    private Server server;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    @DataProvider
    public Object[][] names() {
        return new Object[][] {
            {"東京ピアノ工房"},
            {"Ελλάδα Μουσική"},
            {"Кириллица Їжак"},
            {"Nguyễn Việt Hương"},
            {"₺ № µ → ½ €"},
            {"Łódź Čeština Ærø ðþ"},
        };
    }

    @Test(dataProvider = "names")
    public void aNameStandsOnThePaperAsItIsWritten(String name) throws Exception {
        try (PDDocument paper = paper(name)) {
            String text = new PDFTextStripper().getText(paper);
            look(paper, name);
            // Once as the client's name, bold, and once on a line of work.
            assertThat(same(text).split(Pattern.quote(same(name)), -1)).hasSizeGreaterThanOrEqualTo(3);
            assertThat(text).doesNotContain("#");
        }
    }

    /** The order of letters on paper is checked by where they stand: the first letter of a word is the rightmost. */
    @Test
    public void hebrewAndArabicRunFromRightToLeft() throws Exception {
        for (String name : List.of("עברית פסנתר", "بيانو العربية")) {
            try (PDDocument paper = paper(name)) {
                String text = new PDFTextStripper().getText(paper);
                look(paper, name);
                assertThat(text).doesNotContain("#");
                assertThat(same(text)).contains(same(name));
            }
        }
    }

    @Test
    public void whatNoFontHasIsNamedBesideItsField() {
        assertThat(Fonts.missingFor("Plain 東京 עברית 𓀀 Ελλάδα")).isEqualTo("𓀀");
        assertThatThrownBy(() -> server.bean(ClientsService.class)
                        .make(new Client(ClientId.NEW, "Ibis 𓀀", "", "a@clients.example", "There 2", "", 1)))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems()).extracting(Problem::field).containsExactly("name"));
        assertThat(Fonts.missingFor("a\u200bb\ufe0f\n\tc")).isEmpty();
    }

    /** Letters that share a glyph are one to whoever copies them from a paper: Arabic yeh and the Persian one, too. */
    private static String same(String text) {
        return Normalizer.normalize(text, Normalizer.Form.NFKC)
                .replace('\u06cc', '\u064a')
                .replaceAll("\\s", "");
    }

    private PDDocument paper(String name) throws Exception {
        ClientId client = server.bean(ClientsService.class)
                .make(new Client(ClientId.NEW, name, "", "a@clients.example", "There 2", "", 1))
                .id();
        DocumentId id = server.issue(client, name, "10.00", "100%@0", null);
        return Loader.loadPDF(server.bean(PdfMaking.class)
                .invoice(server.bean(InvoicesService.class).invoice(id), false));
    }

    /** Leaves a picture where one is asked for, to be looked at. */
    private static void look(PDDocument paper, String name) throws Exception {
        String folder = System.getProperty("quill.look");
        if (folder != null) {
            BufferedImage image = new PDFRenderer(paper).renderImageWithDPI(0, 70);
            Path file = Files.createDirectories(Path.of(folder)).resolve(Math.abs(name.hashCode()) + ".png");
            ImageIO.write(image.getSubimage(0, 0, image.getWidth(), image.getHeight() / 2), "png", file.toFile());
        }
    }
}
