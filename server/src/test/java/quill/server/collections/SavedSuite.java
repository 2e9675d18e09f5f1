package quill.server.collections;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import java.util.Set;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.ObedientProcessor;
import quill.server.Server;
import quill.server.cardorders.CardOrders;
import quill.server.clearing.AskingAround;
import quill.server.debts.Debts;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payer;
import quill.server.payments.Payments;
import quill.server.savedmethods.SavedMethod;
import quill.server.savedmethods.SavedMethods;

/** Cards that clients let be kept, with a processor that says what each test wants. */
abstract class SavedSuite {
    protected static final LocalDate TODAY = LocalDate.of(2027, 3, 1);
    protected static final Money HUNDRED = Money.parse("EUR 100.00");
    protected ObedientProcessor processor;
    protected Server server;
    protected SavedMethods methods;
    protected SavedViews views;
    protected TakingFromSaved taking;
    protected PlannedPayments planned;
    protected MethodRequests requests;
    protected Keeping keeping;
    protected ClientId client;

    @BeforeMethod
    public void start() throws IOException {
        processor = new ObedientProcessor();
        server = new Server("--quill.processor.url=" + processor.url());
        server.setUp(TODAY);
        methods = server.bean(SavedMethods.class);
        views = server.bean(SavedViews.class);
        taking = server.bean(TakingFromSaved.class);
        planned = server.bean(PlannedPayments.class);
        requests = server.bean(MethodRequests.class);
        keeping = server.bean(Keeping.class);
        methods.change(new SavedMethods.SavedSetting(true, 14, 0));
        client = server.client("Keeps Cards", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        processor.close();
    }

    protected Document invoice(DocumentId id) {
        return server.bean(InvoicesService.class).invoice(id);
    }

    protected Document issue() {
        return invoice(server.issue(client, "100.00", "100%@3", null));
    }

    protected String open(Document invoice) {
        return invoice(invoice.id()).openMinor() / 100 + "."
                + "%02d".formatted(invoice(invoice.id()).openMinor() % 100);
    }

    protected List<Long> parts(Document invoice) {
        return server.bean(Debts.class).of(invoice.id()).stream()
                .map(d -> d.id())
                .toList();
    }

    protected void round() {
        server.bean(AskingAround.class).all(() -> false);
    }

    protected void day(int days) {
        server.moveTo(TODAY.plusDays(days), LocalTime.of(12, 0));
    }

    protected int payments() {
        return server.bean(Payments.class).ofClient(client).size();
    }

    protected static SavedViews.TypedKeep ticked(boolean collects, String most) {
        return new SavedViews.TypedKeep(collects, most);
    }

    /** Pays an invoice on the processor's page and lets the card be kept. */
    protected SavedMethod keep(boolean collects, String most) {
        Document invoice = issue();
        String address = server.bean(CardOrders.class)
                .payAt(
                        invoice,
                        Set.copyOf(parts(invoice)),
                        HUNDRED,
                        Payer.NONE,
                        views.onPage(invoice, ticked(collects, most), false));
        processor.pay(address.substring(address.lastIndexOf('/') + 1));
        round();
        assertThat(open(invoice)).isEqualTo("0.00");
        return methods.ofClient(client).get(0);
    }

    /** As the client, from what is kept of it. */
    protected CardOrders.Taken payFrom(Document invoice, SavedMethod kept) {
        return taking.pay(invoice, parts(invoice), HUNDRED, methods.usable(client, kept.id()), null);
    }
}
