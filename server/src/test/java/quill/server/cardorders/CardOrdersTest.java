package quill.server.cardorders;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.acts.ActKind;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.OwnPort;
import quill.server.Server;
import quill.server.common.ConflictException;
import quill.server.dailyrun.DailyRun;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payments;

/** Orders at a processor that answers as each test wants, and what they mean for reminders and fees. */
public class CardOrdersTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private final Map<String, String> states = new ConcurrentHashMap<>();

    private HttpServer processor;
    private Server server;
    private CardOrders orders;
    private ClientId client;
    private DocumentId invoice;

    @BeforeMethod
    public void start() throws IOException {
        states.clear();
        processor = HttpServer.create(OwnPort.at("processor"), 0);
        processor.createContext("/api/orders", exchange -> {
            String path = exchange.getRequestURI().getPath();
            String key = exchange.getRequestHeaders().getFirst("Idempotency-Key");
            String id = key != null ? key : path.split("/")[3];
            if (path.endsWith("/withdrawal") && !"paid".equals(states.get(id))) {
                states.put(id, "withdrawn");
            }
            String state = states.computeIfAbsent(id, k -> "open");
            byte[] body = answer(id, state).getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().add("Content-Type", "application/json");
            exchange.sendResponseHeaders(200, body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        processor.start();
        server = new Server("--quill.processor.url=http://127.0.0.1:"
                + processor.getAddress().getPort());
        server.setUp(BEGIN);
        orders = server.bean(CardOrders.class);
        server.bean(DailyRun.class).catchUp();
        client = server.client("Card Holder", true);
        invoice = server.issue(client, "100.00", "100%@3", null);
    }

    private String answer(String id, String state) {
        boolean paid = state.equals("paid") || state.equals("odd");
        String outcome =
                state.equals("declined") ? "not enough funds" : state.equals("about to be paid") ? "approved" : "";
        String attempts = outcome.isEmpty() ? "[]" : "[{\"lastFour\":\"0026\",\"outcome\":\"" + outcome + "\"}]";
        return """
                {"id":"%s","state":"%s","amount":"100.00","currency":"EUR","payAt":"http://localhost/pay/%s",
                 "paid":%s,"with":%s,"test":false,"attempts":%s}
                """.formatted(
                id,
                !outcome.isEmpty() ? "open" : paid ? "paid" : state,
                id,
                paid
                        ? "{\"payment\":\"pay-%s\",\"on\":\"2027-03-04\",\"amount\":\"%s\",\"fee\":\"3.20\"}"
                                .formatted(id, state.equals("odd") ? "100.005" : "100.00")
                        : "null",
                paid ? "{\"way\":\"card\",\"name\":\"Test card\",\"lastFour\":\"0019\",\"expiry\":\"09/29\"}" : "null",
                attempts);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        processor.stop(0);
    }

    @Test
    public void aPaidOrderIsBookedOnceWithItsFee() {
        order();
        states.replaceAll((id, s) -> "paid");
        orders.askAboutAll(() -> false);
        orders.askAboutAll(() -> false);
        assertThat(open()).isEqualTo("0.00");
        assertThat(count("movement")).isEqualTo(1);
        assertThat(server.jdbc()
                        .sql("SELECT COUNT(*) FROM journal_entry WHERE event = 'PROCESSING_FEE'")
                        .query(Integer.class)
                        .single())
                .isEqualTo(1);
    }

    /** The processor answers between the attempt and the order: nothing was declined. */
    @Test
    public void aCardThatIsTakenJustNowWasNotDeclined() {
        order();
        states.replaceAll((id, s) -> "about to be paid");
        orders.askAboutAll(() -> false);
        assertThat(orders.declinedOn(invoice)).isEmpty();
        assertThat(count("happening WHERE what LIKE 'Card declined%'")).isZero();
    }

    @Test
    public void theSameQuestionFindsTheSameOrder() {
        assertThat(order()).isEqualTo(order());
        assertThat(states).hasSize(1);
    }

    @Test
    public void anOldAmountIsRefusedAndSaysWhatIsOpen() {
        server.pay(client, invoice, "40.00", BEGIN);
        assertThatThrownBy(() -> orders.payAt(stored(), ids(), Money.parse("EUR 100.00")))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("60.00 now, not 100.00");
    }

    @Test
    public void moneyThatMayBeOnItsWayIsNotRemindedOf() {
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(8, 50));
        order();
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(server.bean(OrdersInTransit.class).inTransit(Set.of(client)).keySet())
                .isEqualTo(ids());
        assertThat(run().of(ActKind.REMINDER)).isZero();
    }

    @Test
    public void anOrderThatThePayerLeftIsNoMoneyOnItsWay() {
        order();
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(run().of(ActKind.REMINDER)).isEqualTo(1);
        assertThat(server.bean(OrdersInTransit.class).inTransit(Set.of(client))).isEmpty();
    }

    @Test
    public void aProcessorThatDoesNotAnswerProtectsThePayer() {
        order();
        processor.stop(0);
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(run().of(ActKind.REMINDER)).isZero();
        assertThat(server.bean(OrdersInTransit.class).inTransit(Set.of(client)).keySet())
                .isEqualTo(ids());
    }

    @Test
    public void theRunAsksBeforeItReminds() {
        order();
        states.replaceAll((id, s) -> "paid"); // and its event was lost
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(run().of(ActKind.REMINDER)).isZero();
        assertThat(open()).isEqualTo("0.00");
    }

    @Test
    public void aDeclinedCardIsToldOnceAndTheDebtStaysDue() {
        order();
        states.replaceAll((id, s) -> "declined");
        orders.askAboutAll(() -> false);
        orders.askAboutAll(() -> false);
        assertThat(orders.declinedOn(invoice)).contains("not enough funds");
        assertThat(server.jdbc()
                        .sql("SELECT COUNT(*) FROM happening WHERE what LIKE 'Card declined%'")
                        .query(Integer.class)
                        .single())
                .isEqualTo(1);
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(run().of(ActKind.REMINDER)).isEqualTo(1);
    }

    @Test
    public void anOrderForAnotherSumIsWithdrawn() {
        order();
        server.pay(client, invoice, "30.00", BEGIN);
        orders.askAboutAll(() -> false);
        assertThat(states.values()).containsOnly("withdrawn");
        assertThat(server.jdbc()
                        .sql("SELECT state FROM processor_order")
                        .query(String.class)
                        .single())
                .isEqualTo("withdrawn");
    }

    /** 121.00 by card while 1.00 came otherwise: 120.00 settles what is open, 1.00 is credit, and the letter says so. */
    @Test
    public void moneyForAnOrderSettlesWhatIsOpenAndOnlyTheRestIsCredit() {
        order();
        server.pay(client, invoice, "1.00", BEGIN);
        states.replaceAll((id, s) -> "paid");
        orders.askAboutAll(() -> false);
        assertThat(open()).isEqualTo("0.00");
        assertThat(credit()).isEqualTo("EUR 1.00");
        String letter = server.jdbc()
                .sql("SELECT text FROM message_text ORDER BY message_id DESC LIMIT 1")
                .query(String.class)
                .single();
        assertThat(letter)
                .contains("This invoice is settled. €1.00 was not needed and is held as credit")
                .doesNotContain("Nothing was open")
                .doesNotContain("still to pay");
        assertThat(server.bean(Payments.class).unexpected()).hasSize(1);
    }

    /** What an order leaves over settles what else the client owes at once. */
    @Test
    public void whatIsLeftOverSettlesWhatElseIsOpen() {
        order();
        DocumentId other = server.issue(client, "30.00", "100%@3", null);
        server.pay(client, invoice, "20.00", BEGIN);
        states.replaceAll((id, s) -> "paid");
        orders.askAboutAll(() -> false);
        assertThat(open()).isEqualTo("0.00");
        assertThat(server.bean(InvoicesService.class).invoice(other).openMinor())
                .isEqualTo(1000);
        assertThat(credit()).isEqualTo("EUR 0.00");
        assertThat(server.bean(Payments.class).unexpected()).isEmpty();
    }

    @Test
    public void atMostFiveOrdersOfALinkCanBePaidAtOnce() {
        DocumentId many = server.issue(client, "70.00", "10%@1 10%@2 10%@3 10%@4 10%@5 10%@6 40%@7", null);
        Document link = server.bean(InvoicesService.class).invoice(many);
        List<StoredInstallment> parts = server.bean(Debts.class).of(many);
        for (StoredInstallment part : parts) {
            orders.payAt(link, Set.of(part.id()), part.open());
        }
        assertThat(count("processor_order WHERE state = 'open'")).isEqualTo(5);
        orders.askAboutAll(() -> false);
        assertThat(count("processor_order WHERE state = 'withdrawn'")).isEqualTo(2);
    }

    @Test
    public void thePollBeginsWithWhoWasAskedLongestAgoAndReachesAll() {
        List<DocumentId> seen = new java.util.ArrayList<>();
        for (int i = 0; i < 3; i++) {
            DocumentId each = server.issue(client, "100.00", "100%@3", null);
            StoredInstallment part = server.bean(Debts.class).of(each).get(0);
            orders.payAt(server.bean(InvoicesService.class).invoice(each), Set.of(part.id()), part.open());
            seen.add(each);
        }
        java.util.concurrent.atomic.AtomicInteger asked = new java.util.concurrent.atomic.AtomicInteger();
        orders.askAboutAll(() -> asked.getAndIncrement() >= 2); // A round that has to stop after two.
        assertThat(count("processor_order WHERE polled_at IS NOT NULL")).isEqualTo(2);
        asked.set(0);
        orders.askAboutAll(() -> asked.getAndIncrement() >= 1);
        assertThat(count("processor_order WHERE polled_at IS NOT NULL")).isEqualTo(3);
    }

    @Test
    public void moneyThatCannotBeBookedWaitsForAPersonWithItsReason() {
        order();
        states.replaceAll((id, s) -> "odd");
        orders.askAboutAll(() -> false);
        assertThat(orders.troubles())
                .singleElement()
                .satisfies(t -> assertThat(t.why()).contains("cannot be booked"));
        states.replaceAll((id, s) -> "paid");
        orders.askAboutAll(() -> false);
        assertThat(orders.troubles()).isEmpty();
    }

    private String credit() {
        return server.bean(quill.server.books.BooksService.class)
                .creditOf(client, CurrencyUnit.EUR)
                .toString();
    }

    private DailyRun.Summary run() {
        return server.bean(DailyRun.class).catchUp();
    }

    private String order() {
        return orders.payAt(stored(), ids(), Money.parse("EUR 100.00"));
    }

    private Document stored() {
        return server.bean(InvoicesService.class).invoice(invoice);
    }

    private Set<Long> ids() {
        return server.bean(Debts.class).of(invoice).stream()
                .map(StoredInstallment::id)
                .collect(Collectors.toSet());
    }

    private String open() {
        Money sum = Amounts.sum(
                CurrencyUnit.EUR,
                server.bean(Debts.class).of(invoice).stream()
                        .map(StoredInstallment::open)
                        .toList());
        return Amounts.plain(sum);
    }

    private int count(String table) {
        return server.jdbc()
                .sql("SELECT COUNT(*) FROM " + table)
                .query(Integer.class)
                .single();
    }
}
