package quill.server.ways;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.OnTop;
import quill.core.pay.WayToPay;
import quill.core.schedule.TypedTerm;
import quill.core.tax.TaxRounding;
import quill.server.ObedientProcessor;
import quill.server.Server;
import quill.server.books.BooksService;
import quill.server.cardorders.CardOrders;
import quill.server.cardorders.HowPaid;
import quill.server.common.ConflictException;
import quill.server.debts.Debts;
import quill.server.dispatch.Correspondence;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payer;
import quill.server.payments.Payment;
import quill.server.payments.PaymentRefunds;
import quill.server.payments.Payments;
import quill.server.ways.OnTopService.Chosen;
import quill.server.ways.OnTopService.OnTopSetting;

/** Tips and surcharges from their setting to the books: 400.00 by card with 2.5 %, 21 % tax on that, and 5.00 as a tip. */
public class OnTopPaidTest {
    private static final Money FOUR_HUNDRED = Money.parse("EUR 400.00");
    private ObedientProcessor processor;
    private Server server;
    private OnTopService onTop;
    private ClientId client;
    private String vat;
    private String zero;

    @BeforeMethod
    public void start() throws IOException {
        processor = new ObedientProcessor();
        server = new Server("--quill.processor.url=" + processor.url());
        server.setUp(LocalDate.of(2027, 3, 1));
        server.registered(TaxRounding.PER_TAX, "BE 0204 117 063");
        vat = server.tax("21%", "21", "S", false, "");
        zero = server.tax("0%", "0", "Z", false, "");
        onTop = server.bean(OnTopService.class);
        onTop.change(new OnTopSetting(true, "2.5", "", "", vat, true, "5% 10%", true, 0));
        client = server.client("Gives Tips", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        processor.close();
    }

    private Document issue() {
        InvoicesService invoices = server.bean(InvoicesService.class);
        DocumentId draft = invoices.begin(TypedDraft.in("EUR")
                .client(client)
                .subject("work")
                .supplyDate("2027-03-01")
                .lines(List.of(new TypedDraft.TypedLine("Work", "1", "", "400.00", "", List.of(zero))))
                .schedule(List.of(new TypedTerm(false, "100%", "30")))
                .build());
        return invoices.invoice(invoices.issue(draft, 1).id());
    }

    private Payment pay(Document invoice, Chosen chosen) {
        OnTopService.Paid paid = onTop.paid(FOUR_HUNDRED, chosen);
        Set<Long> parts = Set.copyOf(server.bean(Debts.class).of(invoice.id()).stream()
                .map(d -> d.id())
                .toList());
        String address = server.bean(CardOrders.class)
                .payAt(invoice, parts, FOUR_HUNDRED, Payer.NONE, HowPaid.PLAIN.with(paid.only(), paid.top()));
        processor.pay(address.substring(address.lastIndexOf('/') + 1));
        server.bean(CardOrders.class).askAboutAll(() -> false);
        return server.bean(Payments.class).ofClient(client).get(0);
    }

    /** What each account holds, in words. */
    private Map<String, String> books() {
        Map<String, String> sums = new TreeMap<>();
        server.jdbc()
                .sql("SELECT account, SUM(amount_minor) FROM posting GROUP BY account HAVING SUM(amount_minor) <> 0")
                .query((rs, n) -> sums.put(
                        rs.getString(1),
                        java.math.BigDecimal.valueOf(rs.getLong(2), 2).toPlainString()))
                .list();
        return sums;
    }

    @Test
    public void bothComeBesideThePaymentAndSettleNothing() {
        Document invoice = issue();
        Payment p = pay(invoice, new Chosen("CARD", "5.00", "417.10"));
        assertThat(p.amount().amount()).isEqualTo("400.00");
        assertThat(p.total()).isEqualTo(Money.parse("EUR 417.10"));
        assertThat(server.bean(InvoicesService.class).invoice(invoice.id()).openMinor())
                .isZero();
        assertThat(server.bean(BooksService.class).balanceOf(client, FOUR_HUNDRED.getCurrencyUnit()))
                .isEqualTo(Money.parse("EUR 0.00"));
        assertThat(books())
                .containsEntry("TIPS", "-5.00")
                .containsEntry("SURCHARGES", "-10.00")
                .containsEntry("TAX", "-2.10")
                .containsEntry("PROCESSOR_CLEARING", "416.80")
                .doesNotContainKey("CLIENT_CREDIT");
        assertThat(server.bean(Correspondence.class).ofClient(client, ""))
                .filteredOn(m -> m.subject().contains("receipt"))
                .singleElement()
                .satisfies(m -> assertThat(server.jdbc()
                                .sql("SELECT text FROM message_text WHERE message_id = " + m.id())
                                .query(String.class)
                                .single())
                        .contains("Your payment of €400.00 for invoice")
                        .contains("With it came €5.00 as a tip; thank you.")
                        .contains("€12.10 was asked on top for paying by card, €2.10 of it tax."));
    }

    @Test
    public void theyGoBackOnlyWhereThatIsSaid() {
        Payment p = pay(issue(), new Chosen("CARD", "5.00", "417.10"));
        PaymentRefunds refunds = server.bean(PaymentRefunds.class);
        give(refunds, p, "1.00", false);
        assertThat(books()).containsEntry("TIPS", "-5.00");
        give(refunds, p, "2.00", true);
        assertThat(books())
                .doesNotContainKey("TIPS")
                .doesNotContainKey("SURCHARGES")
                .doesNotContainKey("TAX");
        // 417.10 less the fee of 0.30, less 1.00, less 2.00 and 17.10.
        assertThat(books()).containsEntry("PROCESSOR_CLEARING", "396.70");
        give(refunds, p, "3.00", true);
        assertThat(books()).containsEntry("PROCESSOR_CLEARING", "393.70").doesNotContainKey("TIPS");
    }

    private void give(PaymentRefunds refunds, Payment p, String amount, boolean withTop) {
        refunds.give(new PaymentRefunds.Given(
                "refund-" + amount.replace('.', '-'), p.id(), "", amount, "", "", true, withTop));
    }

    @Test
    public void aPayerSeesTheWholeBefore() {
        assertThat(onTop.paid(FOUR_HUNDRED, new Chosen("", "", "412.10")).only())
                .isEqualTo(WayToPay.CARD);
        assertThat(onTop.paid(FOUR_HUNDRED, new Chosen("BANK_DEBIT", "", ""))
                        .top()
                        .isAny())
                .isFalse();
        assertThatThrownBy(() -> onTop.paid(FOUR_HUNDRED, Chosen.NOTHING))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("€412.10 now");
        assertThatThrownBy(() -> onTop.paid(FOUR_HUNDRED, new Chosen("CARD", "5.00", "412.10")))
                .isInstanceOf(ConflictException.class);
        assertThatThrownBy(() -> onTop.paid(FOUR_HUNDRED, new Chosen("CARD", "400.01", "")))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("at most 400.00");
        assertThatThrownBy(() -> onTop.paid(FOUR_HUNDRED, new Chosen("CHEQUE", "", "")))
                .isInstanceOf(RefusedException.class);
    }

    @Test
    public void whatIsOffIsNotAsked() {
        onTop.change(new OnTopSetting(false, "2.5", "", "", "", false, "", true, 1));
        assertThat(onTop.paid(FOUR_HUNDRED, Chosen.NOTHING))
                .isEqualTo(new OnTopService.Paid(null, OnTop.nothing(FOUR_HUNDRED.getCurrencyUnit())));
        assertThatThrownBy(() -> onTop.paid(FOUR_HUNDRED, new Chosen("", "5.00", "405.00")))
                .hasMessageContaining("no tips are taken");
        assertThatThrownBy(() -> onTop.change(new OnTopSetting(true, "2.5", "", "", "", false, "", true, 1)))
                .isInstanceOf(ConflictException.class);
    }

    @Test
    public void aSettingThatIsWrongIsRefused() {
        assertThatThrownBy(() -> onTop.change(new OnTopSetting(true, "x", "0.001", "-1", "no-tax", true, "", false, 1)))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems())
                                .extracting(quill.core.Problem::field)
                                .contains("tax"));
        assertThatThrownBy(() -> onTop.change(new OnTopSetting(true, "x", "0.001", "-1", "", true, "", false, 1)))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems())
                                .extracting(quill.core.Problem::field)
                                .containsExactly("percent", "fixed", "most", "tips"));
        assertThat(onTop.setting().version()).isEqualTo(1);
    }

    @Test
    public void inTwoWindowsOneTipIsOneOrder() {
        Document invoice = issue();
        DocumentId id = invoice.id();
        Set<Long> parts = Set.copyOf(
                server.bean(Debts.class).of(id).stream().map(d -> d.id()).toList());
        OnTopService.Paid one = onTop.paid(FOUR_HUNDRED, new Chosen("CARD", "5.00", "417.10"));
        OnTopService.Paid other = onTop.paid(FOUR_HUNDRED, new Chosen("CARD", "", "412.10"));
        CardOrders orders = server.bean(CardOrders.class);
        String first =
                orders.payAt(invoice, parts, FOUR_HUNDRED, Payer.NONE, HowPaid.PLAIN.with(one.only(), one.top()));
        assertThat(orders.payAt(invoice, parts, FOUR_HUNDRED, Payer.NONE, HowPaid.PLAIN.with(one.only(), one.top())))
                .isEqualTo(first);
        String second =
                orders.payAt(invoice, parts, FOUR_HUNDRED, Payer.NONE, HowPaid.PLAIN.with(other.only(), other.top()));
        assertThat(second).isNotEqualTo(first);
        processor.pay(second.substring(second.lastIndexOf('/') + 1));
        orders.askAboutAll(() -> false);
        orders.askAboutAll(() -> false);
        assertThat(processor.state(first.substring(first.lastIndexOf('/') + 1))).isEqualTo("withdrawn");
    }
}
