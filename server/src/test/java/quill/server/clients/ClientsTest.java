package quill.server.clients;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.DecimalMark;
import quill.server.Caller;
import quill.server.Server;
import quill.server.books.BooksService;
import quill.server.clients.ClientMore.Kind;
import quill.server.common.ConflictException;
import quill.server.common.Csv;
import quill.server.debts.Debts;
import quill.server.debts.OpenSums;
import quill.server.invoices.InvoicesService;
import quill.server.people.PeopleService;
import quill.server.tables.TableImport;
import quill.server.tables.TableImport.How;
import quill.server.tables.TableImport.TablePlan;

public class ClientsTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private static final How LOOK = new How(null, null, null, null, null);
    private Server server;
    private ClientsService clients;
    private Caller caller;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY);
        clients = server.bean(ClientsService.class);
        server.bean(PeopleService.class)
                .makeOwner("odile@workshop.example", "Odile", "felt hammers and copper strings");
        caller = new Caller(server).signedIn("odile@workshop.example", "felt hammers and copper strings");
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private static ClientMore more(List<Contact> contacts, String phone) {
        return new ClientMore(
                Kind.BUSINESS, "", phone, "", "", null, null, List.of(), contacts, "", List.of("schools"));
    }

    private Client make(String name, String email, ClientMore more) {
        return clients.make(new Client(ClientId.NEW, name, "The bursar", email, "There 2", "", "", "", null, more, 1));
    }

    @Test
    public void isFoundByAnyPartOfWhatIsKnown() {
        make(
                "Finch Hall",
                "hall@finch.example",
                more(List.of(new Contact("Otto Wren", "otto@finch.example", "", true, false)), "+32 (0)4 11/22.33"));
        for (String part :
                List.of("finch", "BURSAR", "hall@", "otto wren", "otto@", "schools", "11 22 33", "0411-2233")) {
            assertThat(clients.named(part)).as(part).extracting(Client::name).contains("Finch Hall");
        }
        assertThat(clients.named("11 22 34")).isEmpty();
    }

    @Test
    public void remindersAndReceiptsGoToWhoeverIsNamedForThem() {
        Client c = make(
                "Parts",
                "invoices@parts.example",
                more(
                        List.of(
                                new Contact("Rea", "rea@parts.example", "", true, false),
                                new Contact("Pay", "pay@parts.example", "", false, true)),
                        ""));
        assertThat(c.forReminders()).isEqualTo(new Client.Recipient("Rea", "rea@parts.example", "", false));
        assertThat(c.forReceipts()).isEqualTo(new Client.Recipient("Pay", "pay@parts.example", "", true));
        assertThat(clients.client(server.client("Plain", true)).forReminders().email())
                .isEqualTo("plain@clients.example");
        DocumentId invoice = server.issue(c.id(), "100", "rest@0", null);
        server.pay(c.id(), invoice, "100", DAY);
        assertThat(server.jdbc()
                        .sql("SELECT to_address FROM message WHERE client_id = :c AND kind = 'receipt'")
                        .param("c", c.id())
                        .query(String.class)
                        .single())
                .isEqualTo("pay@parts.example");
    }

    @Test
    public void everyWrongFieldIsNamedWithItsPlace() {
        ClientMore wrong = new ClientMore(
                Kind.CONSUMER,
                "",
                "",
                "",
                "EURO",
                -1,
                987654L,
                List.of(),
                List.of(new Contact("", "no address", "", true, false), new Contact("B", "", "", true, false)),
                "",
                List.of());
        assertThatThrownBy(() -> make("W", "", wrong))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems())
                                .extracting(Problem::field)
                                .contains(
                                        "more.currency",
                                        "more.daysToPay",
                                        "more.contacts[0].name",
                                        "more.contacts[0].email",
                                        "more.contacts[1].email",
                                        "more.contacts"));
    }

    @Test
    public void mergingMovesEverythingAndTheBooksAgree() {
        ClientId from = server.client("Halden Hall", true);
        ClientId into = server.client("Halden Bay Concert Hall", true);
        DocumentId open = server.issue(from, "300", "d40%@0 rest@30", null);
        DocumentId paid = server.issue(into, "80", "rest@0", null);
        server.pay(into, paid, "130", DAY);
        InvoicesService invoices = server.bean(InvoicesService.class);
        DocumentId draft = invoices.begin(invoices.typed(invoices.invoice(open)));
        BooksService books = server.bean(BooksService.class);
        assertThat(books.creditOf(into, CurrencyUnit.EUR).getAmount()).isEqualByComparingTo("50");

        String path = "/api/clients/" + from + "/merging";
        String body = "{\"version\":1,\"into\":" + into + "}";
        assertThat(caller.post(path, body).statusCode()).isEqualTo(200);

        for (String table : server.jdbc()
                .sql("SELECT table_name FROM information_schema.columns WHERE column_name = 'CLIENT_ID'")
                .query(String.class)
                .list()) {
            assertThat(server.jdbc()
                            .sql("SELECT COUNT(*) FROM " + table + " WHERE client_id = :from")
                            .param("from", from)
                            .query(Integer.class)
                            .single())
                    .as(table)
                    .isZero();
        }
        // The credit of one settles what is open of the other, as it would have done at once.
        assertThat(books.creditOf(into, CurrencyUnit.EUR).isZero()).isTrue();
        assertThat(books.balanceOf(into, CurrencyUnit.EUR).getAmount()).isEqualByComparingTo("250");
        assertThat(server.bean(Debts.class).agreement(into, CurrencyUnit.EUR).holds())
                .isTrue();
        assertThat(server.bean(OpenSums.class).disagreeing()).isEmpty();
        assertThat(invoices.typed(invoices.invoice(draft)).clientId()).isEqualTo(into);
        assertThat(invoices.document(invoices.invoice(open)).to().name()).isEqualTo("Halden Hall");
        // Its address leads on; a page that still names it keeps its draft for the one that stays.
        assertThat(caller.get("/api/clients/" + from).body()).contains("Halden Bay Concert Hall");
        DocumentId late = invoices.begin(invoices.typed(invoices.invoice(draft)).forClient(from));
        assertThat(invoices.invoice(late).clientId()).isEqualTo(into);
        assertThat(caller.post(path, body).statusCode()).isEqualTo(422);
        assertThatThrownBy(() -> server.pay(from, open, "10", DAY)).hasMessageContaining("part of Halden Bay");
    }

    @Test
    public void aClientIsNotMergedWithItself() {
        ClientId one = server.client("Itself", true);
        var answer = caller.post("/api/clients/" + one + "/merging", "{\"version\":1,\"into\":" + one + "}");
        assertThat(answer.statusCode()).isEqualTo(422);
        assertThat(answer.body()).contains("\"field\":\"into\"").contains("one client already");
    }

    @Test
    public void isArchivedOnlyWithNothingOpenAndDeletedOnlyWithNothingWritten() {
        ClientId busy = server.client("Busy", true);
        DocumentId invoice = server.issue(busy, "10", "rest@0", null);
        assertThat(archive(busy, 1)).isEqualTo(409);
        server.pay(busy, invoice, "10", DAY);
        assertThatThrownBy(() -> clients.delete(busy, 1)).isInstanceOf(ConflictException.class);
        assertThat(archive(busy, 1)).isEqualTo(200);
        assertThat(clients.named("busy")).isEmpty();
        assertThat(clients.named("busy", java.util.Set.of(), true)).hasSize(1);
        ClientId idle = server.client("Idle", true);
        clients.delete(idle, 1);
        assertThat(caller.get("/api/clients/" + idle).statusCode()).isEqualTo(404);
    }

    private int archive(ClientId id, int version) {
        return caller.send("PUT", "/api/clients/" + id + "/archived", "{\"version\":" + version + ",\"archived\":true}")
                .statusCode();
    }

    private TablePlan take(byte[] file, How how) {
        return server.bean(TableImport.class)
                .read(VCards.asTable(file), how, () -> new ClientTable(clients), DecimalMark.POINT);
    }

    private TablePlan taken(byte[] file) {
        TablePlan seen = take(file, LOOK);
        assertThat(seen.bad()).isEmpty();
        return take(file, new How(seen.columns(), seen.lettering().mark(), Map.of(), List.of(), seen.fingerprint()));
    }

    private Client named(String name) {
        return clients.named(name).stream()
                .filter(c -> c.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    @DataProvider
    public Object[][] versions() {
        return new Object[][] {{"2.1"}, {"3.0"}, {"4.0"}};
    }

    @Test(dataProvider = "versions")
    public void aCardWithTwoAddressesBecomesAClientWithAPlaceOfDelivery(String version) {
        String firm = "Wren & Söhne " + version;
        String card = String.join(
                "\r\n",
                "BEGIN:VCARD",
                "VERSION:" + version,
                "FN:Ada Wren",
                "N:Wren;Ada;;;",
                "ORG:" + firm,
                "ADR;TYPE=HOME:;;Orchard End;Westerby;;4000;Belgium",
                "ADR;TYPE=WORK:;;Mill Street 30;Pellworth;;4100;Belgium",
                "EMAIL:ada@wren.example",
                "EMAIL:orders@wren.example",
                "TEL:+32 4 555",
                "END:VCARD",
                "");
        assertThat(taken(card.getBytes(StandardCharsets.UTF_8)).counts().fresh())
                .isEqualTo(1);
        Client c = named(firm);
        assertThat(c.contact()).isEqualTo("Ada Wren");
        assertThat(c.address()).isEqualTo("Mill Street 30\n4100 Pellworth");
        assertThat(c.country()).isEqualTo("BE");
        assertThat(c.more().delivery()).isEqualTo("Orchard End\n4000 Westerby");
        assertThat(c.more().contacts()).extracting(Contact::email).containsExactly("orders@wren.example");
        assertThat(take(card.getBytes(StandardCharsets.UTF_8), LOOK).counts().same())
                .isEqualTo(1);

        byte[] again = VCards.write(List.of(c));
        assertThat(new String(again, StandardCharsets.UTF_8))
                .contains("VERSION:4.0")
                .contains("ada@wren.example");
        assertThat(take(again, LOOK).counts().bad()).isZero();
    }

    @Test
    public void whatWasWrittenAsATableIsReadAgainAsTheSame() {
        make("=1+1", "formula@x.example", more(List.of(), ""));
        List<Client> all = clients.all();
        byte[] file = Csv.file("x.csv", new ClientTable(clients).rows(all)).getBody();
        assertThat(new String(file, StandardCharsets.UTF_8)).contains("'=1+1").contains("There 2");
        TablePlan plan = take(file, LOOK);
        assertThat(plan.counts().bad()).isZero();
        assertThat(plan.counts().fresh()).isZero();
        assertThat(plan.counts().changed()).isZero();
    }

    @Test
    public void aTableNamesEachSlipAndLeavesWhatItHasNoColumnFor() {
        Client c = make("Tabled", "t@tabled.example", more(List.of(), "12 34"));
        TablePlan bad = take(
                "Client;E-mail;Kind;Days to pay;Country\nTabled;nobody;firm;soon;Atlantis"
                        .getBytes(StandardCharsets.UTF_8),
                LOOK);
        assertThat(bad.bad().get(0).problems())
                .extracting(Problem::field)
                .containsExactlyInAnyOrder("email", "more.kind", "more.daysToPay", "country");
        taken("Name,Days to pay\nTabled,14".getBytes(StandardCharsets.UTF_8));
        Client now = clients.client(c.id());
        assertThat(now.more().daysToPay()).isEqualTo(14);
        assertThat(now.more().phone()).isEqualTo("12 34");
        assertThat(now.email()).isEqualTo("t@tabled.example");
    }
}
