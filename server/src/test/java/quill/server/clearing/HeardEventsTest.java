package quill.server.clearing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.BookingProcessor;
import quill.server.Server;
import quill.server.common.Changes;
import quill.server.payments.Payment;
import quill.server.payments.PaymentRefunds;
import quill.server.payments.Payments;
import quill.server.processor.CardProcessor;
import quill.server.processor.ProcessorAdapter;
import quill.server.processor.Processors;

/** An event is a hint to read on: what it is about is read before it counts as heard, and whoever looks is told. */
public class HeardEventsTest {
    private BookingProcessor processor;
    private Server server;
    private ClientId client;
    private DocumentId invoice;

    @BeforeMethod
    public void start() throws IOException {
        processor = new BookingProcessor();
        server = new Server("--quill.processor.url=" + processor.url());
        server.setUp(LocalDate.of(2027, 3, 1));
        client = server.client("Heard Of", true);
        invoice = server.issue(client, "100.00", "rest@30", null);
        server.beginToPay(invoice, "EUR 100.00");
        processor.pay(processor.orders().iterator().next());
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        processor.close();
    }

    /** Else an event that met a processor in trouble would be lost: its processor counts it as taken. */
    @Test
    public void anEventWhoseAccountCannotBeReadComesAgain() {
        hear("event-1");
        processor.contest(processor.orders().iterator().next());
        processor.fallDumb(true);
        assertThatThrownBy(() -> hear("event-2")).isInstanceOf(CardProcessor.NoAnswer.class);
        assertThat(entries()).isZero();
        processor.fallDumb(false);
        hear("event-2");
        assertThat(entries()).isEqualTo(2);
        hear("event-2");
        assertThat(entries()).isEqualTo(2);
    }

    /** Many payments at once are booked at once, and proved together a moment later. */
    @Test
    public void anAccountIsReadSoonAfterAPayment() {
        AccountReading reading = server.bean(AccountReading.class);
        reading.readSoon(() -> false);
        assertThat(entries()).as("nothing was heard of yet").isZero();
        hear("event-1");
        assertThat(payments()).hasSize(1);
        assertThat(entries()).isZero();
        reading.readSoon(() -> true);
        assertThat(entries()).as("its time is over").isZero();
        List<Changes.Change> told = new CopyOnWriteArrayList<>();
        server.listen(Changes.Change.class, told::add);
        reading.readSoon(() -> false);
        assertThat(entries()).isEqualTo(1);
        assertThat(told)
                .as("whoever looks at what is to come")
                .containsExactly(new Changes.Change(invoice, client, false));
        processor.contest(processor.orders().iterator().next());
        reading.readSoon(() -> false);
        assertThat(entries()).as("of this nothing was heard").isEqualTo(1);
        hear("event-2");
        assertThat(entries()).as("an event about what is paid already").isEqualTo(2);
    }

    /** Nobody sends that event again: the next round reads what could not be read. */
    @Test
    public void anAccountThatCannotBeReadSoonIsReadWithAllOthers() {
        AccountReading reading = server.bean(AccountReading.class);
        hear("event-1");
        processor.fallDumb(true);
        reading.readSoon(() -> false);
        processor.fallDumb(false);
        assertThat(entries()).isZero();
        reading.askAboutAll(() -> false);
        assertThat(entries()).isEqualTo(1);
    }

    /** The record of a payment says that its refund is being sent until the processor has sent it. */
    @Test
    public void whoLooksAtAPaymentIsToldThatItsRefundHasGone() {
        hear("event-1");
        Payment paid = payments().get(0);
        server.bean(RefundOrders.class)
                .give(new PaymentRefunds.Given("gone-1-1-1", paid.id(), "", "40.00", "", "", true, false));
        List<Changes.Change> told = new CopyOnWriteArrayList<>();
        server.listen(Changes.Change.class, told::add);
        processor.sendBack(true);
        hear("event-2");
        assertThat(server.bean(RefundOrders.class).of(paid.id()))
                .extracting(RefundOrders.GoingBack::state)
                .containsExactly(RefundState.GONE);
        assertThat(told)
                .anySatisfy(change -> assertThat(change.clientId()).isEqualTo(client))
                .anySatisfy(change -> assertThat(change.invoiceId()).isEqualTo(invoice));
    }

    private List<Payment> payments() {
        return server.bean(Payments.class).ofClient(client);
    }

    private void hear(String id) {
        long at = server.bean(Processors.class).ids().iterator().next();
        server.bean(AccountReading.class)
                .heard(new Processors.Heard(
                        at,
                        new ProcessorAdapter.Heard(
                                id, processor.orders().iterator().next())));
    }

    private long entries() {
        return server.jdbc()
                .sql("SELECT COUNT(*) FROM processor_entry")
                .query(Long.class)
                .single();
    }
}
