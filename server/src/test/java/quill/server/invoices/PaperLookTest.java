package quill.server.invoices;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.stream.StreamSupport;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.schedule.TypedTerm;
import quill.core.tax.TaxRounding;
import quill.server.Caller;
import quill.server.Server;
import quill.server.business.DocumentSetting;
import quill.server.business.DocumentSettings;
import quill.server.clients.Client;
import quill.server.clients.ClientMore;
import quill.server.clients.ClientsService;
import quill.server.dispatch.PdfMaking;
import quill.server.documents.Document;
import quill.server.formats.Formats;
import quill.server.people.PeopleService;

/** What a line shows on paper, in which typeface, and the codes of units: as on the day of issue, whatever is set later. */
public class PaperLookTest {
    private static final String PASSPHRASE = "felt hammers and copper strings";
    private Server server;
    private Caller caller;
    private InvoicesService invoices;
    private ClientId client;
    private String tax;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(LocalDate.of(2027, 3, 15));
        server.bean(PeopleService.class).makeOwner("odile@workshop.example", "Odile", PASSPHRASE);
        caller = new Caller(server).signedIn("odile@workshop.example", PASSPHRASE);
        invoices = server.bean(InvoicesService.class);
        server.registered(TaxRounding.PER_TAX, "BE0123456789");
        tax = server.tax("none", "0", "Z", false, "");
        client = server.bean(ClientsService.class)
                .make(new Client(
                        ClientId.NEW,
                        "Reader",
                        "",
                        "r@r.example",
                        "There 2\n9000 There",
                        "BE",
                        "",
                        "",
                        null,
                        ClientMore.NOTHING,
                        1))
                .id();
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private void set(String shows, String typeface) {
        DocumentSettings settings = server.bean(DocumentSettings.class);
        DocumentSetting now = settings.setting();
        settings.change(new DocumentSetting(
                now.layout(),
                shows,
                typeface,
                now.terms(),
                now.labels(),
                now.coins(),
                now.accent(),
                true,
                now.version()));
    }

    private Document issued(TypedLine... lines) {
        TypedDraft draft = TypedDraft.in("EUR")
                .client(client)
                .subject("work")
                .supplyDate("2027-03-15")
                .lines(List.of(lines))
                .schedule(List.of(new TypedTerm(false, "100%", "30")))
                .build();
        return invoices.issue(invoices.begin(draft), 1);
    }

    private TypedLine line(String what, String quantity, String unit, String price) {
        return new TypedLine(what, quantity, unit, price, "", List.of(tax));
    }

    private String paper(Document invoice) throws IOException {
        try (PDDocument pdf = Loader.loadPDF(server.bean(PdfMaking.class).invoice(invoice, false))) {
            return new PDFTextStripper().getText(pdf);
        }
    }

    private List<String> fonts(Document invoice) throws IOException {
        try (PDDocument pdf = Loader.loadPDF(server.bean(PdfMaking.class).invoice(invoice, false))) {
            var page = pdf.getPage(0).getResources();
            return StreamSupport.stream(page.getFontNames().spliterator(), false)
                    .map(name -> {
                        try {
                            return page.getFont(name).getName();
                        } catch (IOException e) {
                            throw new java.io.UncheckedIOException(e);
                        }
                    })
                    .toList();
        }
    }

    @Test
    public void aLineShowsWhatWasSetOnTheDayOfIssue() throws IOException {
        TypedLine hours = line("Regulation", "2h30", "", "68");
        TypedLine way = line("Way there", "90", "km", "0.45");
        set("quantity", "two");
        Document usual = issued(hours, way);
        set("hours", "plain");
        Document inHours = issued(hours, way);
        set("amount", "noto");
        Document plain = issued(hours, way);
        assertThat(paper(usual)).contains("Quantity", "Price", "2.5 h", "68.00", "90 km", "210.50");
        assertThat(paper(inHours)).contains("Hours", "Rate", "68.00", "90 km", "170.00", "210.50");
        assertThat(paper(inHours)).doesNotContain("Quantity", "Price", "2.5 h");
        assertThat(paper(plain)).contains("Regulation", "170.00", "40.50", "210.50");
        assertThat(paper(plain)).doesNotContain("Quantity", "Price", "Hours", "68.00", "0.45");
        set("quantity", "two");
        assertThat(paper(plain)).doesNotContain("Quantity");
    }

    @Test
    public void theTypefaceIsTheOneThatWasSet() throws IOException {
        set("quantity", "two");
        Document two = issued(line("Tuning", "1", "", "74.00"));
        set("quantity", "plain");
        Document plain = issued(line("Tuning", "1", "", "74.00"));
        set("quantity", "noto");
        Document noto = issued(line("Tuning", "1", "", "74.00"));
        assertThat(fonts(two)).anyMatch(f -> f.contains("Vollkorn")).anyMatch(f -> f.contains("Atkinson"));
        assertThat(fonts(plain)).noneMatch(f -> f.contains("Vollkorn")).anyMatch(f -> f.contains("Atkinson"));
        assertThat(fonts(noto)).allMatch(f -> f.contains("NotoSans"));
        set("quantity", "two");
    }

    @Test
    public void whatThereIsNotIsRefusedByName() {
        assertThatThrownBy(() -> set("everything", "comic"))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems())
                                .extracting(p -> p.field())
                                .containsExactly("lineShows", "typeface"));
    }

    private int keep(String name, String code) {
        return caller.send("POST", "/api/catalogue/units", "{\"name\":\"" + name + "\",\"code\":\"" + code + "\"}")
                .statusCode();
    }

    /** A program reads the code; whoever reads the words finds the unit there, since the code says less. */
    @Test
    public void aUnitOfOnesOwnGoesOutWithItsCode() {
        assertThat(keep("session", "e48")).isEqualTo(200);
        assertThat(keep("Session", "C62")).isEqualTo(422);
        assertThat(keep("hour", "HUR")).isEqualTo(422);
        assertThat(keep("visit", "QQQ")).isEqualTo(422);
        assertThat(keep("4 hands", "C62")).isEqualTo(422);
        assertThat(keep("", "")).isEqualTo(422);
        assertThat(keep("a/b", "C62")).isEqualTo(422);
        Document invoice = issued(line("Lesson", "3", "session", "40.00"), line("Case", "1", "crate", "9.00"));
        assertThat(ubl(invoice)).contains("unitCode=\"E48\"", "Lesson (session)", "unitCode=\"C62\"", "Case (crate)");
        assertThat(caller.send("DELETE", "/api/catalogue/units/session", "").statusCode())
                .isEqualTo(200);
        assertThat(caller.get("/api/catalogue/units").body()).isEqualTo("[]");
        assertThat(ubl(invoice)).contains("unitCode=\"E48\"");
        assertThat(ubl(issued(line("Lesson", "3", "session", "40.00")))).doesNotContain("E48");
    }

    private String ubl(Document invoice) {
        return new String(server.bean(Formats.class).invoice(invoice.id()), StandardCharsets.UTF_8);
    }
}
