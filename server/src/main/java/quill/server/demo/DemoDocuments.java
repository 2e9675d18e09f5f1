package quill.server.demo;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedExtra;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.schedule.TypedTerm;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.creditnotes.Crediting;
import quill.server.dispatch.CreditLetters;
import quill.server.dispatch.DispatchService;
import quill.server.dispatch.Withdrawals;
import quill.server.documents.Attachments;
import quill.server.invoices.InvoicesService;
import quill.server.payments.PaymentsService;

/** The invoices of the demo that are not of the everyday kind, each for a client of its own. */
@Component
class DemoDocuments {
    private final CreditLetters letters;
    private final ClientsService clients;
    private final InvoicesService invoices;
    private final Attachments attachments;
    private final DispatchService dispatch;
    private final Withdrawals withdrawals;
    private final PaymentsService payments;
    private final BusinessClock clock;

    private Map<String, String> taxes = Map.of();

    DemoDocuments(
            CreditLetters letters,
            ClientsService clients,
            InvoicesService invoices,
            Attachments attachments,
            DispatchService dispatch,
            Withdrawals withdrawals,
            PaymentsService payments,
            BusinessClock clock) {
        this.letters = letters;
        this.clients = clients;
        this.invoices = invoices;
        this.attachments = attachments;
        this.dispatch = dispatch;
        this.withdrawals = withdrawals;
        this.payments = payments;
        this.clock = clock;
    }

    /** One of the invoices with a story. @param taxes ids by rate, or by category */
    void play(String what, Map<String, String> taxes) {
        this.taxes = taxes;
        switch (what) {
            case "organ" -> organ();
            case "infirmary" -> infirmary();
            case "lessons" -> lessons();
            case "fair" -> fair();
            case "mistake" -> mistake();
            case "recital" -> recital();
            case "harbour" -> harbour();
            default -> throw new IllegalArgumentException(what);
        }
    }

    private ClientId client(
            String name, String email, String address, String country, String number, String certificate) {
        LocalDate until = certificate.isEmpty() ? null : LocalDate.of(2027, 8, 31);
        return clients.make(new Client(ClientId.NEW, name, "", email, address, country, number, certificate, until, 1))
                .id();
    }

    private TypedDraft draft(
            ClientId client,
            String subject,
            List<TypedLine> lines,
            List<TypedExtra> discounts,
            List<TypedExtra> charges,
            String prepaid,
            String days) {
        return TypedDraft.in("EUR")
                .client(client)
                .subject(subject)
                .supplyDate(clock.today().toString())
                .lines(lines)
                .discounts(discounts)
                .charges(charges)
                .prepaid(prepaid)
                .schedule(List.of(new TypedTerm(false, "rest", days)))
                .build();
    }

    private TypedLine line(String what, String quantity, String unit, String price, String tax) {
        return new TypedLine(
                what,
                quantity,
                unit,
                price,
                "",
                List.of(taxes.get(tax)),
                null,
                null,
                null,
                DemoCatalogue.categoryOf(what));
    }

    private void paid(ClientId client, DocumentId invoice, String way, String amount) {
        payments.record(new PaymentsService.Recorded(
                "demo-whole-" + invoice,
                client,
                invoice,
                way,
                amount,
                clock.today().toString(),
                ""));
    }

    /** A workshop in another country of the Union: the tax is its own affair. */
    private void organ() {
        ClientId client = client(
                "Werkstatt Lindenau", "rechnung@lindenau.example", "Am Kanal 3\nLindenau", "DE", "DE000111222", "");
        TypedDraft draft = draft(
                client,
                "felting of six dampers sets",
                List.of(line("Damper set, felted", "6", "", "184.50", "AE"), line("Packing", "2", "h", "68.00", "AE")),
                List.of(),
                List.of(new TypedExtra("Carriage", "46.00", List.of(taxes.get("AE")))),
                "",
                "30");
        DocumentId id = invoices.begin(draft);
        dispatch.issueAndSend(id, 1);
        paid(client, id, "TRANSFER", "1289.00");
    }

