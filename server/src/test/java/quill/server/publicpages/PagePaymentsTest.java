package quill.server.publicpages;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import org.joda.money.Money;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.pay.PaymentWay;
import quill.core.pay.WayToPay;
import quill.server.ObedientProcessor;
import quill.server.Server;
import quill.server.cardorders.CardOrders;
import quill.server.collections.SavedViews;
import quill.server.common.ConflictException;
import quill.server.debts.Debts;
import quill.server.dispatch.Correspondence;
import quill.server.dispatch.DocumentWays;
import quill.server.dispatch.PayerGets;
import quill.server.dispatch.ReceiptSettings;
import quill.server.dispatch.WaysToPay;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.links.Links;
import quill.server.payments.Payment;
import quill.server.payments.Payments;
import quill.server.savedmethods.SavedMethods;
import quill.server.ways.OnTopService;
import quill.server.ways.WaysService;

/** What an invoice's page takes: by a wallet, or held until the work is done; and what whoever paid is sent. */
public class PagePaymentsTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private static final Money HUNDRED = Money.parse("EUR 100.00");
    private ObedientProcessor processor;
    private Server server;
    private ClientId client;

    @BeforeMethod
    public void start() throws IOException {
        processor = new ObedientProcessor();
        server = new Server("--quill.processor.url=" + processor.url());
        server.setUp(BEGIN);
        server.account();
        client = server.client("Page Payer", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
        processor.close();
    }

    private Document issue() {
        return server.bean(InvoicesService.class).invoice(server.issue(client, "100.00", "100%@3", null));
    }

    private Document now(Document invoice) {
        return server.bean(InvoicesService.class).invoice(invoice.id());
    }

    private List<Long> parts(Document invoice) {
        return server.bean(Debts.class).of(invoice.id()).stream()
                .map(d -> d.id())
                .toList();
    }

    private void offer(WayToPay... ways) {
        EnumSet<WayToPay> on = EnumSet.copyOf(List.of(ways));
        WaysService service = server.bean(WaysService.class);
        service.change(
                service.setting().ways().stream()
                        .map(w -> w.switched(on.contains(WayToPay.valueOf(w.way()))))
                        .toList(),
                service.setting().version());
    }

    /** @return the order's number, as its page's address says */
    private String begin(Document invoice, SavedViews.TypedKeep keep, OnTopService.Chosen chosen) {
        String address = server.bean(PublicController.class)
                .pay(
                        server.bean(Links.class).tokenOf(invoice.id()),
                        new PublicController.Pay(parts(invoice), "100.00", "EUR", "", "", keep, chosen))
                .address();
        return address.substring(address.lastIndexOf('/') + 1);
    }

    private void ask() {
        server.bean(CardOrders.class).askAboutAll(() -> false);
    }

    private Payment payment() {
        return server.bean(Payments.class).ofClient(client).get(0);
    }

    private ClientPages.PublicPage page(Document invoice) {
        return server.bean(ClientPages.class).of(now(invoice));
    }

    private List<String> letters() {
        return server.jdbc().sql("""
                        SELECT text FROM message_text t JOIN message m ON m.id = t.message_id
                         WHERE m.what_key LIKE 'receipt:%' ORDER BY m.id
                        """).query(String.class).list();
    }

    @Test
    public void aWalletIsAnotherWayOfUsingACard() {
        offer(WayToPay.CARD, WayToPay.BANK_DEBIT, WayToPay.SATCHEL, WayToPay.HATBOX);
        Document invoice = issue();
        ClientPages.Choice choice = page(invoice).paying().choices().get(0);
        assertThat(choice.by()).isEqualTo("by card or bank debit");
        assertThat(choice.wallets()).containsExactly("Satchel", "Hatbox");
        String order = begin(invoice, null, null);
        assertThat(processor.asked(order)).contains("card", "debit", "satchel", "hatbox");
        processor.payWithWallet(order, "Hatbox");
        ask();
        assertThat(payment().means().way()).isEqualTo(PaymentWay.WALLET);
        assertThat(payment().words()).isEqualTo("by wallet, Hatbox ending 0019");
        assertThat(now(invoice).openMinor()).isZero();
        assertThat(WayToPay.online(PaymentWay.WALLET, "Hatbox ending 0019")).isEqualTo(WayToPay.HATBOX);
    }

    @Test
    public void whereOnlyWalletsAreTakenPageAndLetterSaySo() {
        offer(WayToPay.SATCHEL, WayToPay.HATBOX);
        Document invoice = issue();
        assertThat(page(invoice).paying().choices().get(0).by()).isEqualTo("by wallet");
        assertThat(server.bean(WaysToPay.class)
                        .of(HUNDRED, client, invoice.id())
                        .how())
                .containsExactly("by wallet on its page");
        assertThat(processor.asked(begin(invoice, null, null))).doesNotContain("card\"", "debit");
        assertThat(server.bean(WaysService.class).keeping(client))
                .as("what is kept is typed")
                .isEmpty();
    }

    /** A surcharge is for a card, be it typed or in a wallet; a bank debit alone goes without it. */
    @Test
    public void aSurchargeIsAskedOfACardInAWalletToo() {
        offer(WayToPay.CARD, WayToPay.BANK_DEBIT, WayToPay.SATCHEL);
        server.bean(OnTopService.class)
                .change(new OnTopService.OnTopSetting(true, "2", "", "", "", false, "", false, 0));
        String order = begin(issue(), null, new OnTopService.Chosen("", "", "102.00"));
        assertThat(processor.asked(order)).contains("card", "satchel").doesNotContain("debit");
        processor.payWithWallet(order, "Satchel");
        ask();
        assertThat(payment().total()).isEqualTo(Money.parse("EUR 102.00"));
    }

    @Test
    public void aPageThatHoldsTakesNothing() {
        offer(WayToPay.CARD, WayToPay.BANK_DEBIT, WayToPay.TRANSFER);
        server.bean(SavedMethods.class).change(new SavedMethods.SavedSetting(true, 14, 0));
        Document invoice = issue();
        String before = begin(invoice, null, null);
        DocumentWays ways = server.bean(DocumentWays.class);
        assertThat(ways.hold(invoice.id(), true).hold()).isTrue();
        ask();
        assertThat(processor.state(before))
                .as("what was begun to be paid is withdrawn")
                .isEqualTo("withdrawn");
        ClientPages.PayingNow paying = page(invoice).paying();
        assertThat(paying.hold()).isTrue();
        assertThat(paying.choices().get(0).by()).isEqualTo("by card");
        assertThat(server.bean(WaysToPay.class)
                        .of(HUNDRED, client, invoice.id())
                        .how())
                .containsExactly(
                        "by having it held on a card, on its page, until the work is done", "by bank transfer");
        String order = begin(invoice, new SavedViews.TypedKeep(false, ""), null);
        assertThat(processor.asked(order))
                .contains("\"hold\":true", "\"keep\":true")
                .doesNotContain("debit");
        processor.hold(order);
        ask();
        assertThat(now(invoice).openMinor()).as("nothing is taken").isEqualTo(100_00);
        assertThat(page(invoice).moving().coming())
                .singleElement()
                .satisfies(c -> assertThat(c.held()).isTrue());
        assertThatThrownBy(() -> begin(invoice, null, null))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("is held on a card for this already");
        assertThat(server.bean(SavedMethods.class).ofClient(client)).hasSize(1);
    }

    @Test
    public void aReceiptGoesWithTheInvoiceMarkedPaidOnceAllOfItIs() {
        ReceiptSettings settings = server.bean(ReceiptSettings.class);
        settings.change(new ReceiptSettings.ReceiptSetting(PayerGets.MARKED_INVOICE.name(), 0));
        Document invoice = issue();
        server.pay(client, invoice.id(), "40.00", BEGIN);
        processor.pay(order(invoice, "60.00"));
        ask();
        assertThat(now(invoice).openMinor()).isZero();
        assertThat(letters()).hasSize(2);
        assertThat(letters().get(0)).contains("€60.00 is still to be paid").doesNotContain("marked paid");
        assertThat(letters().get(1)).contains("This invoice is settled. The invoice that is paid with it goes along");
        assertThat(server.jdbc()
                        .sql("SELECT name FROM message_attachment")
                        .query(String.class)
                        .list())
                .containsExactly("invoice-" + invoice.number() + ".pdf");
    }

    private String order(Document invoice, String amount) {
        String address = server.bean(PublicController.class)
                .pay(
                        server.bean(Links.class).tokenOf(invoice.id()),
                        new PublicController.Pay(parts(invoice), amount, "EUR", "", "", null, null))
                .address();
        return address.substring(address.lastIndexOf('/') + 1);
    }

    @Test
    public void whereThePayerGetsNothingOnlyWhatAPersonTicksGoes() {
        ReceiptSettings settings = server.bean(ReceiptSettings.class);
        settings.change(new ReceiptSettings.ReceiptSetting(PayerGets.NOTHING.name(), 0));
        Document invoice = issue();
        assertThat(page(invoice).paying().receipts()).isFalse();
        processor.pay(begin(invoice, null, null));
        ask();
        assertThat(now(invoice).openMinor()).isZero();
        assertThat(letters()).isEmpty();
        server.pay(client, issue().id(), "10.00", BEGIN);
        assertThat(letters()).as("recorded by hand, its own tick decides").hasSize(1);
        assertThat(server.bean(Correspondence.class).ofClient(client, "")).isNotEmpty();
        assertThatThrownBy(() -> settings.change(new ReceiptSettings.ReceiptSetting("A_CAKE", 1)))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        e -> assertThat(e.problems())
                                .singleElement()
                                .satisfies(p -> assertThat(p.field()).isEqualTo("gets")));
        assertThatThrownBy(() -> settings.change(new ReceiptSettings.ReceiptSetting(PayerGets.RECEIPT.name(), 0)))
                .as("kept in another window meanwhile")
                .isInstanceOf(ConflictException.class);
    }
}
