package quill.server.clearing;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import java.util.Set;
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
import quill.server.BookingProcessor;
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
    private BookingProcessor processor;
    private Server server;
    private ClientId client;

    @BeforeMethod
    public void start() throws IOException {
        processor = new BookingProcessor();
        server = new Server("--quill.processor.url=" + processor.url());
        server.setUp(LocalDate.of(2027, 3, 1));
        client = server.client("Every Moment", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        processor.close();
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
                processor.sendBack(random.nextInt(3) != 0);
            } else if (what < 17) {
                contested(random);
            } else if (what < 18) {
                processor.decide(random.nextBoolean());
            } else {
                processor.payOut();
            }
            server.bean(AccountReading.class).askAboutAll(() -> false);
            assertThat(server.bean(ClearingWaits.class).unbooked())
                    .as("step %d", step)
                    .isEmpty();
            // What is asked to go back has left the books; at the processor it leaves when it is sent.
            assertThat(clearing())
                    .as("step %d", step)
                    .isEqualByComparingTo(processor.held().subtract(processor.asked()));
        }
        assertThat(server.bean(OpenSums.class).disagreeing()).isEmpty();
        assertThat(minor("SELECT -SUM(amount_minor) FROM posting WHERE account IN ('TIPS', 'SURCHARGES', 'TAX')"))
                .isEqualTo(minor("SELECT SUM(tip_minor + surcharge_minor + tax_minor) FROM on_top"))
                .isPositive();
        assertThat(processor.booked()).isGreaterThan(STEPS / 3);
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

    private void paid(Random random) {
        DocumentId invoice = server.issue(
                client, BigDecimal.valueOf(500 + random.nextInt(50_000), 2).toPlainString(), "rest@30", null);
        List<StoredInstallment> open = server.bean(Debts.class).of(invoice).stream()
                .filter(i -> i.open().isPositive())
                .toList();
        if (open.isEmpty()) {
            return;
        }
        Set<String> before = processor.orders();
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
        processor.pay(processor.orders().stream()
                .filter(k -> !before.contains(k))
                .findFirst()
                .orElseThrow());
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
                            "held-" + processor.booked() + "-" + random.nextInt(1_000_000),
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

    private void contested(Random random) {
        Payment p = any(random);
        if (p == null) {
            return;
        }
        processor.contest(server.bean(Payments.class).keyOf(p.id()));
    }
}
