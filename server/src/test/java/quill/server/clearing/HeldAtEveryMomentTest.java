package quill.server.clearing;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.math.BigDecimal;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.OnTop;
import quill.server.Server;
import quill.server.cardorders.CardOrders;
import quill.server.cardorders.HowPaid;
import quill.server.common.ConflictException;
import quill.server.debts.Debts;
import quill.server.debts.OpenSums;
import quill.server.debts.StoredInstallment;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payer;
import quill.server.payments.Payment;
import quill.server.payments.PaymentRefunds;
import quill.server.payments.Payments;

/**
 * Whatever a processor books, in whatever order: each time its account has been read, the clearing account of the books holds
 * what the processor holds, to the cent.
 */
public class HeldAtEveryMomentTest {
    private static final int STEPS = 160;
    private static final Pattern AMOUNT = Pattern.compile("\"amount\":\"?([0-9.]+)");
    private final Map<String, String> amounts = new ConcurrentHashMap<>();
    private final Map<String, String> states = new ConcurrentHashMap<>();
    private final List<String> entries = new ArrayList<>();
    /** Refunds that were asked for: their keys with their sums. */
    private final Map<String, String> refunds = new ConcurrentHashMap<>();

    private final Map<String, String> contests = new HashMap<>();
    private BigDecimal held = BigDecimal.ZERO;
    private int paidOut;
    private HttpServer processor;
    private Server server;
    private ClientId client;

