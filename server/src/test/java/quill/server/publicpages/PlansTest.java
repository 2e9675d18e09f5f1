package quill.server.publicpages;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.document.TypedInstallmentOffer;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.schedule.TypedTerm;
import quill.core.tax.TaxRounding;
import quill.server.Server;
import quill.server.cardorders.CardOrders;
import quill.server.common.ConflictException;
import quill.server.creditnotes.Crediting;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.dispatch.DispatchService;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.invoices.InvoicesService;
import quill.server.invoices.Plans;
import quill.server.payments.PaymentsService;
import quill.server.payments.Undoing;

/** What an invoice offers on its page before it is paid: installments to pick once, a discount for paying early, a text to accept. */
public class PlansTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private Server server;
    private InvoicesService invoices;
    private Picking picking;
    private Debts debts;
    private ClientId client;
    private int keys;

    @BeforeMethod
    public void start() {
        server = new Server();
        server.setUp(BEGIN);
        server.account();
        invoices = server.bean(InvoicesService.class);
        picking = server.bean(Picking.class);
        debts = server.bean(Debts.class);
        client = server.client("Ida Corrow", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private static Money eur(String amount) {
        return Money.of(CurrencyUnit.EUR, new BigDecimal(amount));
    }

    private DocumentId draft(String price, TypedInstallmentOffer plan, List<String> taxes, TypedTerm... terms) {
        return invoices.begin(TypedDraft.in("EUR")
                .client(client)
                .subject("the restoration")
                .supplyDate(BEGIN.toString())
                .lines(List.of(new TypedLine("Restoration", "1", "", price, "", taxes)))
                .schedule(List.of(terms))
                .plan(plan)
                .build());
    }

    private Document issued(String price, TypedInstallmentOffer plan, List<String> taxes, TypedTerm... terms) {
        return invoices.issue(draft(price, plan, taxes, terms), 1);
    }

    private Document plain(TypedInstallmentOffer plan) {
        return issued("1890.00", plan, List.of("none"), new TypedTerm(false, "rest", "30"));
    }

    private long pay(Document invoice, String amount, LocalDate on) {
        return server.bean(PaymentsService.class)
                .record(new PaymentsService.Recorded(
                        "plans-test-" + keys++, client, invoice.id(), "TRANSFER", amount, on.toString(), ""))
                .id();
    }

    /** What a letter with the invoice says now. */
    private String letter(Document invoice) {
        server.bean(DispatchService.class).sendAgain(invoice.id(), "plans-letter-" + keys++);
        return server.jdbc()
                .sql("SELECT text FROM message_text ORDER BY message_id DESC LIMIT 1")
                .query(String.class)
                .single();
    }

    private Money open(Document invoice) {
        return Money.ofMinor(CurrencyUnit.EUR, invoices.invoice(invoice.id()).openMinor());
    }

    private void agree() {
        assertThat(debts.agreement(client, CurrencyUnit.EUR).holds()).isTrue();
    }

    /** What the page offers stands in the letter as long as it is to be had, and no longer. */
    @Test
    public void theLetterSaysWhatCanBePicked() {
        Document both = plain(new TypedInstallmentOffer("12", "31 Mar", "10%", false));
        assertThat(letter(both))
                .contains("On its page you can pick up to 12 monthly installments instead, or pay €1,701.00 for all"
                        + " of it by 31 March 2027.");
        picking.pick(both, 6, eur("1890.00"), "");
        assertThat(letter(both)).doesNotContain("pick").doesNotContain("1,701.00");
        assertThat(letter(plain(new TypedInstallmentOffer("3", "31 Mar", "", true))))
                .contains("On its page you can pick up to 3 monthly installments instead, the first on 31 March 2027."
                        + " Please accept it there first, with your name.");
        Document early = plain(new TypedInstallmentOffer("", "31 Mar", "10%", false));
        assertThat(letter(early)).contains("Paid whole by 31 March 2027, it is €1,701.00.");
        server.moveTo(LocalDate.of(2027, 4, 1), java.time.LocalTime.of(8, 0));
        assertThat(letter(early)).doesNotContain("1,701.00");
    }

    /** 1,890.00 in 12 is 157.50 each, monthly from the first day; picked once, the schedule is fixed. */
    @Test
    public void theClientPicksOnceAndTheScheduleIsFixed() {
        Document invoice = plain(new TypedInstallmentOffer("12", "31 Mar", "", false));
        List<Picking.PickChoice> choices = picking.choices(invoice);
        assertThat(choices).hasSize(11);
        assertThat(choices.get(10).parts())
                .hasSize(12)
                .allMatch(p -> p.amount().amount().equals("157.50"));
        assertThat(choices.get(10).parts().get(1).dueOn()).isEqualTo("2027-04-30");
        assertThatThrownBy(() -> picking.pick(invoice, 13, eur("1890.00"), ""))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("count (13): must be from 2 to 12");
        assertThatThrownBy(() -> picking.pick(invoice, 6, eur("1889.99"), "")).hasMessageContaining("1,890.00 is open");
        picking.pick(invoice, 12, eur("1890.00"), "203.0.113.9");
        assertThat(debts.of(invoice.id()))
                .extracting(StoredInstallment::open)
                .hasSize(12)
                .allMatch(eur("157.50")::isEqual);
        assertThatThrownBy(() -> picking.pick(invoice, 6, eur("1890.00"), ""))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("12 installments were picked already");
        assertThat(picking.view(invoices.invoice(invoice.id())).picked()).isEqualTo(12);
        assertThat(server.jdbc()
                        .sql("SELECT letter FROM message ORDER BY id")
                        .query(String.class)
                        .list())
                .containsExactly("ARRANGED");
        agree();
    }

    @Test
    public void afterItsFirstDayNothingCanBePicked() {
        Document invoice = plain(new TypedInstallmentOffer("12", "31 Mar", "10%", false));
        server.moveTo(LocalDate.of(2027, 4, 1), java.time.LocalTime.of(9, 0));
        assertThat(picking.choices(invoice)).isEmpty();
        assertThat(picking.view(invoice).early()).isNull();
        assertThatThrownBy(() -> picking.pick(invoice, 6, eur("1890.00"), "")).hasMessageContaining("any more");
        // Paid in time, noted late: the day on which the money moved counts.
        pay(invoice, "1701.00", LocalDate.of(2027, 3, 30));
        assertThat(open(invoice).isZero()).isTrue();
        agree();
    }

    /** 10 % off for paying at once leaves 1,701.00, net and tax reduced in proportion; undone, the whole is open again. */
    @Test
    public void theDiscountForPayingEarlyIsWithdrawnWithItsPayment() {
        server.registered(TaxRounding.PER_TAX, "BE0123456749");
        String high = server.tax("high", "21", "S", false, "");
        Document invoice = issued(
                "1561.98",
                new TypedInstallmentOffer("", "31 Mar", "10%", false),
                List.of(high),
                new TypedTerm(false, "rest", "30"));
        assertThat(invoice.totalMinor()).isEqualTo(189_000);
        assertThat(server.bean(Documents.class).document(invoice).matter().terms())
                .contains("189.00 is taken off (net 156.20, tax 32.80): 1,701.00 is to be paid then");
        assertThat(picking.view(invoice).early().amount()).isEqualTo("1701.00");
        long payment = pay(invoice, "1701.00", BEGIN);
        assertThat(open(invoice).isZero()).isTrue();
        assertThat(balance("DISCOUNTS_GIVEN")).isEqualTo(15_620);
        assertThat(balance("TAX")).isEqualTo(-32_802 + 3_280);
        agree();
        assertThatThrownBy(() -> server.bean(Crediting.class)
                        .write(
                                invoice.id(),
                                new Crediting.Wanted("amount", "damp", List.of(), List.of(), "10.00", false)))
                .hasMessageContaining("paid early, with a discount");
        server.bean(Undoing.class).undo(payment, "it did not come");
        assertThat(open(invoice)).isEqualTo(eur("1890.00"));
        assertThat(balance("DISCOUNTS_GIVEN")).isZero();
        agree();
        pay(invoice, "1701.00", BEGIN);
        server.bean(Crediting.class).write(invoice.id(), Crediting.Wanted.rest("it falls through", false));
        assertThat(debts.agreement(client, CurrencyUnit.EUR).credit()).isEqualTo(eur("1701.00"));
        assertThat(balance("DISCOUNTS_GIVEN")).isZero();
        agree();
    }

    private long balance(String account) {
        return server.jdbc()
                .sql("SELECT COALESCE(SUM(amount_minor), 0) FROM posting WHERE account = :a")
                .param("a", account)
                .query(Long.class)
                .single();
    }

    @Test
    public void whatIsPaidInPartOrTooLateIsNotPaidEarly() {
        Document invoice = plain(new TypedInstallmentOffer("", "31 Mar", "189.00", false));
        pay(invoice, "1700.99", BEGIN);
        assertThat(open(invoice)).isEqualTo(eur("189.01"));
        server.moveTo(LocalDate.of(2027, 4, 2), java.time.LocalTime.of(9, 0));
        pay(invoice, "0.01", LocalDate.of(2027, 4, 2));
        assertThat(open(invoice)).isEqualTo(eur("189.00"));
        agree();
    }

    @Test
    public void anotherAmountIsTakenOnlyWhereTheBusinessAllowsItAndADepositOnlyWhole() {
        CardOrders orders = server.bean(CardOrders.class);
        Document invoice = issued(
                "1000.00", null, List.of("none"), new TypedTerm(true, "40%", "0"), new TypedTerm(false, "rest", "30"));
        assertThatThrownBy(() -> orders.payAt(invoice, Set.of(), eur("500.00")))
                .hasMessageContaining("another amount is not taken");
        server.bean(Plans.class).allowOtherAmounts(true);
        assertThatThrownBy(() -> orders.payAt(invoice, Set.of(), eur("399.99")))
                .hasMessageContaining("the deposit is paid whole: at least 400.00");
        assertThatThrownBy(() -> orders.payAt(invoice, Set.of(), eur("1000.01")))
                .hasMessageContaining("at most 1,000.00");
        assertThatThrownBy(() -> orders.payAt(invoice, Set.of(), eur("0.00"))).hasMessageContaining("above zero");
    }

    @Test
    public void whatIsToBeAcceptedComesBeforePickingAndPaying() {
        Document invoice = plain(new TypedInstallmentOffer("6", "", "", true));
        String seal = picking.view(invoice).acceptance().seal();
        assertThatThrownBy(() -> picking.pick(invoice, 6, eur("1890.00"), "")).hasMessageContaining("accept");
        assertThatThrownBy(() -> server.bean(CardOrders.class).payAt(invoice, Set.of(1L), eur("1890.00")))
                .hasMessageContaining("accept");
        assertThatThrownBy(() -> picking.accept(invoice, "", seal, "")).hasMessageContaining("name");
        assertThatThrownBy(() -> picking.accept(invoice, "x".repeat(5000), seal, ""))
                .isInstanceOf(RefusedException.class);
        assertThatThrownBy(() -> picking.accept(invoice, "Ida Corrow", "another", ""))
                .hasMessageContaining("was changed");
        picking.accept(invoice, "Ida Corrow", seal, "203.0.113.9");
        assertThatThrownBy(() -> picking.accept(invoice, "Ida Corrow", seal, ""))
                .hasMessageContaining("already");
        picking.pick(invoice, 6, eur("1890.00"), "");
        assertThat(debts.of(invoice.id())).hasSize(6);
    }

    @DataProvider
    public Object[][] wrong() {
        return new Object[][] {
            {"0", "", "", "plan.most"},
            {"400", "", "", "plan.most"},
            {"1", "", "", "plan.most"},
            {"many", "", "", "plan.most"},
            {"12", "30 February", "", "plan.first"},
            {"12", "2027-02-28", "", "plan.first"},
            {"12", "2099-01-01", "", "plan.first"},
            {"", "", "100%", "plan.discount"},
            {"", "", "5000.00", "plan.discount"},
            {"", "", "-3", "plan.discount"},
        };
    }

    @Test(dataProvider = "wrong")
    public void whatCannotBeOfferedIsNamed(String most, String first, String discount, String field) {
        DocumentId id = draft("1890.00", new TypedInstallmentOffer(most, first, discount, false), List.of("none"));
        assertThatThrownBy(() -> invoices.issue(id, 1))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining(field);
    }
}
