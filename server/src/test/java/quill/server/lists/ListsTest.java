package quill.server.lists;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.Caller;
import quill.server.Server;
import quill.server.payments.Undoing;
import quill.server.people.PeopleService;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;

/** Lists of everything: what they show, in which order, what it adds up to, and the same as a file. */
public class ListsTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private static final String PASSPHRASE = "felt hammers and copper strings";
    private final ObjectMapper json = new ObjectMapper();
    private Server server;
    private Caller caller;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY.minusDays(40));
        server.bean(PeopleService.class).makeOwner("odile@workshop.example", "Odile", PASSPHRASE);
        caller = new Caller(server).signedIn("odile@workshop.example", PASSPHRASE);
        ClientId heron = server.client("Blue Heron Rooms", true);
        ClientId kestrel = server.client("=Kestrel Theatre", true);
        DocumentId late = server.issue(heron, "Hire, February", "516.00", "rest@10", null);
        server.moveTo(DAY, java.time.LocalTime.NOON);
        DocumentId settled = server.issue(kestrel, "Tuning", "74.50", "rest@0", null);
        server.issue(kestrel, "Soundboard", "1858.40", "rest@30", null);
        server.pay(kestrel, settled, "74.50", DAY);
        server.pay(heron, late, "16.00", DAY.minusDays(5));
        long wrong = server.pay(heron, late, "99.00", DAY.minusDays(4));
        server.bean(Undoing.class).undo(wrong, "typed twice");
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private JsonNode get(String path) {
        var answer = caller.get(path);
        assertThat(answer.statusCode()).as(path + ": " + answer.body()).isEqualTo(200);
        return json.readTree(answer.body());
    }

    private static List<String> each(JsonNode rows, String... path) {
        List<String> found = new ArrayList<>();
        rows.forEach(r -> {
            JsonNode at = r;
            for (String part : path) {
                at = at.path(part);
            }
            found.add(at.asString());
        });
        return found;
    }

    @DataProvider
    public Object[][] orders() {
        return new Object[][] {
            {"", List.of("2027-0003", "2027-0002", "2027-0001")},
            {"?sort=number&down=false", List.of("2027-0001", "2027-0002", "2027-0003")},
            {"?sort=total", List.of("2027-0003", "2027-0001", "2027-0002")},
            {"?sort=open&down=false", List.of("2027-0002", "2027-0001", "2027-0003")},
            {"?sort=client&down=false", List.of("2027-0003", "2027-0002", "2027-0001")},
            {"?which=late", List.of("2027-0001")},
            {"?which=settled", List.of("2027-0002")},
            {"?filter=heron", List.of("2027-0001")},
            {"?filter=-0003", List.of("2027-0003")},
            {"?filter=%25", List.of()},
            {"?from=today", List.of("2027-0003", "2027-0002")},
            {"?from=1%20Feb&to=28%20Feb", List.of("2027-0001")},
        };
    }

    @Test(dataProvider = "orders")
    public void invoicesAreNarrowedAndOrderedAsAsked(String asked, List<String> numbers) {
        assertThat(each(get("/api/invoices/list" + asked).path("rows"), "number"))
                .isEqualTo(numbers);
        var csv = caller.get("/api/invoices/list.csv" + asked).body().lines().skip(1);
        assertThat(csv.map(l -> l.substring(0, 9))).isEqualTo(numbers);
    }

    @Test
    public void whatIsShownIsAddedUp() {
        JsonNode all = get("/api/invoices/list/totals");
        assertThat(each(all, "total", "amount")).containsExactly("2448.90");
        assertThat(each(all, "open", "amount")).containsExactly("2358.40"); // 500.00 and 1,858.40
        assertThat(each(get("/api/invoices/list/totals?which=late"), "open", "amount"))
                .containsExactly("500.00");
        assertThat(get("/api/invoices/list/totals?filter=nobody")).isEmpty();
    }

    @Test
    public void whatCameInIsListedAndWhatWasUndoneAddsNothing() {
        JsonNode all = get("/api/payments/list");
        assertThat(each(all.path("rows"), "amount", "amount")).containsExactly("74.50", "99.00", "16.00");
        assertThat(each(all.path("rows"), "note")).containsExactly("", "undone: typed twice", "");
        assertThat(each(get("/api/payments/list/totals"), "amount", "amount")).containsExactly("90.50");
        assertThat(each(get("/api/payments/list?which=undone").path("rows"), "amount", "amount"))
                .containsExactly("99.00");
        assertThat(each(get("/api/payments/list?sort=amount&down=false").path("rows"), "amount", "amount"))
                .containsExactly("16.00", "74.50", "99.00");
        String csv = caller.get("/api/payments/list.csv?filter=kestrel").body();
        assertThat(csv.lines().skip(1))
                .hasSize(1)
                .first()
                .asString()
                .startsWith("2027-03-15,'=Kestrel Theatre,2027-0002,");
    }

    @Test(dependsOnMethods = {"invoicesAreNarrowedAndOrderedAsAsked", "whatIsShownIsAddedUp"})
    public void aPageBeginsWhereTheOneBeforeEnded() {
        ClientId many = server.client("Many", true);
        for (int i = 0; i < Pages.PAGE + 2; i++) {
            server.issue(many, "Work " + i, "1.00", "rest@30", null);
        }
        JsonNode first = get("/api/invoices/list?filter=many");
        assertThat(first.path("rows")).hasSize(Pages.PAGE);
        JsonNode rest =
                get("/api/invoices/list?filter=many&start=" + first.path("more").asInt());
        assertThat(rest.path("rows")).hasSize(2);
        assertThat(rest.path("more").isNull()).isTrue();
        assertThat(each(rest.path("rows"), "id")).doesNotContainAnyElementsOf(each(first.path("rows"), "id"));
    }

    @DataProvider
    public Object[][] nonsense() {
        return new Object[][] {
            {"/api/invoices/list?sort=colour", "sort"},
            {"/api/invoices/list?which=green", "which"},
            {"/api/invoices/list?from=someday", "from"},
            {"/api/invoices/list?from=1%20March&to=1%20Feb", "to"},
            {"/api/invoices/list?start=-1", "start"},
            {"/api/payments/list?sort=';DROP%20TABLE%20payment", "sort"},
            {"/api/payments/list/totals?which=gold", "which"},
            {"/api/invoices/pdf?ids=", "ids"},
            {"/api/invoices/pdf?ids=%20", "ids"},
            {"/api/invoices/list.csv?ids=1,%20,2", "ids"},
        };
    }

    @Test(dataProvider = "nonsense")
    public void nonsenseIsRefusedByField(String path, String field) {
        var answer = caller.get(path);
        assertThat(answer.statusCode()).isEqualTo(422);
        assertThat(answer.body()).contains("\"" + field + "\"");
    }

    @Test
    public void aViewIsKeptUnderANameReplacedAndForgotten() {
        String body = "{\"place\":\"/invoices/list\",\"name\":\"%s\",\"shows\":\"%s\"}";
        assertThat(caller.post("/api/views", body.formatted("Late ones", "which=late"))
                        .statusCode())
                .isEqualTo(200);
        caller.post("/api/views", body.formatted("Late ones", "which=late&sort=due"));
        JsonNode kept = get("/api/views?place=/invoices/list");
        assertThat(each(kept, "shows")).containsExactly("which=late&sort=due");
        assertThat(get("/api/views?place=/clients")).isEmpty();
        assertThat(caller.post("/api/views", body.formatted(" ", "x")).body()).contains("give it a name");
        assertThat(caller.post("/api/views", "{\"place\":\"/elsewhere\",\"name\":\"n\",\"shows\":\"\"}")
                        .statusCode())
                .isEqualTo(422);
        long id = kept.get(0).path("id").asLong();
        assertThat(caller.send("DELETE", "/api/views/" + id, "").statusCode()).isEqualTo(200);
        assertThat(caller.send("DELETE", "/api/views/" + id, "").statusCode()).isEqualTo(200);
        assertThat(get("/api/views?place=/invoices/list")).isEmpty();
    }

    /** Sums over everything are held between commits; a commit of whatever kind drops them. After all others: it adds a client. */
    @Test(priority = 1)
    public void aListSaysAtOnceWhatWasBookedSinceItWasLookedAt() {
        ClientId client = server.client("Looked At Twice", true);
        String owes = "/api/clients?filter=Looked+At+Twice";
        String groups = "/api/invoices?filter=Looked+At+Twice";
        assertThat(get(owes).path("rows").get(0).path("owes").path("amount").asString())
                .isEqualTo("0.00");
        assertThat(get(groups)).isEmpty();
        DocumentId invoice = server.issue(client, "Tuning, twice", "80.00", "rest@10", null);
        assertThat(get(owes).path("rows").get(0).path("owes").path("amount").asString())
                .isEqualTo("80.00");
        assertThat(get(groups).get(0).path("count").asInt()).isEqualTo(1);
        server.pay(client, invoice, "80.00", DAY);
        assertThat(get(owes).path("rows").get(0).path("owes").path("amount").asString())
                .isEqualTo("0.00");
        assertThat(get(groups).get(0).path("when").asString()).isEqualTo("settled");
    }
}
