package quill.server.clearing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.acts.ActKind;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.Server;
import quill.server.books.BooksService;
import quill.server.cardorders.CardOrders;
import quill.server.common.ConflictException;
import quill.server.dailyrun.DailyRun;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payment;
import quill.server.payments.PaymentRefunds;
import quill.server.payments.Payments;

/** What a processor books afterwards, told by one that says what each test wants. 100.00 costs 3.20 by card, 1.00 by debit. */
public class ClearingTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private final Map<String, String> states = new ConcurrentHashMap<>();
    private final List<String> entries = new ArrayList<>();
    private final List<String> refundKeys = new ArrayList<>();
    private int refundStatus = 200;
    private HttpServer processor;
    private Server server;
    private AccountReading reading;
    private ClientId client;
    private DocumentId invoice;

    @BeforeMethod
    public void start() throws IOException {
        states.clear();
        entries.clear();
        refundKeys.clear();
        refundStatus = 200;
        processor = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        processor.createContext("/api/orders", exchange -> {
            String key = exchange.getRequestHeaders().getFirst("Idempotency-Key");
            String id = key != null ? key : exchange.getRequestURI().getPath().split("/")[3];
            answer(exchange, 200, order(id, states.computeIfAbsent(id, k -> "open")));
        });
        processor.createContext("/api/account/entries", exchange -> {
            int after = Integer.parseInt(exchange.getRequestURI().getQuery().replaceAll("\\D", ""));
            answer(
                    exchange,
                    200,
                    "[" + String.join(",", entries.subList(Math.min(after, entries.size()), entries.size())) + "]");
        });
        processor.createContext("/api/refunds", exchange -> {
            refundKeys.add(exchange.getRequestHeaders().getFirst("Idempotency-Key"));
            answer(exchange, refundStatus, refundStatus == 200 ? "{}" : "{\"detail\":\"the card is closed\"}");
        });
        processor.createContext("/api/contests", exchange -> answer(exchange, 200, "{}"));
        processor.start();
        server = new Server("--quill.processor.url=http://127.0.0.1:"
                + processor.getAddress().getPort());
        server.setUp(BEGIN);
        reading = server.bean(AccountReading.class);
        server.bean(DailyRun.class).catchUp();
        client = server.client("Card Holder", true);
        invoice = server.issue(client, "100.00", "100%@3", null);
    }

    private static void answer(HttpExchange exchange, int status, String body) throws IOException {
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders()
                .add("Content-Type", status == 200 ? "application/json" : "application/problem+json");
        exchange.sendResponseHeaders(status, bytes.length);
        exchange.getResponseBody().write(bytes);
        exchange.close();
    }

    private String order(String id, String state) {
        boolean debit = !state.equals("paid by card") && !state.equals("open");
        String cost = debit ? "1.00" : "3.20";
        boolean paid = state.startsWith("paid") || state.equals("returned");
        return """
                {"id":"%s","state":"%s","amount":"100.00","currency":"EUR","payAt":"http://localhost/pay","test":false,
                 "paid":%s,"with":%s,"certainOn":"2027-03-04","reason":"not enough money","attempts":[]}
                """.formatted(
                        id,
                        state.startsWith("paid") ? "paid" : state,
                        paid
                                ? "{\"payment\":\"pay-%s\",\"on\":\"2027-03-01\",\"amount\":\"100.00\",\"fee\":\"%s\"}"
                                        .formatted(id, cost)
                                : "null",
                        state.equals("open")
                                ? "null"
                                : "{\"way\":\"%s\",\"name\":\"%s\",\"lastFour\":\"0101\",\"expiry\":null}"
                                        .formatted(debit ? "debit" : "card", debit ? "Bank account" : "Test card"));
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        processor.stop(0);
    }

    @Test
    public void aBankDebitOnItsWayIsNeitherRemindedNorSettledAndThenItIs() {
        order("underway");
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(server.bean(DailyRun.class).catchUp().of(ActKind.REMINDER)).isZero();
        assertThat(open()).isEqualTo("100.00");
        assertThatThrownBy(this::pay).isInstanceOf(ConflictException.class).hasMessageContaining("on its way");
        become("paid by debit");
        entry("taken", "pay", "100.00", "1.00");
        read();
        assertThat(open()).isEqualTo("0.00");
        assertThat(clearing()).isEqualTo("99.00");
    }

    /** A page that was left before says nothing of what was begun last. */
    @Test
    public void whoComesBackIsToldOfWhatWasBegunLast() {
        DocumentId parts = server.issue(client, "200.00", "50%@3 50%@30", null);
        invoice = parts;
        List<StoredInstallment> both = server.bean(Debts.class).of(parts);
        for (StoredInstallment part : both) {
            server.bean(CardOrders.class)
                    .payAt(server.bean(InvoicesService.class).invoice(parts), Set.of(part.id()), part.open());
        }
        assertThat(server.bean(CardOrders.class).payerIsBack(parts)).isEqualTo(CardOrders.Outcome.NOT_PAID);
        String last = server.jdbc()
                .sql("SELECT order_key FROM processor_order ORDER BY id DESC LIMIT 1")
                .query(String.class)
                .single();
        states.put(last, "underway");
        assertThat(server.bean(CardOrders.class).payerIsBack(parts)).isEqualTo(CardOrders.Outcome.NOTHING_OPEN);
    }

    /** It looked settled; then it came back: open again, with the cost, and the client is told why. */
    @Test
    public void aReturnedDebitOpensExactlyWhatItSettledAndTellsTheClient() {
        order("paid by debit");
        entry("taken", "pay", "100.00", "1.00");
        read();
        assertThat(open()).isEqualTo("0.00");
        become("returned");
        entry("returned", "pay", "-100.00", "3.50");
        read();
        read();
        assertThat(open()).isEqualTo("100.00");
        assertThat(clearing()).isEqualTo("-4.50");
        assertThat(payment().back().stands()).isEqualTo(Payment.Stands.RETURNED);
        assertThat(letters())
                .filteredOn(t -> t.contains("did not come through"))
                .hasSize(1);
        server.moveTo(BEGIN.plusDays(3), LocalTime.of(9, 0));
        assertThat(server.bean(DailyRun.class).catchUp().of(ActKind.REMINDER)).isEqualTo(1);
    }

    @Test
    public void aRefusedDebitBooksItsCostAndNothingElse() {
        order("underway");
        become("refused");
        entry("refused", "debit", "0.00", "3.50");
        read();
        assertThat(open()).isEqualTo("100.00");
        assertThat(clearing()).isEqualTo("-3.50");
        assertThat(letters()).anyMatch(t -> t.contains("did not come through: not enough money"));
        assertThat(server.bean(OnTheWay.class).inTransit(Set.of(client))).isEmpty();
    }

    /** 100.00 by card while 20.00 came otherwise: 20.00 is credit; 15.00 of it goes back, and 5.00 stays. */
    @Test
    public void aPartOfAnOverpaymentGoesBackOutOfCreditOnly() {
        String key = order("open");
        server.pay(client, invoice, "20.00", BEGIN);
        states.put(key, "paid by card");
        entry("taken", "pay", "100.00", "3.20");
        read();
        assertThat(open()).isEqualTo("0.00");
        refund("r1-1-1-1", "15.00", false);
        refund("r1-1-1-1", "15.00", false);
        assertThat(refundKeys).containsOnly("refund-r1-1-1-1");
        assertThat(open()).isEqualTo("0.00");
        assertThat(credit()).isEqualTo("5.00");
        assertThatThrownBy(() -> refund("r2-2-2-2", "5.01", false))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("at most 5.00 is client credit");
        assertThatThrownBy(() -> refund("r3-3-3-3", "85.01", true))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("at most 85.00");
        entry("refunded", "refund", "-15.00", "0.00", "refund-r1-1-1-1");
        read();
        assertThat(clearing()).isEqualTo("81.80");
        refund("r4-4-4-4", "85.00", true);
        assertThat(open()).isEqualTo("80.00");
        assertThat(credit()).isEqualTo("0.00");
    }

    @Test
    public void aRefundThatDoesNotArriveIsHereAgainAndWaitsForAPerson() {
        order("paid by card");
        entry("taken", "pay", "100.00", "3.20");
        read();
        refund("r1-1-1-1", "40.00", true);
        assertThat(open()).isEqualTo("40.00");
        entry("refunded", "refund", "-40.00", "0.00", "refund-r1-1-1-1");
        entry("refund-failed", "refund", "40.00", "0.00", "refund-r1-1-1-1");
        read();
        assertThat(open()).isEqualTo("0.00");
        assertThat(server.bean(ClearingWaits.class).notArrived()).hasSize(1);
        assertThat(clearing()).isEqualTo("96.80");
    }

    @Test
    public void aRefundThatTheProcessorWillNotMakeIsPutBackWithItsReason() {
        order("paid by card");
        entry("taken", "pay", "100.00", "3.20");
        read();
        refundStatus = 422;
        refund("r1-1-1-1", "40.00", true);
        assertThat(open()).isEqualTo("0.00");
        assertThat(server.bean(ClearingWaits.class).notArrived().get(0).why()).isEqualTo("the card is closed");
    }

    /** A refund that was refused came back as money of its own; what is contested then is all of the payment. */
    @Test
    public void aContestFindsWhatARefusedRefundPutBack() {
        String key = order("paid by card");
        entry("taken", "pay", "100.00", "3.20");
        read();
        refundStatus = 422;
        refund("r1-1-1-1", "40.00", true);
        assertThat(open()).isEqualTo("0.00");
        entry("contested", "contest", "-100.00", "15.00", key);
        read();
        assertThat(server.bean(ClearingWaits.class).unbooked()).isEmpty();
        assertThat(open()).isEqualTo("100.00");
        assertThat(clearing()).isEqualTo("-18.20");
    }

    /** Nobody is asked for money that a won dispute brings; lost, it is asked for like any. */
    @Test
    public void aDisputeThatIsWonSettlesAgainAndOneThatIsLostStaysOpen() {
        for (boolean won : List.of(true, false)) {
            String key = order("paid by card");
            entry("taken", "pay", "100.00", "3.20", key);
            entry("contested", "contest-" + won, "-100.00", "15.00", key);
            read();
            assertThat(open()).isEqualTo("100.00");
            assertThat(server.bean(OnTheWay.class).inTransit(Set.of(client)).values())
                    .containsExactly(Money.parse("EUR 100.00"));
            Dispute d = server.bean(ClearingWaits.class).disputes().get(0);
            server.bean(Disputes.class).answer(d.id(), "We tuned it on the day that was agreed.");
            assertThat(server.bean(ClearingWaits.class).disputes()).isEmpty();
            entry(won ? "contest-won" : "contest-lost", "contest-" + won, won ? "100.00" : "0.00", "0.00", key);
            read();
            assertThat(open()).isEqualTo(won ? "0.00" : "100.00");
            assertThat(server.bean(OnTheWay.class).inTransit(Set.of(client))).isEmpty();
            assertThat(clearing()).isEqualTo(won ? "81.80" : "63.60");
            if (won) {
                invoice = server.issue(client, "100.00", "100%@3", null);
            }
        }
    }

    /** The bank gets what is held less what is carried; the payment says in which payout it is. */
    @Test
    public void payoutsReachTheBankAndNameWhatTheyAreMadeOf() {
        order("paid by card");
        entry("taken", "pay", "100.00", "3.20");
        entries.add("""
                {"number":2,"kind":"paid-out","subject":"payout-1","order":null,"currency":"EUR","amount":"-96.80",
                 "cost":"0.00","on":"2027-03-03","reason":"","answerBy":null,"key":null,"entries":[1]}
                """);
        read();
        assertThat(clearing()).isEqualTo("0.00");
        Payouts.Payout payout = server.bean(Payouts.class).find(payment().back().payoutId());
        assertThat(payout.net().amount()).isEqualTo("96.80");
        assertThat(payout.parts())
                .singleElement()
                .satisfies(p -> assertThat(p.who()).isEqualTo("Card Holder"));
        assertThat(server.bean(Payouts.class).past().get(0).net()).isEqualTo(payout.net());
    }

    @Test
    public void whatCannotBeBookedSaysWhyAndIsTriedAgain() {
        entry("taken", "pay", "100.00", "3.20", "nobody's");
        entries.add(entries.get(0).replace("\"number\":1", "\"number\":2").replace("taken", "borrowed"));
        read();
        assertThat(server.bean(ClearingWaits.class).unbooked())
                .extracting(ClearingWaits.Unbooked::why)
                .anyMatch(w -> w.contains("not known here"));
        assertThat(server.bean(ClearingWaits.class).unbooked()).hasSize(2);
        assertThat(server.jdbc()
                        .sql("SELECT COUNT(*) FROM movement")
                        .query(Integer.class)
                        .single())
                .isZero();
    }

    /** A new order, in this state. @return its key */
    private String order(String state) {
        Set<String> before = Set.copyOf(states.keySet());
        pay();
        become(state);
        return states.keySet().stream()
                .filter(k -> !before.contains(k))
                .findFirst()
                .orElseThrow();
    }

    private void pay() {
        server.beginToPay(invoice, "EUR 100.00");
    }

    /** Every order that is not over becomes this. */
    private void become(String state) {
        states.replaceAll((id, s) -> s.equals("open") || s.equals("underway") || s.equals("paid by debit") ? state : s);
        server.bean(CardOrders.class).askAboutAll(() -> false);
    }

    private void entry(String kind, String subject, String amount, String cost) {
        entry(kind, subject, amount, cost, states.keySet().iterator().next());
    }

    private void entry(String kind, String subject, String amount, String cost, String key) {
        entries.add("""
                {"number":%d,"kind":"%s","subject":"%s","order":"o","currency":"EUR","amount":"%s","cost":"%s",
                 "on":"2027-03-01","reason":"not enough money","answerBy":"2027-03-20","key":"%s","entries":[]}
                """.formatted(entries.size() + 1, kind, subject, amount, cost, key));
    }

    private void read() {
        reading.askAboutAll(() -> false);
    }

    private void refund(String key, String amount, boolean owedAgain) {
        server.bean(RefundOrders.class)
                .give(new PaymentRefunds.Given(key, payment().id(), "", amount, "", "", owedAgain, false));
    }

    private Payment payment() {
        return server.bean(Payments.class).ofClient(client).stream()
                .filter(p -> !p.means().byHand())
                .findFirst()
                .orElseThrow();
    }

    private String open() {
        return Amounts.plain(Amounts.sum(
                CurrencyUnit.EUR,
                server.bean(Debts.class).of(invoice).stream()
                        .map(StoredInstallment::open)
                        .toList()));
    }

    private String credit() {
        return Amounts.plain(server.bean(BooksService.class).creditOf(client, CurrencyUnit.EUR));
    }

    private String clearing() {
        return Amounts.plain(Money.ofMinor(
                CurrencyUnit.EUR,
                server.jdbc()
                        .sql("SELECT COALESCE(SUM(amount_minor), 0) FROM posting WHERE account = 'PROCESSOR_CLEARING'")
                        .query(Long.class)
                        .single()));
    }

    private List<String> letters() {
        return server.jdbc()
                .sql("SELECT text FROM message_text")
                .query(String.class)
                .list();
    }
}
