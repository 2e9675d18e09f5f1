package quill.server.invoices;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.transaction.support.TransactionTemplate;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.schedule.TypedTerm;
import quill.server.Server;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.business.DocumentSetting;
import quill.server.business.DocumentSettings;
import quill.server.business.Rates;
import quill.server.common.ConflictException;
import quill.server.creditnotes.CreditNotes;
import quill.server.creditnotes.Crediting;
import quill.server.debts.Debts;
import quill.server.dispatch.DispatchService;
import quill.server.dispatch.Withdrawals;
import quill.server.documents.Document;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;
import quill.server.documents.PrintedDocument;
import quill.server.payments.PaymentsService;
import quill.server.payments.Undoing;

/** What becomes of an issued document: taken back unseen, voided, credited in parts, deducted from, in another currency. */
public class WholeDocumentsTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private Server server;
    private InvoicesService invoices;

    @BeforeClass
    public void start() {
        server = new Server();
        server.setUp(DAY);
        invoices = server.bean(InvoicesService.class);
        server.bean(DocumentSettings.class)
                .change(new DocumentSetting(
                        "ledger", "", List.of(), List.of(new DocumentSetting.Coin("EUR", "0.05")), 0));
    }

    @AfterClass
    public void stop() {
        server.close();
    }

    @Test
    public void whatNobodyHasSeenGoesBackToADraftAndKeepsItsNumber() {
        ClientId client = server.client("Unseen", true);
        DocumentId id = server.issue(client, "100.00", "40%@0 rest@30", null);
        String number = invoices.invoice(id).number();
        server.bean(Withdrawals.class).takeBack(id, "a slip");
        Document draft = invoices.invoice(id);
        assertThat(draft.isDraft()).isTrue();
        assertThat(draft.number()).isEqualTo(number);
        assertThat(owes(client)).isEqualTo("0.00");
        assertThat(server.bean(Documents.class).earlier(invoices.invoice(id)))
                .singleElement()
                .satisfies(e -> {
                    assertThat(e.document().number()).isEqualTo(number);
                    assertThat(e.why()).isEqualTo("a slip");
                });
        assertThatThrownBy(() -> invoices.discard(id, draft.version())).hasMessageContaining("numbers have no gaps");
        server.bean(DispatchService.class).issueAndSend(id, draft.version());
        assertThat(invoices.invoice(id).number()).isEqualTo(number);
        assertThat(owes(client)).isEqualTo("100.00");
        server.jdbc()
                .sql("UPDATE message SET state = 'sent' WHERE document_id = :id")
                .param("id", id)
                .update();
        assertThatThrownBy(() -> server.bean(Withdrawals.class).takeBack(id, "again"))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("only a credit note");
        agrees(client);
    }

    @Test
    public void aVoidedNumberStaysAndNothingIsOwed() {
        ClientId client = server.client("Voided", false);
        DocumentId id = server.issue(client, "30.00", "100%@0", null);
        DocumentId paid = server.issue(client, "20.00", "100%@0", null);
        server.bean(Withdrawals.class).voidIt(id, "never ordered");
        assertThat(invoices.invoice(id).voidedOn()).isEqualTo(DAY);
        assertThat(owes(client)).isEqualTo("20.00");
        assertThatThrownBy(() -> server.bean(Crediting.class).write(id, Crediting.Wanted.rest("x", false)))
                .hasMessageContaining("voided");
        assertThatThrownBy(() -> server.bean(DispatchService.class).sendAgain(id, "again-voided"))
                .hasMessageContaining("voided");
        server.pay(client, paid, "5.00", DAY);
        assertThatThrownBy(() -> server.bean(Withdrawals.class).voidIt(paid, "x"))
                .hasMessageContaining("was paid");
        // A draft that keeps a number can be voided too.
        DocumentId back = server.issue(client, "10.00", "100%@0", null);
        server.bean(Withdrawals.class).takeBack(back, "a slip");
        server.bean(Withdrawals.class).voidIt(back, "given up");
        assertThat(invoices.invoice(back).voidedOn()).isEqualTo(DAY);
        agrees(client);
    }

    /** An old page still offers to pay what was withdrawn meanwhile; the money is there all the same. */
    @Test
    public void moneyForAWithdrawnInvoiceIsCredit() {
        ClientId client = server.client("Withdrawn", true);
        DocumentId back = server.issue(client, "100.00", "100%@0", null);
        DocumentId voided = server.issue(client, "50.00", "100%@0", null);
        server.bean(Withdrawals.class).takeBack(back, "a slip");
        server.bean(Withdrawals.class).voidIt(voided, "never ordered");
        server.pay(client, back, "100.00", DAY);
        server.pay(client, voided, "50.00", DAY);
        assertThat(credit(client)).isEqualTo("150.00");
        agrees(client);
        invoices.issue(back, invoices.invoice(back).version());
        assertThat(open(back)).containsExactly("0.00");
        assertThat(credit(client)).isEqualTo("50.00");
        agrees(client);
    }

    @Test
    public void aPartTakesFromTheLastInstallmentAndTheRestIsCredit() {
        ClientId client = server.client("In Parts", true);
        DocumentId id = server.issue(client, "100.00", "40%@0 rest@30", null);
        server.pay(client, id, "70.00", DAY);
        credit(id, "20.00");
        assertThat(open(id)).containsExactly("0.00", "10.00");
        credit(id, "25.00");
        assertThat(open(id)).containsExactly("0.00", "0.00");
        assertThat(credit(client)).isEqualTo("15.00");
        assertThatThrownBy(() -> credit(id, "55.01"))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("at most 55.00");
        agrees(client);
        server.bean(Crediting.class).write(id, Crediting.Wanted.rest("all of it", false));
        assertThat(credit(client)).isEqualTo("70.00");
        assertThat(owes(client)).isEqualTo("-70.00");
        assertThat(server.bean(CreditNotes.class)
                        .left(invoices.invoice(id), server.bean(Documents.class).issued(invoices.invoice(id)))
                        .amount()
                        .isZero())
                .isTrue();
        agrees(client);
    }

    @Test
    public void aDepositIsDeductedAndComesBackWithTheCreditNote() {
        ClientId client = server.client("Deposit", true);
        deposit(client, "60.00");
        assertThat(owes(client)).isEqualTo("-60.00");
        TypedDraft draft = draft(client, "EUR", "80.02", "50.00", true);
        DocumentId id = invoices.issue(invoices.begin(draft), 1).id();
        // 80.02 less 50.00 is 30.02, in coins 30.00.
        assertThat(open(id)).containsExactly("30.00");
        assertThat(books().depositsOf(client, CurrencyUnit.EUR)).isEqualTo(Money.parse("EUR 10.00"));
        agrees(client);
        assertThatThrownBy(() -> invoices.issue(invoices.begin(draft(client, "EUR", "80.02", "10.01", false)), 1))
                .hasMessageContaining("at most 10.00 is held");
        server.bean(Crediting.class).write(id, Crediting.Wanted.rest("not done", false));
        assertThat(books().depositsOf(client, CurrencyUnit.EUR)).isEqualTo(Money.parse("EUR 60.00"));
        assertThat(credit(client)).isEqualTo("0.00");
        agrees(client);
        // Paid before in full: nothing is due, and the invoice is settled at once.
        DocumentId whole = invoices.issue(invoices.begin(draft(client, "EUR", "60.00", "60.00", false)), 1)
                .id();
        assertThat(invoices.invoice(whole).state()).isEqualTo(DocumentState.SETTLED);
        agrees(client);
    }

    @Test
    public void anotherCurrencyHasAnAccountOfItsOwnAndTheBooksStillSumToZero() {
        server.bean(Rates.class).note(new Rates.Rate("GBP", "2027-01-01", "1.1745"));
        ClientId client = server.client("Pounds", true);
        DocumentId id = invoices.issue(invoices.begin(draft(client, "GBP", "865.00", "", false)), 1)
                .id();
        assertThat(invoices.document(invoices.invoice(id)).sums().own().total().amount())
                .isEqualTo("1015.94");
        server.bean(Rates.class).note(new Rates.Rate("GBP", "2027-03-15", "1.2013"));
        server.bean(PaymentsService.class)
                .record(new PaymentsService.Recorded(
                        "pounds-" + client, client, id, "TRANSFER", "900.00", DAY.toString(), ""));
        CurrencyUnit pounds = CurrencyUnit.GBP;
        assertThat(books().balanceOf(client, pounds)).isEqualTo(Money.parse("GBP -35.00"));
        assertThat(books().creditOf(client, pounds)).isEqualTo(Money.parse("GBP 35.00"));
        assertThat(owes(client)).isEqualTo("0.00");
        assertThat(server.bean(Debts.class).agreement(client, pounds).holds()).isTrue();
        long sum = books().balances().own().stream()
                .mapToLong(b -> b.amount().getAmountMinorLong())
                .sum();
        assertThat(sum).isZero();
        // £865.00 stood at 1.1745 as €1,015.94 and came at 1.2013 as €1,039.12: a gain of 23.18, and nothing left open.
        assertThat(inOwn(client, "RECEIVABLE")).isZero();
        assertThat(inOwn(client, "EXCHANGE_DIFFERENCES")).isEqualTo(-2318);
        long payment = server.jdbc()
                .sql("SELECT id FROM movement WHERE client_id = :client")
                .param("client", client)
                .query(Long.class)
                .single();
        server.bean(Rates.class).note(new Rates.Rate("GBP", "2027-03-15", "1.4999"));
        server.bean(Undoing.class).undo(payment, "it was somebody else's");
        assertThat(inOwn(client, "BANK")).isZero();
        assertThat(inOwn(client, "CLIENT_CREDIT")).isZero();
        assertThat(books().balanceOf(client, pounds)).isEqualTo(Money.parse("GBP 865.00"));
        server.bean(Crediting.class).write(id, Crediting.Wanted.rest("not done", false));
        assertThat(inOwn(client, "RECEIVABLE")).isZero();
        assertThat(server.bean(Debts.class).agreement(client, pounds).holds()).isTrue();
        assertThatThrownBy(() -> invoices.issue(invoices.begin(draft(client, "CHF", "10.00", "", false)), 1))
                .hasMessageContaining("rate");
    }

    private long inOwn(ClientId client, String account) {
        return server.jdbc()
                .sql("SELECT SUM(own_minor) FROM posting WHERE client_id = :client AND account = :account")
                .param("client", client)
                .param("account", account)
                .query(Long.class)
                .single();
    }

    @Test
    public void aDraftKeepsTheDecimalMarkItWasTypedWith() {
        ClientId client = server.client("Comma", true);
        BusinessService business = server.bean(BusinessService.class);
        assertThat(business.mark()).as("as in Dublin").isEqualTo(".");
        TypedDraft plain = draft(client, "EUR", "1,234", "", false);
        TypedDraft comma = withMark(plain, ",");
        assertThat(server.bean(Documents.class).reckon(plain).sums().total().amount())
                .isEqualTo("1234.00");
        assertThat(server.bean(Documents.class).reckon(plain).understood())
                .anySatisfy(u -> assertThat(u.as()).isEqualTo("1 thousand 234"));
        assertThat(server.bean(Documents.class).reckon(comma).sums().total().amount())
                .isEqualTo("1.23");
        assertThat(server.bean(Documents.class).reckon(comma).understood())
                .anySatisfy(u -> assertThat(u.as()).isEqualTo("1 and 234 thousandths"));
        DocumentId id = invoices.begin(comma);
        business.changeMark(",");
        business.changeMark(".");
        DocumentId copy = invoices.duplicate(id);
        assertThat(invoices.typed(invoices.invoice(copy)).mark()).isEqualTo(",");
        assertThat(server.bean(Documents.class)
                        .reckon(invoices.typed(invoices.invoice(copy)))
                        .sums()
                        .total()
                        .amount())
                .isEqualTo("1.23");
        assertThatThrownBy(() -> business.changeMark("x")).isInstanceOf(RefusedException.class);
    }

    @Test
    public void whatIsTakenOffIsPrintedAsAllElseHoweverItWasTyped() {
        ClientId client = server.client("Less Typed", true);
        TypedDraft typed = draft(client, "EUR", "2.000,00", "", false);
        TypedDraft.TypedLine line = typed.lines().get(0);
        TypedDraft comma =
                withMark(typed, ",", new TypedDraft.TypedLine("Work", "1", "", "2.000", "1.250", line.taxes()));
        DocumentId id = invoices.issue(invoices.begin(comma), 1).id();
        PrintedDocument document = invoices.document(invoices.invoice(id));
        assertThat(document.body().lines().get(0).discount()).isEqualTo("1,250.00");
        assertThat(document.sums().total().amount()).isEqualTo("750.00");
    }

    private static TypedDraft withMark(TypedDraft d, String mark) {
        return withMark(d, mark, d.lines().get(0));
    }

    private static TypedDraft withMark(TypedDraft d, String mark, TypedDraft.TypedLine line) {
        return d.changed().lines(List.of(line)).mark(mark).build();
    }

    private void deposit(ClientId client, String amount) {
        server.bean(PaymentsService.class)
                .record(new PaymentsService.Recorded(
                        "deposit-held-" + client, client, null, "CASH", "EUR", amount, DAY.toString(), "", true));
    }

    private static TypedDraft draft(ClientId client, String currency, String price, String prepaid, boolean cash) {
        return TypedDraft.in(currency)
                .client(client)
                .subject("work")
                .supplyDate(DAY.toString())
                .cash(cash)
                .lines(List.of(new TypedLine("Work", "1", "", price, "", List.of("none"))))
                .prepaid(prepaid)
                .schedule(List.of(new TypedTerm(false, "rest", "0")))
                .build();
    }

    private void credit(DocumentId id, String amount) {
        server.bean(Crediting.class)
                .write(id, new Crediting.Wanted("amount", "a part", List.of(), List.of(), amount, true));
    }

    private BooksService books() {
        return server.bean(BooksService.class);
    }

    private String owes(ClientId client) {
        return books().balanceOf(client, CurrencyUnit.EUR).getAmount().toPlainString();
    }

    private String credit(ClientId client) {
        return books().creditOf(client, CurrencyUnit.EUR).getAmount().toPlainString();
    }

    private List<String> open(DocumentId invoice) {
        return server.bean(Debts.class).of(invoice).stream()
                .map(d -> d.open().getAmount().toPlainString())
                .toList();
    }

    private void agrees(ClientId client) {
        boolean holds = new TransactionTemplate(
                        server.bean(org.springframework.transaction.PlatformTransactionManager.class))
                .execute(t -> server.bean(Debts.class)
                        .agreement(client, CurrencyUnit.EUR)
                        .holds());
        assertThat(holds).isTrue();
    }
}