    /** Pays no tax by its certificate; a discount on the whole, and a line of it taken back. */
    private void infirmary() {
        ClientId client = client(
                "Larkmoor Infirmary", "purchase@infirmary.example", "Ward Street 1\nLarkmoor", "BE", "", "FS 2214-B");
        TypedDraft draft = draft(
                client,
                "day room pianos",
                List.of(
                        line("Tuning, day room upright", "3", "", "74.00", "21"),
                        line("Castors with brakes", "9", "", "21.40", "21")),
                List.of(new TypedExtra("For a good house", "5%", List.of())),
                List.of(new TypedExtra("Carriage", "12.50", List.of(taxes.get("21")))),
                "",
                "30");
        DocumentId id = invoices.begin(draft);
        dispatch.issueAndSend(id, 1);
        letters.credit(
                id,
                new Crediting.Wanted(
                        "lines",
                        "three castors were not fitted",
                        List.of(new Crediting.TypedPart(1, "3")),
                        List.of(),
                        "",
                        false));
        paid(client, id, "TRANSFER", "345.38");
    }

    /** A deposit held for lessons, deducted from their invoice as paid before; a file goes along. */
    private void lessons() {
        ClientId client = client("Ida Corrow", "ida@corrow.example", "Mill Street 12\nPellworth", "BE", "", "");
        payments.record(new PaymentsService.Recorded(
                "demo-deposit-lessons",
                client,
                null,
                "TRANSFER",
                "EUR",
                "100.00",
                clock.today().toString(),
                "",
                true));
        TypedDraft draft = draft(
                client,
                "a course in keeping one’s own piano",
                List.of(line("Course, evenings", "4", "", "65.00", "E"), line("Method book", "1", "", "9.00", "6")),
                List.of(),
                List.of(),
                "100.00",
                "14");
        DocumentId id = invoices.begin(draft);
        attachments.add(id, "evenings.csv", "evening,what\n1,dust\n2,damp\n".getBytes(StandardCharsets.UTF_8));
        dispatch.issueAndSend(id, 1);
        paid(client, id, "TRANSFER", "169.54");
    }

    /** Paid in cash, so that what is due is rounded to five cents. */
    private void fair() {
        ClientId client = client("Pellworth Spring Fair", "", "The Green\nPellworth", "BE", "", "");
        TypedDraft draft = draft(
                client,
                "street piano for a day",
                List.of(line("Hire, day", "1", "", "40.36", "21")),
                List.of(),
                List.of(),
                "",
                "0");
        TypedDraft cash = TypedDraft.in("EUR")
                .client(client)
                .subject(draft.subject())
                .supplyDate(draft.supplyDate())
                .cash(true)
                .lines(draft.lines())
                .schedule(draft.schedule())
                .fields(Map.of("Instrument", "Street piano"))
                .build();
        DocumentId id = invoices.begin(cash);
        invoices.issue(id, 1);
        paid(client, id, "CASH", "48.85");
    }

    /** Issued for the wrong client, never sent, and voided: its number stays. */
    private void mistake() {
        ClientId client = clients.all().stream()
                .filter(c -> c.name().equals("Westerby Town Band"))
                .findFirst()
                .orElseThrow()
                .id();
        DocumentId id = invoices.begin(draft(
                client, "tuning", List.of(line("Tuning", "1", "", "74.00", "21")), List.of(), List.of(), "", "14"));
        invoices.issue(id, 1);
        withdrawals.voidIt(id, "written for the wrong client");
    }

    /** In pounds, outside the Union: paid by transfer at a later rate. */
    private void recital() {
        ClientId client = client(
                "Saltmarsh Recital Rooms",
                "desk@saltmarsh.example",
                "Staithe Lane 5\nSaltmarsh",
                "GB",
                "GB000333444",
                "");
        DocumentId id = pounds(client, "bass strings for a recital grand", "Bass string, wound by hand", "22", "21.30");
        paid(client, id, "TRANSFER", "468.60");
    }

    /** In pounds, still open. */
    private void harbour() {
        ClientId client =
                client("Harbour Hall Trust", "clerk@harbourhall.example", "Pier Head\nWellsand", "GB", "", "");
        pounds(client, "hammer set for the hall’s grand", "Hammer set, refelted", "1", "865.00");
    }

    private DocumentId pounds(ClientId client, String subject, String what, String quantity, String price) {
        TypedDraft draft = TypedDraft.in("GBP")
                .client(client)
                .subject(subject)
                .reference("PO 5512")
                .project("Spring season")
                .supplyDate(clock.today().toString())
                .lines(List.of(line(what, quantity, "", price, "G")))
                .schedule(List.of(new TypedTerm(false, "rest", "30")))
                .build();
        DocumentId id = invoices.begin(draft);
        dispatch.issueAndSend(id, 1);
        return id;
    }
}
