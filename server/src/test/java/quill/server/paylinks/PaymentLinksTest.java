package quill.server.paylinks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.pay.LinkAmount;
import quill.server.ObedientProcessor;
import quill.server.Server;
import quill.server.books.BooksService;
import quill.server.cardorders.CardOrders;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.debts.OpenSums;
import quill.server.dispatch.Correspondence;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payment;
import quill.server.payments.Payments;

/** Payment links from their making to the invoice of what came, with a processor that says what each test wants. */
public class PaymentLinksTest {
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 1);
    private ObedientProcessor processor;
    private Server server;
    private PaymentLinks links;
    private LinkPaying paying;
    private LinkViews views;
    private int keys;

    @BeforeMethod
    public void start() throws IOException {
        processor = new ObedientProcessor();
        server = new Server("--quill.processor.url=" + processor.url());
        server.setUp(TODAY);
        links = server.bean(PaymentLinks.class);
        paying = server.bean(LinkPaying.class);
        views = server.bean(LinkViews.class);
        keys = 0;
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        processor.close();
    }

    private static LinkAmount.TypedLinkAmount fixed(String amount) {
        return new LinkAmount.TypedLinkAmount("EUR", false, amount, "", "");
    }

    private TypedPaymentLink typed(LinkAmount.TypedLinkAmount asks, boolean once, String endsOn) {
        return new TypedPaymentLink(
                "Tuning course",
                "Two evenings in the workshop",
                asks,
                List.of("none"),
                once,
                endsOn,
                "",
                List.of(),
                null,
                null,
                false,
                0);
    }

    private PaymentLink make(TypedPaymentLink typed) {
        return links.make("link-test-" + keys++, typed);
    }

    private PaymentLink course() {
        return make(typed(fixed("25.00"), false, ""));
    }

    private LinkPaying.PayLink by(String name, String amount) {
        return new LinkPaying.PayLink(
                "pay-test-" + keys++,
                amount,
                "EUR",
                name,
                name.replace(' ', '.').toLowerCase() + "@payers.example",
                Map.of(),
                false,
                null);
    }

    /** What the processor calls the order of an address. */
    private static String orderAt(String address) {
        return address.substring(address.lastIndexOf('/') + 1);
    }

    private void paid(String address) {
        processor.pay(orderAt(address));
        server.bean(CardOrders.class).askAboutAll(() -> false);
    }

    private String pay(PaymentLink link, String name) {
        String address = paying.begin(link.token(), by(name, "25.00"));
        paid(address);
        return address;
    }

    private List<Problem> problemsOf(Runnable act) {
        return ((RefusedException) catchThrowable(act::run)).problems();
    }

    @Test
    public void whoPaysBecomesAClientWithTheMoneyAndGetsAReceipt() {
        PaymentLink link = course();
        paying.begin(link.token(), by("Only Looked", "25.00"));
        assertThat(server.bean(ClientsService.class).all()).isEmpty();
        pay(link, "Petra Payer");
        Client payer = server.bean(ClientsService.class).all().get(0);
        assertThat(payer.name()).isEqualTo("Petra Payer");
        Payment payment = server.bean(Payments.class).ofClient(payer.id()).get(0);
        assertThat(payment.held()).isTrue();
        assertThat(payment.amount().amount()).isEqualTo("25.00");
        LinkViews.LinkRecord record = views.record(link.id());
        assertThat(record.words()).isEqualTo("paid once, €25.00");
        assertThat(record.paid()).singleElement().matches(p -> p.key().equals("payment-" + payment.id()));
        assertThat(record.state()).isEqualTo(PaymentLink.State.OPEN);
        var letters = server.bean(Correspondence.class).ofClient(payer.id(), "");
        assertThat(letters).singleElement().satisfies(m -> {
            assertThat(m.addresses().to()).isEqualTo("petra.payer@payers.example");
            assertThat(text(m.id()))
                    .contains("Your payment of €25.00 for “Tuning course” has arrived.")
                    .contains("Nothing is left to pay for it.")
                    .doesNotContain("null");
        });
        assertThat(server.bean(OpenSums.class).disagreeing()).isEmpty();
    }

    private String text(long message) {
        return server.jdbc()
                .sql("SELECT text FROM message_text WHERE message_id = :id")
                .param("id", message)
                .query(String.class)
                .single();
    }

    @Test
    public void aPayerWhoIsKnownIsFoundByTheAddressAndWhatElseIsOpenStaysOpen() {
        ClientId known = server.client("Petra Payer", true);
        String email = server.bean(ClientsService.class).client(known).email();
        DocumentId invoice = server.issue(known, "100.00", "rest@30", null);
        PaymentLink link = course();
        String address = paying.begin(
                link.token(),
                new LinkPaying.PayLink(
                        "pay-known-1", "25.00", "EUR", "P. Payer", email.toUpperCase(), Map.of(), false, null));
        paid(address);
        assertThat(server.bean(ClientsService.class).all()).hasSize(1);
        assertThat(server.bean(Payments.class).ofClient(known)).hasSize(1);
        Document open = server.bean(Documents.class).find(invoice).orElseThrow();
        assertThat(open.open().getAmount()).isEqualByComparingTo("100.00");
    }

    @Test
    public void whatCameBecomesAnInvoiceThatIsPaid() {
        PaymentLink link = course();
        pay(link, "Petra Payer");
        ClientId payer = server.bean(ClientsService.class).all().get(0).id();
        long payment = server.bean(Payments.class).ofClient(payer).get(0).id();
        LinkInvoicing invoicing = server.bean(LinkInvoicing.class);
        DocumentId draft = invoicing.begin(payment);
        assertThat(invoicing.begin(payment)).as("once").isEqualTo(draft);
        Document invoice = server.bean(InvoicesService.class).issue(draft, 1);
        assertThat(invoice.open().isZero()).isTrue();
        assertThat(server.bean(Documents.class)
                        .issued(invoice)
                        .sums()
                        .total()
                        .amount()
                        .getAmount())
                .isEqualByComparingTo("25.00");
        assertThat(views.record(link.id()).paid().get(0).invoiceNumber()).isEqualTo(invoice.number());
        assertThat(server.bean(BooksService.class)
                        .creditOf(payer, CurrencyUnit.EUR)
                        .isZero())
                .isTrue();
        assertThat(server.bean(OpenSums.class).disagreeing()).isEmpty();
    }

    @Test
    public void theSameRequestIsTheSamePaymentAndAnotherOneIsRefused() {
        PaymentLink link = course();
        LinkPaying.PayLink one = by("Petra Payer", "25.00");
        assertThat(paying.begin(link.token(), one)).isEqualTo(paying.begin(link.token(), one));
        assertThatThrownBy(() -> paying.begin(
                        link.token(),
                        new LinkPaying.PayLink(one.key(), "25.00", "EUR", "Other", one.email(), Map.of(), false, null)))
                .isInstanceOf(ConflictException.class);
        assertThat(processor.orders()).isEqualTo(1);
    }

    @Test
    public void whatIsPaidOnceIsPaidOnce() {
        PaymentLink link = make(typed(fixed("25.00"), true, ""));
        LinkPaying.PayLink first = by("First", "25.00");
        String address = paying.begin(link.token(), first);
        assertThatThrownBy(() -> paying.begin(link.token(), by("Second", "25.00")))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("just now");
        leftForLong();
        String second = paying.begin(link.token(), by("Third", "25.00"));
        assertThat(processor.state(orderAt(address))).isEqualTo("withdrawn");
        paid(second);
        assertThatThrownBy(() -> paying.begin(link.token(), by("Fourth", "25.00")))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("paid already");
        assertThat(links.state(links.find(link.id()))).isEqualTo(PaymentLink.State.PAID);
    }

    /** Whoever began first paid at the last moment: nobody pays beside it. */
    @Test
    public void whatWasPaidMeanwhileIsNotPaidAgain() {
        PaymentLink link = make(typed(fixed("25.00"), true, ""));
        String address = paying.begin(link.token(), by("First", "25.00"));
        leftForLong();
        processor.pay(orderAt(address));
        assertThatThrownBy(() -> paying.begin(link.token(), by("Second", "25.00")))
                .isInstanceOf(ConflictException.class);
        assertThat(views.record(link.id()).times()).isEqualTo(1);
        assertThat(processor.orders()).isEqualTo(1);
    }

    /** The processor says that it withdrew the first, and takes its money all the same: both are there, and a person is told. */
    @Test
    public void moneyThatComesASecondTimeWaitsForAPerson() {
        PaymentLink link = make(typed(fixed("25.00"), true, ""));
        String first = paying.begin(link.token(), by("First", "25.00"));
        leftForLong();
        String second = paying.begin(link.token(), by("Second", "25.00"));
        paid(second);
        server.jdbc()
                .sql("UPDATE processor_order SET state = 'withdrawing' WHERE order_id = :id")
                .param("id", orderAt(first))
                .update();
        paid(first);
        assertThat(views.record(link.id()).times()).isEqualTo(2);
        assertThat(server.bean(Payments.class).unexpected()).singleElement().matches(Payment::held);
    }

    private void leftForLong() {
        server.jdbc()
                .sql("UPDATE processor_order SET made_at = DATEADD('MINUTE', -11, made_at)")
                .update();
    }

    @Test
    public void aClosedOrEndedLinkTakesNothingAndWhatWasBegunIsWithdrawn() {
        PaymentLink link = make(typed(fixed("25.00"), false, "2027-03-02"));
        String begun = paying.begin(link.token(), by("Petra", "25.00"));
        PaymentLink closed = links.close(link.id(), link.version(), true);
        server.bean(CardOrders.class).askAboutAll(() -> false);
        assertThat(processor.state(orderAt(begun))).isEqualTo("withdrawn");
        assertThatThrownBy(() -> paying.begin(link.token(), by("Late", "25.00")))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("takes no payments any more");
        assertThatThrownBy(() -> links.close(link.id(), link.version(), false)).isInstanceOf(ConflictException.class);
        links.close(link.id(), closed.version(), false);
        paying.begin(link.token(), by("In Time", "25.00"));
        server.moveTo(LocalDate.of(2027, 3, 3), java.time.LocalTime.NOON);
        assertThatThrownBy(() -> paying.begin(link.token(), by("Too Late", "25.00")))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("until 2 March 2027");
    }

    @DataProvider
    public Object[][] tampered() {
        return new Object[][] {
            {"24.99", "EUR", "amount"},
            {"25.00", "USD", "currency"},
            {"0", "EUR", "amount"},
            {"-1", "EUR", "amount"},
            {"25.001", "EUR", "amount"},
            {"1000000000000000", "EUR", "amount"},
            {null, null, "currency"},
        };
    }

    @Test(dataProvider = "tampered")
    public void anAmountThatIsNotAskedForIsRefused(String amount, String currency, String field) {
        PaymentLink link = course();
        assertThat(problemsOf(() -> paying.begin(
                        link.token(),
                        new LinkPaying.PayLink(
                                "pay-tampered", amount, currency, "P", "p@p.example", Map.of(), false, null))))
                .extracting(Problem::field)
                .containsExactly(field);
        assertThat(processor.orders()).isZero();
    }

    @Test
    public void whatIsNeededIsAskedForFieldByField() {
        PaymentLink link = make(new TypedPaymentLink(
                "Course",
                "",
                new LinkAmount.TypedLinkAmount("EUR", true, "", "5", "50"),
                List.of("none"),
                false,
                "",
                "No refunds after the first evening.",
                List.of(new PaymentLink.LinkField("Instrument", true), new PaymentLink.LinkField("Remarks", false)),
                null,
                null,
                false,
                0));
        assertThat(problemsOf(() -> paying.begin(
                        link.token(),
                        new LinkPaying.PayLink("pay-needed-1", "51", "EUR", " ", "no address", Map.of(), false, null))))
                .extracting(Problem::field)
                .containsExactly("amount", "name", "email", "answers.Instrument", "agreed");
        paid(paying.begin(
                link.token(),
                new LinkPaying.PayLink(
                        "pay-needed-2",
                        "12.50",
                        "EUR",
                        "Petra",
                        "p@payers.example",
                        Map.of("Instrument", "upright", "Unasked", "x"),
                        true,
                        null)));
        LinkViews.PaidByLink paid = views.record(link.id()).paid().get(0);
        assertThat(paid.answers()).containsExactly(new PaymentLink.FilledIn("Instrument", "upright"));
        assertThat(paid.amount().amount()).isEqualTo("12.50");
    }

    @Test
    public void aLinkIsRefusedFieldByFieldAndChangedOnce() {
        assertThat(problemsOf(() -> make(new TypedPaymentLink(
                        " ",
                        null,
                        fixed("0"),
                        List.of("no such tax"),
                        false,
                        "2027-02-28",
                        null,
                        List.of(new PaymentLink.LinkField("A", true), new PaymentLink.LinkField("A", true)),
                        new PaymentLink.AfterPaying("", "http://club.example"),
                        null,
                        false,
                        0))))
                .extracting(Problem::field)
                .containsExactly("title", "asks.amount", "taxes", "endsOn", "fields", "after.onward");
        PaymentLink link = course();
        TypedPaymentLink dearer = new TypedPaymentLink(
                "Course", "", fixed("30.00"), List.of(), false, "", "", List.of(), null, null, false, link.version());
        String begun = paying.begin(link.token(), by("Petra", "25.00"));
        links.change(link.id(), dearer);
        assertThatThrownBy(() -> links.change(link.id(), dearer)).isInstanceOf(ConflictException.class);
        server.bean(CardOrders.class).askAboutAll(() -> false);
        assertThat(processor.state(orderAt(begun)))
                .as("nobody pays the old price any more")
                .isEqualTo("withdrawn");
        assertThat(problemsOf(() -> paying.begin(link.token(), by("Late", "25.00")))
                        .get(0)
                        .message())
                .contains("must be 30.00");
    }

    @Test
    public void anAddressThatNobodyMadeLeadsNowhere() {
        assertThatThrownBy(() -> paying.begin("no-such-token", by("P", "25.00")))
                .isInstanceOf(NotFoundException.class);
        assertThatThrownBy(() -> paying.begunBy(course(), "no-such-payer")).isInstanceOf(NotFoundException.class);
    }
}
