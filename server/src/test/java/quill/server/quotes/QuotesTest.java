package quill.server.quotes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.document.TypedOffer;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.schedule.TypedTerm;
import quill.server.Server;
import quill.server.common.ConflictException;
import quill.server.documents.Document;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;
import quill.server.invoices.InvoicesService;
import quill.server.links.Links;

/** Quotes on a fresh database: offered, chosen from, accepted once, changed, run out, and made into an invoice. */
public class QuotesTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);

    private Server server;
    private QuotesService quotes;
    private Answering answering;
    private QuoteViews views;
    private ClientId client;

    @BeforeMethod
    public void start() {
        server = new Server();
        server.setUp(BEGIN);
        quotes = server.bean(QuotesService.class);
        answering = server.bean(Answering.class);
        views = server.bean(QuoteViews.class);
        client = server.client("Ida Corrow", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private static TypedLine line(String what, String price, String choice) {
        return new TypedLine(what, "1", "", price, "", List.of("none")).choose(choice);
    }

    private TypedDraft offer(String until, String conditions) {
        return TypedDraft.in("EUR")
                .client(client)
                .subject("the restoration of your upright")
                .lines(List.of(
                        line("Action", "980.00", null),
                        line("Castors with brakes", "126.00", "ticked"),
                        line("Yearly tuning", "93.00", "unticked")))
                .schedule(List.of(new TypedTerm(true, "50%", "0"), new TypedTerm(false, "rest", "at Delivery + 14")))
                .offer(new TypedOffer(until, conditions))
                .build();
    }

    private Document issued(String until, String conditions) {
        DocumentId id = quotes.begin(offer(until, conditions));
        return quotes.issue(id, 1);
    }

    private List<String> letters() {
        return server.jdbc()
                .sql("SELECT letter FROM message ORDER BY id")
                .query(String.class)
                .list();
    }

    private Answering.Acceptance acceptance(Document quote, Integer... ticked) {
        QuoteViews.QuotePage page = views.page(quote, List.of(ticked));
        return new Answering.Acceptance("Ida Corrow", List.of(ticked), page.seal());
    }

    @Test
    public void whatIsTickedCountsAndIsAcceptedWithNameTimeAndAddress() throws Exception {
        Document quote = issued("30 Apr", "<p>Work begins when the <b>deposit</b> has come.</p>");
        assertThat(quote.number()).isEqualTo("Q-2027-0001");
        assertThat(quote.totalMinor()).isEqualTo(110_600);
        QuoteViews.QuotePage page = views.page(quote, List.of(2));
        assertThat(page.document().sums().total().amount()).isEqualTo("1073.00");
        assertThat(page.measure()).extracting(p -> p.amount().amount()).containsExactly("536.50", "536.50");
        assertThat(page.options()).extracting(QuoteChoosing.QuoteOption::ticked).containsExactly(false, true);
        Document accepted = answering.accept(quote, acceptance(quote, 2), "203.0.113.7");
        assertThat(accepted.state()).isEqualTo(DocumentState.ACCEPTED);
        assertThat(accepted.totalMinor()).isEqualTo(107_300);
        QuoteAnswer answer = quotes.answer(accepted).orElseThrow();
        assertThat(answer.address()).isEqualTo("203.0.113.7");
        assertThat(answer.seal()).isEqualTo(page.seal());
        assertThat(letters()).containsExactly("ACCEPTED");
        String paper = text(server.bean(QuotePapers.class).forBusiness(accepted));
        assertThat(paper)
                .contains("Accepted by Ida Corrow, on 1 March 2027")
                .contains("from the internet address 203.0.113.7")
                .contains("Yearly tuning")
                .contains("Work begins when the deposit has come.")
                .contains(answer.seal().substring(0, 32))
                .doesNotContain("Castors");
        // What it first said is kept beside what was accepted.
        assertThat(server.bean(Documents.class)
                        .asFirstIssued(accepted)
                        .sums()
                        .total()
                        .amount()
                        .toString())
                .isEqualTo("EUR 1106.00");
    }

    private static String text(byte[] pdf) throws Exception {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            PDFTextStripper stripper = new PDFTextStripper();
            stripper.setSortByPosition(true);
            return stripper.getText(document).replaceAll("\\s+", " ");
        }
    }

    @Test
    public void aQuoteIsAcceptedOnceHoweverManyTryAtOnce() throws Exception {
        Document quote = issued("30 Apr", "");
        Answering.Acceptance a = acceptance(quote, 1);
        ExecutorService pool = Executors.newFixedThreadPool(4);
        List<Callable<Boolean>> tries = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            tries.add(() -> {
                try {
                    answering.accept(quote, a, "203.0.113.7");
                    return true;
                } catch (ConflictException e) {
                    return false;
                }
            });
        }
        int done = 0;
        for (Future<Boolean> f : pool.invokeAll(tries)) {
            done += f.get() ? 1 : 0;
        }
        pool.shutdown();
        assertThat(done).isEqualTo(1);
        assertThat(letters()).containsExactly("ACCEPTED");
        assertThatThrownBy(() -> answering.decline(quote, "", ""))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("was accepted on 1 March 2027 by Ida Corrow");
    }

    @Test
    public void whatRanOutCannotBeAcceptedAndSaysWhomToAsk() {
        Document quote = issued("2027-03-10", "");
        server.moveTo(BEGIN.plusDays(9), LocalTime.of(12, 0));
        assertThat(views.page(quote, null).state()).isEqualTo("open");
        server.moveTo(BEGIN.plusDays(10), LocalTime.of(12, 0));
        assertThat(views.page(quote, null).state()).isEqualTo("expired");
        assertThatThrownBy(() -> answering.accept(quote, acceptance(quote, 1), ""))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("held until 10 March 2027")
                .hasMessageContaining("@");
        assertThat(quotes.quote(quote.id()).state()).isEqualTo(DocumentState.OPEN);
    }

    @Test
    public void aLaterVersionTakesItsPlaceAndWhatWasOnScreenIsNotAccepted() {
        Document quote = issued("30 Apr", "");
        Answering.Acceptance old = acceptance(quote, 1);
        String token = server.bean(Links.class).tokenOf(quote.id());
        DocumentId draft = quotes.revise(quote.id());
        assertThat(quotes.revise(quote.id())).isEqualTo(draft);
        TypedDraft dearer = offer("30 Apr", "")
                .changed()
                .lines(List.of(line("Action", "1000.00", null), line("Castors with brakes", "126.00", "ticked")))
                .build();
        quotes.keep(draft, 1, dearer);
        Document later = quotes.issue(draft, 2);
        assertThat(quotes.quote(quote.id()).state()).isEqualTo(DocumentState.VOID);
        Document found = server.bean(Documents.class).byToken(token);
        assertThat(found.id()).isEqualTo(later.id());
        assertThat(views.page(found, null).changed())
                .containsExactly("“Action” is 1,000.00; it was 980.00.", "The total is 1,126.00; it was 1,106.00.");
        assertThatThrownBy(() -> answering.accept(found, old, ""))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("nothing was accepted");
        assertThatThrownBy(() -> answering.accept(quote, old, "")).isInstanceOf(ConflictException.class);
    }

    @Test
    public void whatCannotBeChosenOrNamedIsRefusedBesideItsField() {
        Document quote = issued("30 Apr", "");
        assertThatThrownBy(() -> views.page(quote, List.of(0)))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("no line that can be chosen");
        assertThatThrownBy(() -> answering.accept(quote, new Answering.Acceptance(" ", List.of(1), "x"), ""))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems().get(0).field()).isEqualTo("name"));
        assertThatThrownBy(
                        () -> answering.accept(quote, new Answering.Acceptance("x".repeat(5_000), List.of(1), "x"), ""))
                .isInstanceOf(RefusedException.class);
        assertThat(quotes.quote(quote.id()).state()).isEqualTo(DocumentState.OPEN);
    }

    @DataProvider
    public Object[][] unsafe() {
        return new Object[][] {
            {"<p>Yours</p><script>alert(1)</script>", "<p>Yours</p>"},
            {"<img src=x onerror=alert(1)>Yours", "Yours"},
            {"<a href=\"javascript:alert(1)\">Yours</a>", "Yours"},
            {"<p style=\"position:fixed\" onclick=\"x()\">Yours</p>", "<p>Yours</p>"},
        };
    }

    @Test(dataProvider = "unsafe")
    public void whatIsPastedIntoConditionsIsMadeSafe(String typed, String kept) {
        Document quote = issued("30 Apr", typed);
        assertThat(views.page(quote, null).conditions()).isEqualTo(kept);
        assertThat(new String(server.bean(QuotePapers.class).forBusiness(quote), StandardCharsets.ISO_8859_1))
                .startsWith("%PDF");
    }

    @Test
    public void byHandItSaysBySayingWhomAndAnInvoiceIsMadeOfItOnce() {
        Document quote = issued("30 Apr", "");
        assertThatThrownBy(() -> answering.acceptByHand(quote, new Answering.Acceptance("", List.of(), null)))
                .hasMessageContaining("who accepted it, and how");
        answering.acceptByHand(quote, new Answering.Acceptance("Ida Corrow, on the telephone", List.of(), null));
        QuoteInvoicing invoicing = server.bean(QuoteInvoicing.class);
        DocumentId invoice = invoicing.begin(quote.id(), QuoteInvoicing.ToBill.REST);
        assertThat(invoicing.begin(quote.id(), QuoteInvoicing.ToBill.REST)).isEqualTo(invoice);
        Document made = server.bean(InvoicesService.class).issue(invoice, 1);
        assertThat(made.totalMinor()).isEqualTo(98_000);
        assertThat(server.bean(InvoicesService.class).typed(made).lines()).hasSize(1);
    }

    @Test
    public void aQuestionWaitsUntilSomebodySeesToIt() {
        Document quote = issued("30 Apr", "");
        answering.ask(quote, "Does it come with a bench?");
        QuoteRepository repository = server.bean(QuoteRepository.class);
        long id = repository.open(10).get(0).id();
        answering.seeTo(id);
        assertThat(repository.open(10)).isEmpty();
        assertThatThrownBy(() -> answering.seeTo(id)).isInstanceOf(ConflictException.class);
    }
}
