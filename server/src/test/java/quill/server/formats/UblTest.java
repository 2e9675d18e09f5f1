package quill.server.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.document.DocumentReckoning;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedExtra;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.schedule.TypedTerm;
import quill.core.tax.TaxRounding;
import quill.official.OfficialRules;
import quill.server.Server;
import quill.server.business.DocumentSetting;
import quill.server.business.DocumentSettings;
import quill.server.business.Rates;
import quill.server.clients.Client;
import quill.server.clients.ClientMore;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.creditnotes.CreditNotes;
import quill.server.creditnotes.Crediting;
import quill.server.dispatch.PdfMaking;
import quill.server.documents.Attachments;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;

/** Issued invoices and credit notes as UBL, against the official rules; and read back. */
public class UblTest {
    private static final ClientMore BROUGHT_ELSEWHERE = new ClientMore(
            null, "", "", "Hall 4\n75001 Elsewhere", "", null, null, List.of(), List.of(), "", List.of());
    private Server server;
    private final Map<String, String> taxes = new java.util.HashMap<>();
    private ClientId plain;
    private ClientId abroad;
    private MadeUp made;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(java.time.LocalDate.of(2027, 3, 15));
        server.registered(TaxRounding.PER_TAX, "BE0123456789");
        for (String[] t : new String[][] {
            {"high", "21", "S", ""},
            {"low", "6", "S", ""},
            {"odd", "8.1", "S", ""},
            {"zero", "0", "Z", ""},
            {"free", "0", "E", "Teaching is exempt"},
            {"reverse", "0", "AE", "Reverse charge"},
            {"union", "0", "K", "Supply within the Union"},
            {"export", "0", "G", "Export"},
            {"out", "0", "O", "Outside the scope"},
            {"city", "2", "S", ""}
        }) {
            taxes.put(t[0], server.tax(t[0], t[1], t[2], false, t[3]));
        }
        taxes.put("upon", server.tax("upon", "3", "S", true, ""));
        server.bean(DocumentSettings.class)
                .change(new DocumentSetting(
                        "ledger", "", List.of("Piano"), List.of(new DocumentSetting.Coin("EUR", "0.05")), 0));
        server.bean(Rates.class).note(new Rates.Rate("GBP", "", "1.17"));
        server.bean(Rates.class).note(new Rates.Rate("KWD", "", "3.01"));
        plain = client("Plain Buyer", "", "", null);
        abroad = client("Buyer Abroad", "FR12345678901", "FR", null);
        ClientId exempt = client("Exempt Buyer", "", "BE", "EX-44");
        made = new MadeUp(
                taxes, plain, abroad, exempt, server.bean(BusinessClock.class).today());
    }

    @AfterClass
    public void stop() {
        server.close();
    }

    private ClientId client(String name, String number, String country, String certificate) {
        return server.bean(ClientsService.class)
                .make(new Client(
                        ClientId.NEW,
                        name,
                        "",
                        "buyer@buyer.example",
                        "There 2\nBackyard\nFloor 3\n9000 Elsewhere",
                        country.isEmpty() ? "BE" : country,
                        number,
                        certificate == null ? "" : certificate,
                        null,
                        country.equals("FR") ? BROUGHT_ELSEWHERE : ClientMore.NOTHING,
                        1))
                .id();
    }

    /** Five hundred generated invoices, every third with credit notes: no rule of EN 16931 finds anything. */
    @Test
    public void whatIsGeneratedKeepsTheOfficialRules() throws Exception {
        Random random = new Random(16931);
        int documents = 0;
        for (int i = 0; i < 500; i++) {
            if (i % 100 == 50) {
                server.registered(i % 200 == 50 ? TaxRounding.PER_LINE : TaxRounding.PER_TAX, "BE0123456789");
            }
            Document invoice = issued(random, i);
            documents += keepsTheRules(server.bean(Formats.class).invoice(invoice.id()), invoice, "invoice " + i);
            if (i % 3 == 0) {
                documents += credit(random, invoice);
            }
        }
        assertThat(documents).isGreaterThanOrEqualTo(700);
    }

    private static int keepsTheRules(byte[] ubl, Document invoice, String what) throws Exception {
        assertThat(OfficialRules.errors(ubl))
                .as(what + " " + invoice.number() + "\n" + new String(ubl, StandardCharsets.UTF_8))
                .isEmpty();
        UblReading.Read read = UblReading.read(ubl);
        assertThat(DocumentReckoning.figures(read.body()).net())
                .as(what)
                .isEqualTo(read.stated().net());
        return 1;
    }

    private int credit(Random random, Document invoice) throws Exception {
        CreditNotes notes = server.bean(CreditNotes.class);
        int written = 0;
        if (random.nextBoolean()) {
            BigDecimal part = BigDecimal.valueOf(Math.max(1, invoice.totalMinor() / 3), 2);
            Crediting.Wanted some =
                    new Crediting.Wanted("amount", "a third", List.of(), List.of(), part.toPlainString(), false);
            written += keepsTheRules(
                    server.bean(Formats.class)
                            .creditNote(server.bean(Crediting.class)
                                    .write(invoice.id(), some)
                                    .note()),
                    invoice,
                    "part");
        } else {
            Crediting.Wanted line = new Crediting.Wanted(
                    "lines",
                    "one line",
                    List.of(new Crediting.TypedPart(
                            0,
                            server.bean(InvoicesService.class)
                                    .document(invoice)
                                    .body()
                                    .lines()
                                    .get(0)
                                    .quantity())),
                    List.of(),
                    "",
                    false);
            try {
                written += keepsTheRules(
                        server.bean(Formats.class)
                                .creditNote(server.bean(Crediting.class)
                                        .write(invoice.id(), line)
                                        .note()),
                        invoice,
                        "line");
            } catch (RefusedException e) {
                assertThat(e.problems()).isNotEmpty();
            }
        }
        if (!notes.isTakenBack(invoice.id())) {
            written += keepsTheRules(
                    server.bean(Formats.class)
                            .creditNote(server.bean(Crediting.class)
                                    .write(invoice.id(), Crediting.Wanted.rest("the rest", false))
                                    .note()),
                    invoice,
                    "rest");
        }
        return written;
    }

    private Document issued(Random random, int number) {
        InvoicesService invoices = server.bean(InvoicesService.class);
        while (true) {
            TypedDraft draft = made.next(random, number);
            DocumentId id = invoices.begin(draft);
            try {
                return invoices.issue(id, 1);
            } catch (RefusedException e) {
                // A discount above its lines, or a total of zero: another one is generated.
                invoices.discard(id, 1);
            }
        }
    }

    /** What EN 16931 cannot carry, each with its reason. */
    @Test(dataProvider = "refusals", priority = 1)
    public void whatTheStandardCannotCarryIsRefusedWithTheReason(
            String currency, List<String> kinds, TaxRounding rounding, String seller, String says) {
        server.registered(rounding, seller);
        List<TypedLine> lines = java.util.Collections.nCopies(
                rounding == TaxRounding.PER_LINE ? 700 : 1,
                new TypedLine(
                        "Work",
                        "1",
                        "",
                        rounding == TaxRounding.PER_LINE ? "0.07" : "100",
                        "",
                        kinds.stream().map(taxes::get).toList()));
        DocumentId id = issued(abroad, currency, "work", lines);
        server.registered(TaxRounding.PER_TAX, "BE0123456789");
        assertThatThrownBy(() -> server.bean(Formats.class).invoice(id))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining(says);
    }

    @DataProvider
    Object[][] refusals() {
        return new Object[][] {
            {"EUR", List.of("high", "city"), TaxRounding.PER_TAX, "BE0123456789", "one tax on a line (BG-30)"},
            {"EUR", List.of("high", "upon"), TaxRounding.PER_TAX, "BE0123456789", "a compound tax"},
            {"KWD", List.of("high"), TaxRounding.PER_TAX, "BE0123456789", "at most two decimals"},
            {"EUR", List.of("high"), TaxRounding.PER_LINE, "BE0123456789", "rounded one by one"},
            {"EUR", List.of("union"), TaxRounding.PER_TAX, "204117", "begins with the country's two letters"},
        };
    }

    /** 21% of 3 and of 8 yen, line by line, are 1 and 2; 2.31 of the whole is 0.69 off, within the 1 that is allowed. */
    @Test(priority = 1)
    public void aTaxWithinOneOfItsRateOnTheWholeGoesOut() throws Exception {
        server.registered(TaxRounding.PER_LINE, "BE0123456789");
        List<TypedLine> lines = List.of("3", "8").stream()
                .map(p -> new TypedLine("Work", "1", "", p, "", List.of(taxes.get("high"))))
                .toList();
        server.bean(Rates.class).note(new Rates.Rate("JPY", "", "0.0061"));
        DocumentId id = issued(abroad, "JPY", "work", lines);
        server.registered(TaxRounding.PER_TAX, "BE0123456789");
        byte[] ubl = server.bean(Formats.class).invoice(id);
        assertThat(OfficialRules.errors(ubl)).isEmpty();
        assertThat(new String(ubl, StandardCharsets.UTF_8)).contains(">3<");
        Crediting.Written note = server.bean(Crediting.class).write(id, Crediting.Wanted.rest("a slip", false));
        assertThat(OfficialRules.errors(server.bean(Formats.class).creditNote(note.note())))
                .isEmpty();
    }

    @Test(priority = 1)
    public void anUnknownCountryIsRefused() {
        ClientId somewhere = server.bean(ClientsService.class)
                .make(new Client(ClientId.NEW, "No Country", "", "", "", "", 1))
                .id();
        DocumentId id = issued(somewhere, "EUR", "", work("Work"));
        assertThatThrownBy(() -> server.bean(Formats.class).invoice(id)).hasMessageContaining("(BR-11)");
    }

    /** Pasted text may bring along what neither paper nor XML has a place for; the invoice goes out all the same. */
    @Test(priority = 1)
    public void whatCannotBePrintedIsABlank() throws Exception {
        DocumentId id = issued(plain, "EUR", "a\u0000b\u001fc\u007fd\uffffe", work("W\u0001ork"));
        byte[] ubl = server.bean(Formats.class).invoice(id);
        assertThat(OfficialRules.errors(ubl)).isEmpty();
        assertThat(new String(ubl, StandardCharsets.UTF_8))
                .contains(">a b c d e<")
                .contains(">W ork<");
        InvoicesService invoices = server.bean(InvoicesService.class);
        assertThat(server.bean(PdfMaking.class).invoice(invoices.invoice(id), true))
                .startsWith("%PDF".getBytes(StandardCharsets.US_ASCII));
    }

    /** Out and in again: the same lines, discounts, charges and total; files go along. */
    @Test(priority = 1)
    public void whatWasWrittenIsReadBackAsADraft() throws Exception {
        InvoicesService invoices = server.bean(InvoicesService.class);
        TypedDraft draft = TypedDraft.in("EUR")
                .client(plain)
                .subject("strings")
                .reference("PO 12")
                .project("P 3")
                .supplyDate(server.bean(BusinessClock.class).today().toString())
                .lines(List.of(
                        new TypedLine("Strings", "32", "", "24.50", "", List.of(taxes.get("high"))),
                        new TypedLine("Fitting", "14.5", "h", "68.00", "10%", List.of(taxes.get("low")))))
                .discounts(List.of(new TypedExtra("Loyal", "5%", List.of())))
                .charges(List.of(new TypedExtra("Delivery", "15.00", List.of(taxes.get("high")))))
                .schedule(List.of(new TypedTerm(false, "rest", "0")))
                .build();
        DocumentId id = invoices.begin(draft);
        server.bean(Attachments.class).add(id, "plan.pdf", "%PDF-1.7\n%x".getBytes(StandardCharsets.US_ASCII));
        Document issued = invoices.issue(id, 1);
        byte[] ubl = server.bean(Formats.class).invoice(id);
        assertThat(OfficialRules.errors(ubl)).isEmpty();
        assertThat(new String(ubl, StandardCharsets.UTF_8)).contains("plan.pdf", "mimeCode=\"application/pdf\"");
        Formats.Imported imported = server.bean(Formats.class).importUbl(ubl);
        assertThat(imported.said()).isEmpty();
        Document read = invoices.invoice(imported.draftId());
        assertThat(read.totalMinor()).isEqualTo(issued.totalMinor());
        assertThat(read.clientId()).isEqualTo(plain);
        assertThat(invoices.typed(read).lines()).extracting(TypedLine::unit).containsExactly("", "h");
    }

    @Test(priority = 1)
    public void wrongTotalsAreShownAndNotSwallowed() {
        String ubl = new String(simple(), StandardCharsets.UTF_8)
                .replaceAll("(<cbc:PayableAmount currencyID=\"EUR\">)[0-9.]+", "$1999.99");
        Formats.Imported imported = server.bean(Formats.class).importUbl(ubl.getBytes(StandardCharsets.UTF_8));
        assertThat(imported.said()).containsExactly("The file states 999.99 as payable, its lines come to 12.10.");
    }

    @Test(priority = 1)
    public void theFilesDueDateAndItsRoundingAreTakenOrSaid() {
        String ubl = new String(simple(), StandardCharsets.UTF_8)
                .replaceFirst("<cbc:DueDate>[^<]*</cbc:DueDate>", "<cbc:DueDate>2028-05-04</cbc:DueDate>")
                .replaceFirst(
                        "<cbc:PayableAmount",
                        "<cbc:PayableRoundingAmount currencyID=\"EUR\">0.01</cbc:PayableRoundingAmount><cbc:PayableAmount")
                .replaceFirst("(<cbc:PayableAmount currencyID=\"EUR\">)[0-9.]+", "$112.11");
        Formats.Imported imported = server.bean(Formats.class).importUbl(ubl.getBytes(StandardCharsets.UTF_8));
        assertThat(imported.said()).singleElement().asString().contains("rounds what is to be paid by 0.01");
        InvoicesService invoices = server.bean(InvoicesService.class);
        assertThat(invoices.typed(invoices.invoice(imported.draftId())).schedule())
                .extracting(TypedTerm::days)
                .containsExactly("2028-05-04");
    }

    @Test(dataProvider = "bad", priority = 1)
    public void aFileThatCannotBeReadIsRefused(String from, String to, String says) {
        String ubl = new String(simple(), StandardCharsets.UTF_8).replaceFirst(from, to);
        assertThatThrownBy(() -> server.bean(Formats.class).importUbl(ubl.getBytes(StandardCharsets.UTF_8)))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining(says);
    }

    @DataProvider
    Object[][] bad() {
        String bomb = "<!DOCTYPE x [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;&a;&a;&a;&a;&a;&a;\">]><";
        return new Object[][] {
            {"<Invoice|<([a-z0-9]+:)?Invoice", bomb + "Invoice", "document type declaration"},
            {"(?s)<\\?xml.*", "<!DOCTYPE x SYSTEM \"file:///etc/passwd\"><x/>", "document type declaration"},
            {"(?s).*", "not xml", "cannot be read as XML"},
            {"(?s).*", "<html/>", "must be an invoice or a credit note in UBL 2.1"},
            {"<cbc:IssueDate>[^<]*", "<cbc:IssueDate>soon", "schema of UBL 2.1"},
            {"(<cac:ClassifiedTaxCategory>\\s*<cbc:ID>S</cbc:ID>\\s*<cbc:Percent>)21", "$119", "S 19%"},
            {"(<cac:ClassifiedTaxCategory>\\s*<cbc:ID>)S", "$1B", "none of S, Z, E, AE, K, G, O"},
        };
    }

    private byte[] simple() {
        return server.bean(Formats.class).invoice(issued(plain, "EUR", "", work("Work")));
    }

    private List<TypedLine> work(String what) {
        return List.of(new TypedLine(what, "1", "", "10", "", List.of(taxes.get("high"))));
    }

    /** Issues a plain invoice, due at once. @return its id */
    private DocumentId issued(ClientId client, String currency, String subject, List<TypedLine> lines) {
        TypedDraft draft = TypedDraft.in(currency)
                .client(client)
                .subject(subject)
                .supplyDate(server.bean(BusinessClock.class).today().toString())
                .lines(lines)
                .schedule(List.of(new TypedTerm(false, "rest", "0")))
                .build();
        InvoicesService invoices = server.bean(InvoicesService.class);
        return invoices.issue(invoices.begin(draft), 1).id();
    }
}
