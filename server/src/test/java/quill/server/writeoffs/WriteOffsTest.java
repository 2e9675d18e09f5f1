package quill.server.writeoffs;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Account;
import quill.core.ledger.Standing;
import quill.server.Server;
import quill.server.books.BooksService;
import quill.server.common.ConflictException;
import quill.server.creditnotes.Crediting;
import quill.server.debts.Debts;
import quill.server.debts.OpenSums;
import quill.server.documents.DocumentState;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Measure;

/** What is open of an invoice is given up, and owed again when money comes after all. */
public class WriteOffsTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;

    private Server server;
    private WriteOffs writeOffs;
    private ClientId client;
    private DocumentId invoice;

    @BeforeMethod
    public void owe() {
        server = new Server();
        server.setUp(BEGIN);
        writeOffs = server.bean(WriteOffs.class);
        client = server.client("Ida Corrow", true);
        invoice = server.issue(client, "300.00", "40%@0 rest@10", null);
        server.pay(client, invoice, "150.00", BEGIN);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private static Money eur(String amount) {
        return Money.of(EUR, new BigDecimal(amount));
    }

    private DocumentState state() {
        return server.bean(InvoicesService.class).invoice(invoice).state();
    }

    private Money badDebts() {
        return server.bean(BooksService.class).balances().own().stream()
                .filter(b -> b.account() == Account.BAD_DEBTS)
                .map(b -> b.amount())
                .reduce(Money.zero(EUR), Money::plus);
    }

    private void agree() {
        assertThat(server.bean(Debts.class).agreement(client, EUR).holds()).isTrue();
        assertThat(server.bean(OpenSums.class).disagreeing()).isEmpty();
    }

    @Test
    public void whatIsOpenGoesToBadDebtsAndBack() {
        writeOffs.writeOff(invoice, "150.00", "cannot pay");
        assertThat(state()).isEqualTo(DocumentState.SETTLED);
        assertThat(badDebts()).isEqualTo(eur("150.00"));
        assertThat(Measure.of(server.bean(Debts.class).of(invoice), BEGIN))
                .extracting(Measure.Part::standing)
                .containsExactly(Standing.SETTLED, Standing.WRITTEN_OFF);
        agree();
        writeOffs.oweAgain(invoice);
        assertThat(state()).isEqualTo(DocumentState.OPEN);
        assertThat(badDebts()).isEqualTo(eur("0.00"));
        agree();
        assertThatThrownBy(() -> writeOffs.oweAgain(invoice)).isInstanceOf(ConflictException.class);
    }

    /** Money that comes after all is client credit, until somebody says that it is owed again. */
    @Test
    public void moneyThatComesAfterAllSettlesIt() {
        writeOffs.writeOff(invoice, "150.00", "cannot pay");
        server.pay(client, invoice, "100.00", BEGIN);
        assertThat(server.bean(BooksService.class).creditOf(client, EUR)).isEqualTo(eur("100.00"));
        writeOffs.oweAgain(invoice);
        assertThat(server.bean(BooksService.class).creditOf(client, EUR)).isEqualTo(eur("0.00"));
        assertThat(server.bean(InvoicesService.class).invoice(invoice).open()).isEqualTo(eur("50.00"));
        writeOffs.writeOff(invoice, "50.00", "the rest for good");
        assertThat(badDebts()).isEqualTo(eur("50.00"));
        agree();
    }

    @Test
    public void nothingIsGivenUpThatNobodySaw() {
        assertThatThrownBy(() -> writeOffs.writeOff(invoice, "150.01", "cannot pay"))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("150.00 is open by now");
        assertThatThrownBy(() -> writeOffs.writeOff(invoice, "150.00", " ")).isInstanceOf(RefusedException.class);
        writeOffs.writeOff(invoice, "150.00", "cannot pay");
        assertThatThrownBy(() -> writeOffs.writeOff(invoice, "0.00", "again"))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("Nothing is open");
        assertThatThrownBy(() ->
                        server.bean(Crediting.class).write(invoice, Crediting.Wanted.rest("the wrong piano", false)))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("owed again");
        writeOffs.oweAgain(invoice);
        assertThat(server.bean(Crediting.class)
                        .preview(invoice, Crediting.Wanted.rest("the wrong piano", false))
                        .sums()
                        .total()
                        .money())
                .isEqualTo(eur("300.00"));
        server.bean(Crediting.class).write(invoice, Crediting.Wanted.rest("the wrong piano", false));
        agree();
    }
}
