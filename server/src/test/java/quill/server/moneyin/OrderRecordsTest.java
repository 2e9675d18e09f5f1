package quill.server.moneyin;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.LocalDate;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.id.DocumentId;
import quill.server.ObedientProcessor;
import quill.server.Server;
import quill.server.cardorders.CardOrders;
import quill.server.dispatch.DocumentWays;

/** The record of an order that stays open on a screen while its order goes on. */
public class OrderRecordsTest {
    private ObedientProcessor processor;
    private Server server;
    private DocumentId invoice;

    @BeforeMethod
    public void start() throws IOException {
        processor = new ObedientProcessor();
        server = new Server("--quill.processor.url=" + processor.url());
        server.setUp(LocalDate.of(2027, 3, 1));
        invoice = server.issue(server.client("Orla Finch", true), "100.00", "100%@3", null);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        processor.close();
    }

    private MoneyRecord record() {
        return server.bean(MoneyRecords.class)
                .ofOrder(server.jdbc()
                        .sql("SELECT id FROM processor_order")
                        .query(Long.class)
                        .single());
    }

    private String begun() {
        server.beginToPay(invoice, "EUR 100.00");
        return server.jdbc()
                .sql("SELECT order_id FROM processor_order")
                .query(String.class)
                .single();
    }

    private void ask() {
        server.bean(CardOrders.class).askAboutAll(() -> false);
    }

    @Test
    public void onceItIsPaidItIsThePayment() {
        String order = begun();
        assertThat(record().state()).isEqualTo(MoneyRow.State.GIVEN_UP);
        assertThat(record().begun()).contains("Nothing was taken");
        processor.pay(order);
        ask();
        assertThat(record().key()).startsWith("payment-");
        assertThat(record().state()).isEqualTo(MoneyRow.State.ARRIVED);
        assertThat(record().settled()).hasSize(1);
    }

    @Test
    public void whatWasHeldAndLetGoDoesNotSayThatNobodyPaid() {
        server.bean(DocumentWays.class).hold(invoice, true);
        String order = begun();
        processor.hold(order);
        ask();
        assertThat(record().begun()).contains("It is held on the test card ending 0019 until 8 March 2027.");
        processor.letGo(order);
        ask();
        assertThat(record().begun())
                .isEqualTo("What the test card ending 0019 held is held no more: it was let go, or its days were over."
                        + " Nothing was taken.");
    }
}
