package quill.server.paylinks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.ObedientProcessor;
import quill.server.Server;
import quill.server.cardorders.CardOrders;
import quill.server.clients.ClientsService;
import quill.server.common.ConflictException;
import quill.server.dispatch.Correspondence;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payments;
import quill.server.savedmethods.SavedMethods;

/** A card that is at hand, with no invoice behind it. */
public class CardAtHandTest {
    private ObedientProcessor processor;
    private Server server;
    private CardAtHand atHand;

    @BeforeMethod
    public void start() throws IOException {
        processor = new ObedientProcessor();
        server = new Server("--quill.processor.url=" + processor.url());
        server.setUp(LocalDate.of(2027, 3, 1));
        atHand = server.bean(CardAtHand.class);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        processor.close();
    }

    private static CardAtHand.TakeCard take(ClientId client, String name, String amount, String delivery) {
        return new CardAtHand.TakeCard(
                "at-hand-key-1",
                client,
                name,
                "",
                "Two bass strings",
                "EUR",
                amount,
                delivery,
                List.of("none"),
                Map.of("orderNumber", "T-17", "billingPostcode", "1000"),
                false,
                null);
    }

    private void paid(String address) {
        processor.pay(address.substring(address.lastIndexOf('/') + 1));
        server.bean(CardOrders.class).askAboutAll(() -> false);
    }

    @Test
    public void aCardByTelephoneIsBookedReceiptedAndInvoicedWithItsDelivery() {
        ClientId client = server.client("Telephone Client", true);
        String address = atHand.open(take(client, "", "49.00", "6.50"));
        assertThat(atHand.open(take(client, "", "49.00", "6.50")))
                .as("asked again, the page is the same")
                .isEqualTo(address);
        paid(address);
        var payment = server.bean(Payments.class).ofClient(client).get(0);
        assertThat(payment.amount().amount()).isEqualTo("55.50");
        assertThat(server.bean(Correspondence.class).ofClient(client, "")).hasSize(1);
        LinkViews.FromLink from = server.bean(LinkViews.class).from(1);
        assertThat(from.shown()).isFalse();
        assertThat(from.answers())
                .containsExactly(
                        new PaymentLink.FilledIn("Order number", "T-17"),
                        new PaymentLink.FilledIn("Postcode of the bill", "1000"));
        assertThat(server.bean(LinkViews.class).groups())
                .as("it is none of the business's links")
                .isEmpty();
        DocumentId draft = server.bean(LinkInvoicing.class).begin(payment.id());
        Document invoice = server.bean(InvoicesService.class).issue(draft, 1);
        assertThat(invoice.open().isZero()).isTrue();
        assertThat(server.bean(InvoicesService.class).document(invoice).body().lines())
                .extracting(l -> l.description())
                .containsExactly("Two bass strings", "Delivery");
    }

    /** Two strangers without an address of e-mail are two clients. */
    @Test
    public void somebodyNewWithoutAnAddressIsNobodyElse() {
        server.client("No Address", false);
        paid(atHand.open(take(null, "Somebody New", "10.00", "")));
        assertThat(server.bean(ClientsService.class).all())
                .extracting(c -> c.name())
                .containsExactly("No Address", "Somebody New");
    }

    @Test
    public void itIsKeptAsTheClientSaid() {
        SavedMethods methods = server.bean(SavedMethods.class);
        assertThat(catchThrowable(() -> atHand.open(keep("on the telephone"))))
                .as("nothing is kept before the business says so")
                .isInstanceOf(ConflictException.class);
        methods.change(new SavedMethods.SavedSetting(true, 14, 0));
        assertThat(((RefusedException) catchThrowable(() -> atHand.open(keep("")))).problems())
                .extracting(Problem::field)
                .containsExactly("keep.said");
        paid(atHand.open(keep("Yes, keep it, on the telephone at noon")));
        ClientId client = server.bean(ClientsService.class).all().get(0).id();
        assertThat(methods.ofClient(client)).singleElement().satisfies(m -> {
            assertThat(m.agreed().words()).contains("Said so: Yes, keep it", "at most €50.00 at a time");
            assertThat(m.agreed().agreement().collects()).isTrue();
        });
    }

    private static CardAtHand.TakeCard keep(String said) {
        return new CardAtHand.TakeCard(
                "at-hand-key-3",
                null,
                "Keeps A Card",
                "",
                "Two bass strings",
                "EUR",
                "10.00",
                "",
                List.of("none"),
                null,
                false,
                new CardAtHand.KeepAtHand(true, "50", said));
    }

    @Test
    public void whatIsWrongIsNamedFieldByField() {
        Throwable refused = catchThrowable(() -> atHand.open(new CardAtHand.TakeCard(
                "at-hand-key-2", null, " ", "no address", "", "EUR", "0", "-1", List.of("no tax"), null, false, null)));
        assertThat(((RefusedException) refused).problems())
                .extracting(Problem::field)
                .containsExactly("email", "name", "what", "amount", "delivery", "taxes");
        assertThat(processor.orders()).isZero();
    }
}
