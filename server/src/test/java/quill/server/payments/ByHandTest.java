package quill.server.payments;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.Server;
import quill.server.common.ConflictException;
import quill.server.debts.Debts;
import quill.server.debts.OpenSums;
import quill.server.invoices.InvoicesService;

/** What a person changes of a payment afterwards. */
public class ByHandTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private Server server;
    private DocumentId invoice;

    @Test
    public void whatAPaymentSettlesMovesAndAChequeThatBouncesOpensItWithItsCost() {
        server = new Server();
        server.setUp(BEGIN);
        ClientId client = server.client("Cheque Writer", true);
        invoice = server.issue(client, "100.00", "100%@3", null);
        DocumentId other = server.issue(client, "50.00", "100%@30", null);
        Payment cheque = server.bean(PaymentsService.class)
                .record(new PaymentsService.Recorded(
                        "cheque-1-1-1", client, invoice, "CHEQUE", "100.00", BEGIN.toString(), ""));
        long from = debt(invoice);
        long to = debt(other);
        ByHand hand = server.bean(ByHand.class);
        assertThatThrownBy(() -> hand.move("move-1-1-1", cheque.id(), from, to, "50.01"))
                .hasMessageContaining("at most 50.00 is open there");
        hand.move("move-2-2-2", cheque.id(), from, to, "30.00");
        hand.move("move-2-2-2", cheque.id(), from, to, "30.00");
        assertThat(open()).isEqualTo("30.00");
        assertThatThrownBy(() -> hand.chequeCameBack("back-0-0-0", cheque.id(), "28 Feb", "", "too early"))
                .hasMessageContaining("must be a day from 1 March 2027 up to today, 1 March 2027");
        hand.chequeCameBack("back-1-1-1", cheque.id(), "", "7.50", "account closed");
        assertThat(open()).isEqualTo("100.00");
        assertThat(server.bean(InvoicesService.class).invoice(other).openMinor())
                .isEqualTo(5000);
        assertThat(letters()).anyMatch(t -> t.contains("account closed"));
        assertThatThrownBy(() -> hand.chequeCameBack("back-2-2-2", cheque.id(), "", "", "again"))
                .isInstanceOf(ConflictException.class);
        server.close();
    }

    /** Its money went back as another payment's, whose own money settles still: that is opened in its place. */
    @Test
    public void aPaymentWhoseCreditWentBackAsAnothersCanGoBackToo() {
        server = new Server();
        server.setUp(BEGIN);
        ClientId client = server.client("Twice Payer", true);
        invoice = server.issue(client, "100.00", "100%@3", null);
        long first = server.pay(client, invoice, "100.00", BEGIN);
        long second = server.pay(client, null, "80.00", BEGIN);
        refund("refund-1-1", first, "80.00", false);
        assertThat(open()).isEqualTo("0.00");
        assertThatThrownBy(() -> refund("refund-2-2", second, "50.00", false))
                .hasMessageContaining("at most 0.00 is client credit");
        refund("refund-3-3", second, "50.00", true);
        assertThat(open()).isEqualTo("50.00");
        assertThatThrownBy(() -> refund("refund-4-4", second, "30.01", true)).hasMessageContaining("at most 30.00");
        refund("refund-5-5", first, "20.00", true);
        assertThat(open()).isEqualTo("70.00");
        assertThat(server.bean(OpenSums.class).disagreeing()).isEmpty();
        server.close();
    }

    private void refund(String key, long payment, String amount, boolean owedAgain) {
        server.bean(PaymentRefunds.class)
                .give(new PaymentRefunds.Given(key, payment, "", amount, BEGIN.toString(), "", owedAgain, false));
    }

    private long debt(DocumentId of) {
        return server.bean(Debts.class).of(of).get(0).id();
    }

    private String open() {
        return Amounts.plain(server.bean(Debts.class).of(invoice).get(0).open());
    }

    private List<String> letters() {
        return server.jdbc()
                .sql("SELECT text FROM message_text")
                .query(String.class)
                .list();
    }
}
