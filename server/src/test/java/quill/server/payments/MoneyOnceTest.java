package quill.server.payments;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.joda.money.CurrencyUnit;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.Server;
import quill.server.books.BooksService;
import quill.server.business.Rates;
import quill.server.clients.ClientsService;
import quill.server.common.ConflictException;
import quill.server.creditnotes.Crediting;
import quill.server.debts.Debts;
import quill.server.dispatch.Correspondence;
import quill.server.dispatch.CreditLetters;
import quill.server.invoices.InvoicesService;

/** Keys, locks, snapshots, and credit that waits. */
public class MoneyOnceTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 1);
    private Server server;
    private PaymentsService payments;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY);
        payments = server.bean(PaymentsService.class);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private PaymentsService.Recorded money(String key, ClientId client, String amount) {
        return new PaymentsService.Recorded(key, client, null, "CASH", amount, DAY.toString(), "");
    }

    @Test
    public void theSameKeyForSomethingElseIsRefused() {
        ClientId one = server.client("Key One", true);
        ClientId two = server.client("Key Two", true);
        Payment first = payments.record(money("the-same-key", one, "10.00"));
        assertThat(payments.record(money("the-same-key", one, "10.00"))).isEqualTo(first);
        assertThatThrownBy(() -> payments.record(money("the-same-key", one, "11.00")))
                .isInstanceOf(ConflictException.class);
        assertThatThrownBy(() -> payments.record(money("the-same-key", two, "10.00")))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("Nothing was recorded");
    }

    @Test
    public void theSameKeyFromTwoClientsAtOnceIsOnePayment() throws Exception {
        for (int i = 0; i < 20; i++) {
            String key = "at-once-" + i;
            List<Callable<Payment>> both = new ArrayList<>();
            for (String name : List.of("Left", "Right")) {
                ClientId client = server.client(name + " " + i, true);
                both.add(() -> payments.record(money(key, client, "10.00")));
            }
            int refused = 0;
            ExecutorService threads = Executors.newFixedThreadPool(2);
            for (Future<Payment> answer : threads.invokeAll(both)) {
                try {
                    answer.get();
                } catch (ExecutionException e) {
                    assertThat(e.getCause()).isInstanceOf(ConflictException.class);
                    refused++;
                }
            }
            threads.shutdown();
            assertThat(refused).isEqualTo(1);
        }
    }

    /** What a refused request asked for was not done, so its key serves for the corrected one. */
    @Test
    public void aRefusedRequestLeavesItsKeyFree() {
        ClientId client = server.client("Slip", true);
        assertThatThrownBy(() -> payments.record(money("key-of-a-slip", client, "x")))
                .isInstanceOf(RefusedException.class);
        assertThat(payments.record(money("key-of-a-slip", client, "5.00"))
                        .amount()
                        .amount())
                .isEqualTo("5.00");
    }

    /** Of H2's levels only SERIALIZABLE reads several tables at one moment, and only READ COMMITTED may lock. */
    @Test
    public void aClientIsLockedAtReadCommittedOnly() {
        ClientId client = server.client("Locked", true);
        for (int level :
                new int[] {TransactionDefinition.ISOLATION_REPEATABLE_READ, TransactionDefinition.ISOLATION_SERIALIZABLE
                }) {
            TransactionTemplate other = template(level);
            assertThatThrownBy(() -> other.executeWithoutResult(
                            s -> server.bean(ClientsService.class).lock(client)))
                    .isInstanceOf(IllegalStateException.class);
        }
        template(TransactionDefinition.ISOLATION_READ_COMMITTED)
                .executeWithoutResult(s -> server.bean(ClientsService.class).lock(client));
    }

    @Test
    public void oneSnapshotSeesNothingThatIsWrittenMeanwhile() throws Exception {
        assertThat(seesALaterPayment(TransactionDefinition.ISOLATION_REPEATABLE_READ, "Repeatable"))
                .as("why SERIALIZABLE: at REPEATABLE READ the second table is newer than the first")
                .isTrue();
        assertThat(seesALaterPayment(TransactionDefinition.ISOLATION_SERIALIZABLE, "Serializable"))
                .isFalse();
    }

    private boolean seesALaterPayment(int level, String name) {
        ClientId client = server.client(name, true);
        return Boolean.TRUE.equals(template(level).execute(s -> {
            server.jdbc().sql("SELECT COUNT(*) FROM debt").query(Long.class).single();
            ExecutorService other = Executors.newSingleThreadExecutor();
            try {
                other.submit(() -> payments.record(money("later-" + name, client, "10.00")))
                        .get();
            } catch (InterruptedException | ExecutionException e) {
                throw new IllegalStateException(e);
            } finally {
                other.shutdown();
            }
            return server.bean(BooksService.class)
                    .creditOf(client, CurrencyUnit.EUR)
                    .isPositive();
        }));
    }

    private TransactionTemplate template(int level) {
        TransactionTemplate template =
                new TransactionTemplate(server.bean(org.springframework.transaction.PlatformTransactionManager.class));
        template.setIsolationLevel(level);
        return template;
    }

    @Test
    public void creditOfAReplacedInvoiceWaitsForItsReplacement() {
        ClientId client = server.client("Replaced", true);
        DocumentId first = server.issue(client, "100.00", "100%@3", null);
        server.pay(client, first, "100.00", DAY);
        Crediting.Written written =
                server.bean(CreditLetters.class).credit(first, Crediting.Wanted.rest("a slip", true));
        assertThat(waiting(client)).isEqualTo("EUR 100.00");
        DocumentId other = server.issue(client, "30.00", "100%@3", null);
        assertThat(server.bean(InvoicesService.class).invoice(other).openMinor())
                .as("nothing else takes it")
                .isEqualTo(3000);
        InvoicesService invoices = server.bean(InvoicesService.class);
        invoices.issue(written.draftId(), invoices.invoice(written.draftId()).version());
        assertThat(waiting(client)).isEqualTo("EUR 0.00");
        long open = invoices.invoice(written.draftId()).openMinor()
                + invoices.invoice(other).openMinor();
        assertThat(open).isEqualTo(3000);
    }

    @Test
    public void creditWaitsNoLongerOnceTheDraftIsDeleted() {
        ClientId client = server.client("Never Replaced", true);
        DocumentId first = server.issue(client, "100.00", "100%@3", null);
        server.pay(client, first, "100.00", DAY);
        DocumentId other = server.issue(client, "30.00", "100%@3", null);
        Crediting.Written written =
                server.bean(CreditLetters.class).credit(first, Crediting.Wanted.rest("a slip", true));
        InvoicesService invoices = server.bean(InvoicesService.class);
        assertThat(invoices.invoice(other).openMinor()).isEqualTo(3000);
        invoices.discard(written.draftId(), invoices.invoice(written.draftId()).version());
        assertThat(invoices.invoice(other).openMinor()).isZero();
    }

    @Test
    public void aPaymentSaysBeforehandWhatItWillSettleAndGoesWhereItIsTicked() {
        ClientId client = server.client("Ticking", true);
        server.issue(client, "50.00", "100%@5", null);
        DocumentId second = server.issue(client, "80.00", "100%@9", null);
        long tick = server.bean(Debts.class).of(second).get(0).id();
        Outlooks.Outlook oldest = server.bean(Outlooks.class).outlook(ticking(client, "60.00", List.of()));
        assertThat(oldest.debts()).extracting(d -> d.takes().amount()).containsExactly("50.00", "10.00");
        assertThat(oldest.receiptTo()).isEqualTo("ticking@clients.example");
        Outlooks.Outlook ticked = server.bean(Outlooks.class).outlook(ticking(client, "60.00", List.of(tick)));
        assertThat(ticked.debts()).extracting(d -> d.takes().amount()).containsExactly("0.00", "60.00");
        assertThat(server.bean(Outlooks.class)
                        .outlook(ticking(client, "140.00", List.of(tick)))
                        .credit()
                        .amount())
                .isEqualTo("10.00");
        assertThat(server.bean(Outlooks.class)
                        .outlook(ticking(client, "6o", List.of()))
                        .debts())
                .as("what cannot be read yet settles nothing")
                .allMatch(d -> d.takes().amount().equals("0.00"));

        payments.record(ticking(client, "60.00", List.of(tick)));
        assertThat(server.bean(Outlooks.class)
                        .outlook(ticking(client, "", List.of()))
                        .debts())
                .extracting(d -> d.open().amount())
                .containsExactly("50.00", "20.00");
        assertThat(server.bean(Correspondence.class).ofClient(client, ""))
                .as("no receipt was wanted")
                .isEmpty();
        assertThat(server.bean(BooksService.class).accountOf(client, CurrencyUnit.EUR))
                .anyMatch(r -> r.movement().what().endsWith("· reference RF 12 Wolf"));
        assertThat(server.bean(Payments.class).clientsOfReference("rf 12 w")).containsExactly(client);
        assertThat(server.bean(Payments.class).clientsOfReference(" ")).isEmpty();
    }

    private static PaymentsService.Recorded ticking(ClientId client, String amount, List<Long> debts) {
        return new PaymentsService.Recorded(
                "ticking-" + client,
                client,
                null,
                "TRANSFER",
                null,
                amount,
                DAY.toString(),
                "RF 12 Wolf",
                false,
                debts,
                true);
    }

    @Test
    public void valuesInTheOwnCurrencyHaveBounds() {
        ClientId client = server.client("Bounds", true);
        server.bean(Rates.class).note(new Rates.Rate("KWD", DAY.toString(), "1000000"));
        assertThatThrownBy(() -> payments.record(new PaymentsService.Recorded(
                        "beyond-the-books", client, null, "CASH", "KWD", "2000000.000", "", "", false)))
                .hasMessageContaining("amount")
                .hasMessageContaining("1,000,000,000,000");
        assertThatThrownBy(() -> server.bean(Rates.class).note(new Rates.Rate("JPY", "", "1000001")))
                .hasMessageContaining("rate");
        assertThatThrownBy(() -> server.bean(Rates.class).note(new Rates.Rate("JPY", "2300-01-01", "1")))
                .hasMessageContaining("1900 to 2200");
    }

    private String waiting(ClientId client) {
        return server.bean(Debts.class)
                .waitingCreditOf(client, CurrencyUnit.EUR)
                .toString();
    }
}
