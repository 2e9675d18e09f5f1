package quill.server.books;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.catalogue.TypedItem;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.schedule.TypedTerm;
import quill.server.Caller;
import quill.server.Server;
import quill.server.catalogue.CatalogueService;
import quill.server.creditnotes.Crediting;
import quill.server.dispatch.Withdrawals;
import quill.server.invoices.InvoicesService;
import quill.server.people.PeopleService;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;

/** What the books say each of the business's own categories brought in, through all that becomes of an invoice. */
public class IncomeByCategoryTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private static final String PASSPHRASE = "felt hammers and copper strings";
    private Server server;
    private Caller caller;
    private InvoicesService invoices;
    private ClientId client;
    private long item;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY.minusYears(1));
        server.bean(PeopleService.class).makeOwner("odile@workshop.example", "Odile", PASSPHRASE);
        caller = new Caller(server).signedIn("odile@workshop.example", PASSPHRASE);
        invoices = server.bean(InvoicesService.class);
        client = server.client("Kestrel Theatre", true);
        item = server.bean(CatalogueService.class)
                .make(new TypedItem("T", "Tuning", "", Map.of("EUR", "74"), List.of(), "Tuning", false, "", ""));
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private DocumentId issue(TypedLine... lines) {
        return invoices.issue(
                        invoices.begin(TypedDraft.in("EUR")
                                .client(client)
                                .subject("work")
                                .supplyDate(server.bean(quill.server.common.BusinessClock.class)
                                        .today()
                                        .toString())
                                .lines(List.of(lines))
                                .schedule(List.of(new TypedTerm(false, "rest", "30")))
                                .build()),
                        1)
                .id();
    }

    private TypedLine line(String price, Long of, String category) {
        return new TypedLine("Work", "1", "", price, "", List.of("none"), of, null, null, category);
    }

    /** As the page has it: category, then a sum for each year. */
    private List<String> report() {
        JsonNode books = new ObjectMapper().readTree(caller.get("/api/books").body());
        List<String> rows = new ArrayList<>();
        books.path("income").forEach(r -> {
            StringBuilder row = new StringBuilder(r.path("category").asString());
            r.path("years").forEach(y -> row.append(" ").append(y.path("amount").asString()));
            rows.add(row.toString());
        });
        return rows;
    }

    @Test
    public void aCategoryFollowsItsLinesThroughTheBooks() {
        issue(line("40", null, null));
        assertThat(report()).isEmpty();
        DocumentId old = issue(line("74", item, null), line("30", item, "Call-outs"), line("9", null, " Strings "));
        assertThat(report()).containsExactly("Call-outs 30.00", "Strings 9.00", "Tuning 74.00", " 40.00");
        server.moveTo(DAY, LocalTime.NOON);
        DocumentId withdrawn = issue(line("500", null, "Hire"));
        server.bean(Withdrawals.class).takeBack(withdrawn, "a slip");
        issue(line("10", item, ""), line("5", null, "strings"));
        // Credited a year later, it lowers the year of the credit note, not the one that is closed.
        server.bean(Crediting.class)
                .write(old, new Crediting.Wanted("amount", "half of it", List.of(), List.of(), "56.50", false));
        assertThat(report())
                .containsExactly("Call-outs 30.00 -15.00", "Strings 9.00 0.50", "Tuning 74.00 -27.00", " 40.00 0.00");
        server.bean(Crediting.class).write(old, Crediting.Wanted.rest("the rest", false));
        assertThat(report()).contains("Tuning 74.00 -64.00", "Call-outs 30.00 -30.00", "Strings 9.00 -4.00");
        assertThat(caller.get("/api/books").body()).contains("outside the scope of tax · Call-outs");
    }

    @Test(dependsOnMethods = "aCategoryFollowsItsLinesThroughTheBooks")
    public void aClientReadsNoCategory() {
        DocumentId id = issue(line("12", null, "Inner word"));
        String token = server.bean(quill.server.links.Links.class).tokenOf(id);
        assertThat(caller.get("/api/invoices/" + id).body()).contains("Inner word");
        assertThat(new Caller(server).get("/api/public/" + token).body())
                .contains("12.00")
                .doesNotContain("Inner word");
    }

    @Test
    public void tooLongACategoryIsToldBesideItsLine() {
        String typed = """
                {"clientId":%s,"currency":"EUR","subject":"","reference":"","supplyDate":"","supplyEnd":"","taxInside":false,
                 "lines":[{"description":"Work","quantity":"1","unit":"","unitPrice":"1","discount":"","taxes":["none"],
                           "item":null,"note":null,"serial":null,"category":"%s"}],
                 "schedule":[],"notes":""}
                """.formatted(client, "x".repeat(61));
        assertThat(caller.send("POST", "/api/reckonings", typed).body())
                .contains("lines[0].category", "at most 60 characters")
                .doesNotContain("write at least one line");
    }
}