    @BeforeMethod
    public void start() throws IOException {
        processor = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        processor.createContext("/api/orders", e -> {
            String key = e.getRequestHeaders().getFirst("Idempotency-Key");
            String id = key != null ? key : e.getRequestURI().getPath().split("/")[3];
            Matcher m = AMOUNT.matcher(new String(e.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
            if (m.find()) {
                amounts.putIfAbsent(id, m.group(1));
            }
            answer(e, order(id, states.computeIfAbsent(id, k -> "open")));
        });
        processor.createContext("/api/account/entries", e -> {
            int after = Integer.parseInt(e.getRequestURI().getQuery().replaceAll("\\D", ""));
            answer(e, "[" + String.join(",", entries.subList(Math.min(after, entries.size()), entries.size())) + "]");
        });
        processor.createContext("/api/refunds", e -> {
            Matcher m = AMOUNT.matcher(new String(e.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
            refunds.put(e.getRequestHeaders().getFirst("Idempotency-Key"), m.find() ? m.group(1) : "");
            answer(e, "{}");
        });
        processor.start();
        server = new Server("--quill.processor.url=http://127.0.0.1:"
                + processor.getAddress().getPort());
        server.setUp(LocalDate.of(2027, 3, 1));
        client = server.client("Every Moment", true);
    }

    private static void answer(HttpExchange exchange, String body) throws IOException {
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", "application/json");
        exchange.sendResponseHeaders(200, bytes.length);
        exchange.getResponseBody().write(bytes);
        exchange.close();
    }

    private String order(String id, String state) {
        boolean paid = state.equals("paid");
        return """
                {"id":"%s","state":"%s","amount":"%s","currency":"EUR","payAt":"http://localhost/pay","test":false,
                 "paid":%s,"with":%s,"attempts":[]}
                """.formatted(
                id,
                state,
                amounts.get(id),
                paid
                        ? "{\"payment\":\"pay-%s\",\"on\":\"2027-03-01\",\"amount\":\"%s\",\"fee\":\"%s\"}"
                                .formatted(id, amounts.get(id), fee(id))
                        : "null",
                paid ? "{\"way\":\"card\",\"name\":\"Test card\",\"lastFour\":\"0018\",\"expiry\":null}" : "null");
    }

    /** 2.9 % and 0.30: common practice. */
    private String fee(String id) {
        return new BigDecimal(amounts.get(id))
                .multiply(new BigDecimal("0.029"))
                .setScale(2, java.math.RoundingMode.HALF_UP)
                .add(new BigDecimal("0.30"))
                .toPlainString();
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        processor.stop(0);
    }

    @Test
    public void theBooksHoldWhatTheProcessorHolds() {
        Random random = new Random(20270301);
        for (int step = 0; step < STEPS; step++) {
            int what = random.nextInt(20);
            if (what < 8) {
                paid(random);
            } else if (what < 12) {
                refund(random);
            } else if (what < 15) {
                refunded(random);
            } else if (what < 17) {
                contested(random);
            } else if (what < 18) {
                decided(random);
            } else {
                payout();
            }
            server.bean(AccountReading.class).askAboutAll(() -> false);
            assertThat(server.bean(ClearingWaits.class).unbooked())
                    .as("step %d", step)
                    .isEmpty();
            // What is asked to go back has left the books; at the processor it leaves when it is sent.
            BigDecimal asked = refunds.values().stream().map(BigDecimal::new).reduce(BigDecimal.ZERO, BigDecimal::add);
            assertThat(clearing()).as("step %d", step).isEqualByComparingTo(held.subtract(asked));
        }
        assertThat(server.bean(OpenSums.class).disagreeing()).isEmpty();
        assertThat(minor("SELECT -SUM(amount_minor) FROM posting WHERE account IN ('TIPS', 'SURCHARGES', 'TAX')"))
                .isEqualTo(minor("SELECT SUM(tip_minor + surcharge_minor + tax_minor) FROM on_top"))
                .isPositive();
        assertThat(entries).hasSizeGreaterThan(STEPS / 3);
    }

    private BigDecimal clearing() {
        return BigDecimal.valueOf(
                server.jdbc()
                        .sql("SELECT COALESCE(SUM(amount_minor), 0) FROM posting WHERE account = 'PROCESSOR_CLEARING'")
                        .query(Long.class)
                        .single(),
                2);
    }

    private long minor(String sum) {
        return server.jdbc().sql(sum).query(Long.class).single();
    }

    private void entry(String kind, String subject, String amount, String cost, String key, String made) {
        held = held.add(new BigDecimal(amount)).subtract(new BigDecimal(cost));
        entries.add("""
                {"number":%d,"kind":"%s","subject":"%s","order":"o","currency":"EUR","amount":"%s","cost":"%s",
                 "on":"2027-03-01","reason":"as it happens","answerBy":"2027-03-20","key":"%s","entries":[%s]}
                """.formatted(entries.size() + 1, kind, subject, amount, cost, key, made));
    }

    private void paid(Random random) {
        DocumentId invoice = server.issue(
                client, BigDecimal.valueOf(500 + random.nextInt(50_000), 2).toPlainString(), "rest@30", null);
        List<StoredInstallment> open = server.bean(Debts.class).of(invoice).stream()
                .filter(i -> i.open().isPositive())
                .toList();
        if (open.isEmpty()) {
            return;
        }
        Set<String> before = Set.copyOf(states.keySet());
        server.bean(CardOrders.class)
                .payAt(
                        server.bean(InvoicesService.class).invoice(invoice),
                        open.stream().map(StoredInstallment::id).collect(Collectors.toSet()),
                        open.stream()
                                .map(StoredInstallment::open)
                                .reduce(Money::plus)
                                .orElseThrow(),
                        Payer.NONE,
                        HowPaid.PLAIN.with(null, top(random)));
        String key = states.keySet().stream()
                .filter(k -> !before.contains(k))
                .findFirst()
                .orElseThrow();
        states.put(key, "paid");
        entry("taken", "pay-" + key, amounts.get(key), fee(key), key, "");
    }

    /** Every second payer gives a tip, or is asked for a surcharge with its tax. */
    private static OnTop top(Random random) {
        Money zero = Money.zero(CurrencyUnit.EUR);
        return random.nextBoolean()
                ? OnTop.nothing(CurrencyUnit.EUR)
                : new OnTop(
                        zero.plusMinor(random.nextInt(300)),
                        zero.plusMinor(random.nextInt(200)),
                        zero.plusMinor(random.nextInt(40)),
                        "some-tax");
    }

    private Payment any(Random random) {
        List<Payment> all = server.bean(Payments.class).ofClient(client).stream()
                .filter(p -> p.isHere() && p.back().amount().money().isZero())
                .toList();
        return all.isEmpty() ? null : all.get(random.nextInt(all.size()));
    }

    private void refund(Random random) {
        Payment p = any(random);
        if (p == null) {
            return;
        }
        try {
            server.bean(RefundOrders.class)
                    .give(new PaymentRefunds.Given(
                            "held-" + entries.size() + "-" + random.nextInt(1_000_000),
                            p.id(),
                            "",
                            random.nextBoolean() ? p.amount().amount() : "1.00",
                            "",
                            "",
                            true,
                            random.nextBoolean()));
        } catch (RefusedException | ConflictException e) {
            assertThat(e.getMessage()).isNotBlank();
        }
    }

    /** What was asked to go back is sent; every third does not arrive. */
    private void refunded(Random random) {
        if (refunds.isEmpty()) {
            return;
        }
        String key = refunds.keySet().iterator().next();
        String amount = refunds.remove(key);
        entry("refunded", key, "-" + amount, "0.00", key, "");
        if (random.nextInt(3) == 0) {
            entry("refund-failed", key, amount, "0.00", key, "");
        }
    }

    private void contested(Random random) {
        Payment p = any(random);
        if (p == null) {
            return;
        }
        String key = server.bean(Payments.class).keyOf(p.id());
        String contest = "contest-" + entries.size();
        contests.put(contest, key);
        entry("contested", contest, "-" + amounts.get(key), "15.00", key, "");
    }

    private void decided(Random random) {
        if (contests.isEmpty()) {
            return;
        }
        String contest = contests.keySet().iterator().next();
        String key = contests.remove(contest);
        boolean won = random.nextBoolean();
        entry(won ? "contest-won" : "contest-lost", contest, won ? amounts.get(key) : "0.00", "0.00", key, "");
    }

    /** All that is held goes to the bank, but what comes to less than nothing is carried. */
    private void payout() {
        if (held.signum() <= 0 || entries.size() == paidOut) {
            return;
        }
        StringBuilder made = new StringBuilder();
        for (int n = paidOut + 1; n <= entries.size(); n++) {
            made.append(made.isEmpty() ? "" : ",").append(n);
        }
        paidOut = entries.size() + 1;
        entry("paid-out", "payout-" + entries.size(), held.negate().toPlainString(), "0.00", "", made.toString());
    }
}
