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
        hand.chequeCameBack("back-1-1-1", cheque.id(), "", "7.50", "account closed");
        assertThat(open()).isEqualTo("100.00");
        assertThat(server.bean(InvoicesService.class).invoice(other).openMinor())
                .isEqualTo(5000);
        assertThat(letters()).anyMatch(t -> t.contains("account closed"));
        assertThatThrownBy(() -> hand.chequeCameBack("back-2-2-2", cheque.id(), "", "", "again"))
                .isInstanceOf(ConflictException.class);
        server.close();
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
