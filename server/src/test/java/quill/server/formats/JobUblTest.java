package quill.server.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedExtra;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.document.TypedOffer;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.schedule.TypedTerm;
import quill.core.tax.TaxRounding;
import quill.official.OfficialRules;
import quill.server.Server;
import quill.server.creditnotes.Crediting;
import quill.server.documents.Document;
import quill.server.documents.Jobs;
import quill.server.invoices.InvoicesService;
import quill.server.payments.PaymentsService;
import quill.server.quotes.Answering;
import quill.server.quotes.QuoteInvoicing;
import quill.server.quotes.QuotesService;

/** Deposit invoices, stages, and final invoices that deduct them, as UBL against the official rules of EN 16931. */
public class JobUblTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private Server server;
    private ClientId client;
    private final List<String> taxes = new ArrayList<>();
    private int keys;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY);
        server.registered(TaxRounding.PER_TAX, "BE0123456789");
        taxes.add(server.tax("high", "21", "S", false, ""));
        taxes.add(server.tax("low", "6", "S", false, ""));
        taxes.add(server.tax("odd", "8.1", "S", false, ""));
        taxes.add(server.tax("zero", "0", "Z", false, ""));
        client = server.client("Ida Corrow", true);
        var clients = server.bean(quill.server.clients.ClientsService.class);
        var c = clients.client(client);
        clients.change(new quill.server.clients.Client(
                c.id(), c.name(), "", c.email(), "There 2\n9000 Elsewhere", "BE", "", "", null, c.more(), c.version()));
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private Document accepted(Random random) {
        List<TypedLine> lines = new ArrayList<>();
        for (int n = 1 + random.nextInt(4); n > 0; n--) {
            lines.add(new TypedLine(
                    "Line " + n,
                    String.valueOf(1 + random.nextInt(9)),
                    "h",
                    BigDecimal.valueOf(100 + random.nextInt(90_000), 2).toPlainString(),
                    random.nextInt(4) == 0 ? "10%" : "",
                    List.of(taxes.get(random.nextInt(taxes.size())))));
        }
        QuotesService quotes = server.bean(QuotesService.class);
        DocumentId id = quotes.begin(TypedDraft.in("EUR")
                .client(client)
                .subject("a restoration")
                .lines(lines)
                .discounts(random.nextInt(3) == 0 ? List.of(new TypedExtra("Loyal", "5%", List.of())) : List.of())
                .charges(
                        random.nextInt(3) == 0
                                ? List.of(new TypedExtra("Delivery", "30.00", List.of(taxes.get(0))))
                                : List.of())
                .taxInside(random.nextInt(3) == 0)
                .schedule(List.of(new TypedTerm(true, "40%", "0"), new TypedTerm(false, "rest", "30")))
                .offer(new TypedOffer("", ""))
                .build());
        Document quote = quotes.issue(id, 1);
        server.bean(Answering.class).acceptByHand(quote, new Answering.Acceptance("Ida, in person", List.of(), null));
        return quotes.quote(id);
    }

    private void pay(Document quote, long minor) {
        server.bean(PaymentsService.class)
                .record(new PaymentsService.Recorded(
                        "job-ubl-" + keys++,
                        client,
                        quote.id(),
                        "TRANSFER",
                        BigDecimal.valueOf(minor, 2).toPlainString(),
                        DAY.toString(),
                        ""));
    }

    private void bill(Document quote, String what) {
        InvoicesService invoices = server.bean(InvoicesService.class);
        DocumentId draft =
                server.bean(QuoteInvoicing.class).begin(quote.id(), new QuoteInvoicing.ToBill(what, "25", List.of()));
        invoices.issue(draft, 1);
    }

    @Test
    public void whatBillsAPartOfAJobKeepsTheOfficialRules() throws Exception {
        Random random = new Random(386);
        int documents = 0;
        for (int i = 0; i < 60; i++) {
            Document quote = accepted(random);
            if (i % 7 == 3) {
                // All of it comes ahead: the final invoice is of nothing.
                pay(quote, quote.totalMinor() / 2);
                pay(quote, quote.totalMinor() - quote.totalMinor() / 2);
            } else if (i % 4 != 0) {
                pay(quote, Math.max(1, quote.totalMinor() / 7));
                pay(quote, Math.max(1, quote.totalMinor() / 5));
            }
            if (i % 3 == 0 && i % 7 != 3) {
                bill(quote, "percent");
            }
            bill(quote, "rest");
            for (Jobs.Part part : server.bean(Jobs.class).billed(quote.id())) {
                byte[] ubl = server.bean(Formats.class).invoice(part.document().id());
                String text = new String(ubl, StandardCharsets.UTF_8);
                assertThat(OfficialRules.errors(ubl))
                        .as("job " + i + "\n" + text)
                        .isEmpty();
                assertThat(text.contains(">386<")).isEqualTo(part.isDeposit());
                if (part.said().job().earlier().size() > 0) {
                    assertThat(text).contains("<cac:BillingReference>");
                }
                documents++;
            }
            if (i % 10 == 5) {
                DocumentId deposit = server.bean(Jobs.class)
                        .billed(quote.id())
                        .get(0)
                        .document()
                        .id();
                server.bean(Crediting.class).write(deposit, Crediting.Wanted.rest("it falls through", false));
            }
        }
        assertThat(documents).isGreaterThan(120);
    }
}
