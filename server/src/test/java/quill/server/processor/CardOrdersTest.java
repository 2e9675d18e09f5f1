package quill.server.processor;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.money.Amounts;
import quill.server.Server;
import quill.server.common.ConflictException;
import quill.server.dailyrun.DailyRun;
import quill.server.debts.Debts;
import quill.server.debts.Debts.StoredInstallment;
import quill.server.invoices.Invoice;
import quill.server.invoices.InvoicesService;

/** Orders at a processor that answers as each test wants, and what they mean for reminders and fees. */
public class CardOrdersTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private final Map<String, String> states = new ConcurrentHashMap<>();

    private HttpServer processor;
    private Server server;
    private CardOrders orders;
    private long client;
    private long invoice;

    @BeforeMethod
    public void start() throws IOException {
        states.clear();
        processor = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
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
        boolean paid = state.equals("paid");
        String attempts =
                state.equals("declined") ? "[{\"lastFour\":\"0026\",\"outcome\":\"not enough funds\"}]" : "[]";
        return """
                {"id":"%s","state":"%s","amount":"100.00","currency":"EUR","payAt":"http://localhost/pay/%s",
                 "paymentId":%s,"paidOn":%s,"fee":%s,"cardName":%s,"lastFour":%s,"expiry":%s,"attempts":%s}
                """.formatted(
                        id,
                        state.equals("declined") ? "open" : state,
                        id,
                        paid ? "\"pay-" + id + "\"" : "null",
                        paid ? "\"2027-03-04\"" : "null",
                        paid ? "\"3.20\"" : "null",
                        paid ? "\"Test card\"" : "null",
                        paid ? "\"0019\"" : "null",
                        paid ? "\"09/29\"" : "null",
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
        orders.askAboutAll();
        orders.askAboutAll();
        assertThat(open()).isEqualTo("0.00");
        assertThat(count("payment")).isEqualTo(1);
        assertThat(server.jdbc()
                        .sql("SELECT COUNT(*) FROM journal_entry WHERE event = 'PROCESSING_FEE'")
                        .query(Integer.class)
                        .single())
                .isEqualTo(1);
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
        assertThat(orders.inTransit(Set.of(client))).isEqualTo(ids());
        assertThat(run().reminders()).isZero();
    }

    @Test
    public void anOrderThatThePayerLeftIsNoMoneyOnItsWay() {
        order();
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(run().reminders()).isEqualTo(1);
        assertThat(orders.inTransit(Set.of(client))).isEmpty();
    }

    @Test
    public void aProcessorThatDoesNotAnswerProtectsThePayer() {
        order();
        processor.stop(0);
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(run().reminders()).isZero();
        assertThat(orders.inTransit(Set.of(client))).isEqualTo(ids());
    }

    @Test
    public void theRunAsksBeforeItReminds() {
        order();
        states.replaceAll((id, s) -> "paid"); // and its event was lost
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(run().reminders()).isZero();
        assertThat(open()).isEqualTo("0.00");
    }

    @Test
    public void aDeclinedCardIsToldOnceAndTheDebtStaysDue() {
        order();
        states.replaceAll((id, s) -> "declined");
        orders.askAboutAll();
        orders.askAboutAll();
        assertThat(orders.declinedOn(invoice)).contains("not enough funds");
        assertThat(server.jdbc()
                        .sql("SELECT COUNT(*) FROM happening WHERE what LIKE 'Card declined%'")
                        .query(Integer.class)
                        .single())
                .isEqualTo(1);
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(run().reminders()).isEqualTo(1);
    }

    @Test
    public void anOrderForAnotherSumIsWithdrawn() {
        order();
        server.pay(client, invoice, "30.00", BEGIN);
        orders.askAboutAll();
        assertThat(states.values()).containsOnly("withdrawn");
        assertThat(server.jdbc()
                        .sql("SELECT state FROM card_order")
                        .query(String.class)
                        .single())
                .isEqualTo("withdrawn");
    }

    private DailyRun.Summary run() {
        return server.bean(DailyRun.class).catchUp();
    }

    private String order() {
        return orders.payAt(stored(), ids(), Money.parse("EUR 100.00"));
    }

    private Invoice stored() {
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
