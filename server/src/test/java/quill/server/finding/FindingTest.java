package quill.server.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.catalogue.TypedItem;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.DecimalMark;
import quill.server.Caller;
import quill.server.Server;
import quill.server.catalogue.CatalogueService;
import quill.server.clients.ClientsService;
import quill.server.common.Findable;
import quill.server.creditnotes.Crediting;
import quill.server.finding.FindingRepository.Found;
import quill.server.invoices.InvoicesService;
import quill.server.people.PeopleService;

public class FindingTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private static final String PASSPHRASE = "felt hammers and copper strings";
    private Server server;
    private FindingService finding;
    private Caller caller;
    private ClientId client;
    private DocumentId invoice;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY);
        finding = server.bean(FindingService.class);
        server.bean(PeopleService.class).makeOwner("odile@workshop.example", "Odile", PASSPHRASE);
        caller = new Caller(server).signedIn("odile@workshop.example", PASSPHRASE);
        client = server.client("Kestrel Theatre", true);
        invoice = server.issue(client, "Soundboard repair", "1858.40", "rest@30", null);
        server.pay(client, invoice, "929.20", DAY);
        server.bean(CatalogueService.class)
                .make(new TypedItem(
                        "STR-B", "Bass string, wound", "", Map.of("EUR", "24.5"), List.of(), "", false, "", ""));
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private List<Found> find(String typed) {
        while (finding.readAgain()) {
            // All of it.
        }
        return finding.find(typed, DecimalMark.POINT);
    }

    @DataProvider
    public Object[][] asked() {
        return new Object[][] {
            {"kest", Findable.CLIENT},
            {"kestral", Findable.CLIENT},
            {"kestrel.theatre@", Findable.CLIENT},
            {"1,858.40", Findable.INVOICE},
            {"929.20", Findable.INVOICE},
            {"929.2", Findable.PAYMENT},
            {"soundbord kestrel", Findable.INVOICE},
            {"2027-0001", Findable.INVOICE},
            {"str-b", Findable.ITEM},
            {"24.50", Findable.ITEM},
        };
    }

    @Test(dataProvider = "asked")
    public void isFoundByAnyWordsOfItAndASlipIsForgiven(String typed, Findable kind) {
        assertThat(find(typed)).extracting(Found::kind).contains(kind);
    }

    @Test
    public void onlyWhatHasAllOfTheWords() {
        assertThat(find("kestrel bass")).isEmpty();
        assertThat(find("2027-0002")).isEmpty();
        assertThat(find("   ")).isEmpty();
        assertThat(find("' OR 1=1 --")).isEmpty();
    }

    @Test
    public void whatChangesOrGoesIsFoundAsItIs() {
        InvoicesService invoices = server.bean(InvoicesService.class);
        ClientId other = server.client("Wren Hall", true);
        DocumentId draft =
                invoices.begin(invoices.typed(invoices.invoice(invoice)).forClient(other));
        assertThat(find("draft wren")).extracting(Found::id).contains(draft.value());
        invoices.discard(draft, 1);
        assertThat(find("draft wren")).isEmpty();

        var clients = server.bean(ClientsService.class);
        DocumentId issued = server.issue(other, "Tuning", "77", "rest@30", null);
        assertThat(caller.post("/api/clients/" + other + "/merging", "{\"version\":1,\"into\":" + client + "}")
                        .statusCode())
                .isEqualTo(200);
        assertThat(find("wren")).extracting(Found::kind).doesNotContain(Findable.CLIENT);
        assertThat(find("kestrel 77.00")).extracting(Found::id).contains(issued.value());
        assertThat(clients.client(other).id()).isEqualTo(client);

        DocumentId note = server.bean(Crediting.class)
                .write(issued, Crediting.Wanted.rest("a broken hinge", false))
                .note()
                .id();
        assertThat(find("hinge"))
                .singleElement()
                .satisfies(f -> assertThat(f.place()).isEqualTo("/invoices/" + issued + "/credit-notes/" + note));
    }

    @Test
    public void isAskedOverHttpAndFindsWhatChangedAMomentAgo() {
        server.client("Ämilie Öster", true);
        assertThat(caller.get("/api/finding?words=amilie").body()).contains("Ämilie Öster");
        assertThat(new Caller(server).get("/api/finding?words=kestrel").statusCode())
                .isEqualTo(401);
    }

    @Test
    public void listsAreSavedAsFilesAndNonsenseIsRefused() {
        assertThat(caller.get("/api/clients/list.csv?sort=name").body())
                .contains("Kestrel Theatre")
                .contains("Owes EUR");
        assertThat(caller.get("/api/clients/list.vcf").body()).contains("BEGIN:VCARD");
        assertThat(caller.get("/api/clients/" + client + "/card.vcf").body()).contains("Kestrel Theatre");
        assertThat(caller.get("/api/catalogue/items.csv").body())
                .contains("STR-B")
                .contains("24.50");
        for (String path : List.of(
                "/api/catalogue/choices?find=x&currency=E",
                "/api/clients?sort=size",
                "/api/catalogue/items?sort=size")) {
            assertThat(caller.get(path).statusCode()).as(path).isEqualTo(422);
        }
        for (String path : List.of("/api/catalogue/items/1", "/api/catalogue/bundles/1")) {
            assertThat(caller.send("PUT", path, "{\"version\":1}").statusCode())
                    .as(path)
                    .isEqualTo(422);
        }
        assertThat(caller.send("PUT", "/api/business/schedules/999", """
                        {"name":"x","terms":[{"deposit":false,"share":"rest","days":"1"}],"usual":false}""").statusCode())
                .isEqualTo(404);
    }

    @Test
    public void thePageOfADraftIsShownAsItWouldBeAndNothingIsIssuedByLooking() {
        InvoicesService invoices = server.bean(InvoicesService.class);
        DocumentId draft = invoices.begin(invoices.typed(invoices.invoice(invoice)));
        String path = "/api/invoices/" + draft + "/client-page";
        String page = caller.post(path, "{\"version\":1}").body();
        assertThat(page).contains("Soundboard repair").contains("\"amount\":\"1858.40\"");
        assertThat(invoices.invoice(draft).isDraft()).isTrue();
        assertThat(caller.post(path, "{\"version\":9}").statusCode()).isEqualTo(409);
        invoices.keep(draft, 1, invoices.typed(invoices.invoice(invoice)).forClient(null));
        assertThat(caller.post(path, "{\"version\":2}").body()).contains("\"field\":\"clientId\"");
    }
}
