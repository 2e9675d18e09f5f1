package quill.server.payments;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.Server;
import quill.server.books.BooksService;
import quill.server.common.ConflictException;
import quill.server.creditnotes.Crediting;
import quill.server.dailyrun.DailyRun;
import quill.server.debts.Debts;
import quill.server.debts.OpenSums;
import quill.server.debts.StoredInstallment;

/** A payment that was recorded wrongly takes back what it, and its own credit, had settled: no other's. */
public class UndoneCreditTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 1);
    private Server server;
    private ClientId client;

    @BeforeMethod
    public void start() {
        server = new Server();
        server.setUp(DAY);
        server.bean(DailyRun.class).catchUp();
        client = server.client("Paid Ahead", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        assertThat(server.bean(OpenSums.class).disagreeing()).isEmpty();
        server.close();
    }

    @Test
    public void otherCreditThatIsLeftTakesItsPlace() {
        long first = server.pay(client, null, "100.00", DAY);
        long second = server.pay(client, null, "50.00", DAY);
        DocumentId invoice = server.issue(client, "80.00", "100%@3", null);
        assertThat(open(invoice)).isEqualTo("0.00");
        undo(first);
        assertThat(open(invoice)).isEqualTo("30.00");
        assertThat(credit()).isEqualTo("0.00");
        undo(second);
        assertThat(open(invoice)).isEqualTo("80.00");
        assertThatThrownBy(() -> undo(first)).isInstanceOf(ConflictException.class);
        server.pay(client, invoice, "80.00", DAY);
        assertThat(open(invoice)).isEqualTo("0.00");
    }

    @Test
    public void whatAnotherPaymentsCreditCoversStaysCovered() {
        DocumentId older = server.issue(client, "30.00", "100%@1", null);
        long exact = server.pay(client, older, "30.00", DAY);
        server.pay(client, null, "40.00", DAY);
        DocumentId newer = server.issue(client, "40.00", "100%@3", null);
        undo(exact);
        assertThat(open(older)).isEqualTo("30.00");
        assertThat(open(newer)).isEqualTo("0.00");
    }

    @Test
    public void whatACreditNoteFreedIsTakenBackWithItsPayment() {
        DocumentId wrong = server.issue(client, "60.00", "100%@1", null);
        long paid = server.pay(client, wrong, "60.00", DAY);
        server.bean(Crediting.class).write(wrong, Crediting.Wanted.rest("never done", false));
        assertThat(credit()).isEqualTo("60.00");
        DocumentId other = server.issue(client, "45.00", "100%@3", null);
        assertThat(open(other)).isEqualTo("0.00");
        assertThat(credit()).isEqualTo("15.00");
        undo(paid);
        assertThat(open(other)).isEqualTo("45.00");
        assertThat(credit()).isEqualTo("0.00");
    }

    /** It never came, and its credit went back as another's money: of that, then, so much is here still. */
    @Test
    public void whatWentBackAsAnotherPaymentsMoneyOpensWhatThatSettles() {
        DocumentId invoice = server.issue(client, "100.00", "100%@3", null);
        long came = server.pay(client, invoice, "100.00", DAY);
        long never = server.pay(client, null, "80.00", DAY);
        server.bean(PaymentRefunds.class)
                .give(new PaymentRefunds.Given("refund-1-1", came, "", "80.00", DAY.toString(), "", false, false));
        assertThat(open(invoice)).isEqualTo("0.00");
        undo(never);
        assertThat(open(invoice)).isEqualTo("80.00");
        assertThat(credit()).isEqualTo("0.00");
    }

    @Test
    public void aDepositThatAnInvoiceDeductedIsTakenFromAnother() {
        long first = held("20.00", "deposit-one");
        held("25.00", "deposit-two");
        assertThat(deposits()).isEqualTo("45.00");
        undo(first);
        assertThat(deposits()).isEqualTo("25.00");
    }

    private long held(String amount, String key) {
        return server.bean(PaymentsService.class)
                .record(new PaymentsService.Recorded(key, client, null, "CASH", null, amount, null, "", true))
                .id();
    }

    private void undo(long payment) {
        server.bean(Undoing.class).undo(payment, "typed twice");
    }

    private String open(DocumentId invoice) {
        List<StoredInstallment> all = server.bean(Debts.class).of(invoice);
        return Amounts.plain(Amounts.sum(
                CurrencyUnit.EUR, all.stream().map(StoredInstallment::open).toList()));
    }

    private String credit() {
        return Amounts.plain(server.bean(BooksService.class).creditOf(client, CurrencyUnit.EUR));
    }

    private String deposits() {
        return Amounts.plain(server.bean(BooksService.class).depositsOf(client, CurrencyUnit.EUR));
    }
}
