package quill.server.clearing;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.OwnPort;
import quill.server.Server;
import quill.server.books.BooksService;
import quill.server.cardorders.CardOrders;
import quill.server.dailyrun.DailyRun;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.payments.Payment;
import quill.server.payments.PaymentRefunds;
import quill.server.payments.Payments;

/** A processor that says what each test wants, and an invoice of 100.00 to be paid there: 3.20 by card, 1.00 by debit. */
public class ClearingSuite {
    static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    final Map<String, String> states = new ConcurrentHashMap<>();
    final List<String> entries = new ArrayList<>();
    final List<String> refundKeys = new ArrayList<>();
    int refundStatus = 200;
    private HttpServer processor;
    Server server;
    private AccountReading reading;
    ClientId client;
    DocumentId invoice;

    @BeforeMethod
    public void start() throws IOException {
        states.clear();
        entries.clear();
        refundKeys.clear();
        refundStatus = 200;
        processor = HttpServer.create(OwnPort.at("processor"), 0);
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

    /** A new order, in this state. @return its key */
    String order(String state) {
        Set<String> before = Set.copyOf(states.keySet());
        pay();
        become(state);
        return states.keySet().stream()
                .filter(k -> !before.contains(k))
                .findFirst()
                .orElseThrow();
    }

    void pay() {
        server.beginToPay(invoice, "EUR 100.00");
    }

    /** Every order that is not over becomes this. */
    void become(String state) {
        states.replaceAll((id, s) -> s.equals("open") || s.equals("underway") || s.equals("paid by debit") ? state : s);
        server.bean(CardOrders.class).askAboutAll(() -> false);
    }

    void entry(String kind, String subject, String amount, String cost) {
        entry(kind, subject, amount, cost, states.keySet().iterator().next());
    }

    void entry(String kind, String subject, String amount, String cost, String key) {
        entries.add("""
                {"number":%d,"kind":"%s","subject":"%s","order":"o","currency":"EUR","amount":"%s","cost":"%s",
                 "on":"2027-03-01","reason":"not enough money","answerBy":"2027-03-20","key":"%s","entries":[]}
                """.formatted(entries.size() + 1, kind, subject, amount, cost, key));
    }

    void read() {
        reading.askAboutAll(() -> false);
    }

    void refund(String key, String amount, boolean owedAgain) {
        server.bean(RefundOrders.class)
                .give(new PaymentRefunds.Given(key, payment().id(), "", amount, "", "", owedAgain, false));
    }

    Payment payment() {
        return server.bean(Payments.class).ofClient(client).stream()
                .filter(p -> !p.means().byHand())
                .findFirst()
                .orElseThrow();
    }

    String open() {
        return Amounts.plain(Amounts.sum(
                CurrencyUnit.EUR,
                server.bean(Debts.class).of(invoice).stream()
                        .map(StoredInstallment::open)
                        .toList()));
    }

    String credit() {
        return Amounts.plain(server.bean(BooksService.class).creditOf(client, CurrencyUnit.EUR));
    }

    String clearing() {
        return Amounts.plain(Money.ofMinor(
                CurrencyUnit.EUR,
                server.jdbc()
                        .sql("SELECT COALESCE(SUM(amount_minor), 0) FROM posting WHERE account = 'PROCESSOR_CLEARING'")
                        .query(Long.class)
                        .single()));
    }

    List<String> letters() {
        return server.jdbc()
                .sql("SELECT text FROM message_text")
                .query(String.class)
                .list();
    }
}
