package quill.server.quotes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.transaction.support.TransactionTemplate;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.core.RefusedException;
import quill.core.document.TypedDraft;
import quill.core.document.TypedDraft.TypedLine;
import quill.core.document.TypedOffer;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.issued.IssuedDocument;
import quill.core.schedule.TypedTerm;
import quill.core.tax.TaxRounding;
import quill.server.Server;
import quill.server.cardorders.CardOrders;
import quill.server.common.ConflictException;
import quill.server.creditnotes.Crediting;
import quill.server.debts.Debts;
import quill.server.documents.Document;
import quill.server.documents.DocumentState;
import quill.server.documents.Documents;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payer;
import quill.server.payments.Payment;
import quill.server.payments.PaymentsService;
import quill.server.payments.Refunds;
import quill.server.payments.Undoing;
import quill.server.requests.Requests;

/** Money that comes on accepted quotes, and what is billed of them: deposits, stages, the final invoice. */
public class QuoteMoneyTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 3, 1);
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;

    private Server server;
    private QuotesService quotes;
    private QuoteInvoicing invoicing;
    private InvoicesService invoices;
    private Requests requests;
    private Documents documents;
    private ClientId client;
    private int keys;

    @BeforeMethod
    public void start() {
        server = new Server();
        server.setUp(BEGIN);
        server.account();
        quotes = server.bean(QuotesService.class);
        invoicing = server.bean(QuoteInvoicing.class);
        invoices = server.bean(InvoicesService.class);
        requests = server.bean(Requests.class);
        documents = server.bean(Documents.class);
        client = server.client("Ida Corrow", true);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        server.close();
    }

    private static Money eur(String amount) {
        return Money.of(EUR, new java.math.BigDecimal(amount));
    }

    /** 6,000.05 at 21 % and 953.70 at 6 %: 8,270.98 in all. */
    private Document accepted(TypedTerm... terms) {
        server.registered(TaxRounding.PER_TAX, "BE0123456749");
        String high = server.tax("high", "21", "S", false, "");
        String low = server.tax("low", "6", "S", false, "");
        return accept(
                List.of(
                        new TypedLine("Restoration", "1", "", "6000.05", "", List.of(high)),
                        new TypedLine("Sheet music", "10", "pc", "95.37", "", List.of(low))),
                terms);
    }

    private Document accept(List<TypedLine> lines, TypedTerm... terms) {
        DocumentId id = quotes.begin(TypedDraft.in("EUR")
                .client(client)
                .subject("the restoration of your grand")
                .lines(lines)
                .schedule(List.of(terms))
                .offer(new TypedOffer("", ""))
                .build());
        Document quote = quotes.issue(id, 1);
        server.bean(Answering.class)
                .acceptByHand(quote, new Answering.Acceptance("Ida Corrow, on the telephone", List.of(), null));
        return quotes.quote(id);
    }

    private static final TypedTerm HALF = new TypedTerm(true, "50%", "0");
    private static final TypedTerm REST = new TypedTerm(false, "rest", "14");

    private Payment transfer(Document quote, String amount) {
        return server.bean(PaymentsService.class)
                .record(new PaymentsService.Recorded(
                        "quote-money-" + keys++, client, quote.id(), "TRANSFER", amount, BEGIN.toString(), ""));
    }

    private Payment card(Document quote, String amount) {
        return server.bean(TransactionTemplate.class)
                .execute(s -> server.bean(PaymentsService.class)
                        .bookProcessors(new PaymentsService.ByProcessor(
                                "quote-money-" + keys++,
                                quill.core.pay.PaymentWay.CARD,
                                client,
                                quote.id(),
                                java.util.Set.of(),
                                eur(amount),
                                eur("1.00"),
                                BEGIN,
                                "card ending 0042",
                                "p" + keys,
                                new Payer("May Corrow", "may@clients.example"),
                                quill.core.ledger.OnTop.nothing(org.joda.money.CurrencyUnit.EUR))));
    }

    private DocumentId begin(Document quote, String what, String percent, QuoteInvoicing.TypedStage... lines) {
        return invoicing.begin(quote.id(), new QuoteInvoicing.ToBill(what, percent, List.of(lines)));
    }

    private Document issue(DocumentId draft) {
        invoices.issue(draft, invoices.invoice(draft).version());
        return invoices.invoice(draft);
    }

    private void agree() {
        Debts debts = server.bean(Debts.class);
        assertThat(debts.agreement(client, EUR).holds()).isTrue();
    }

    private List<String> letters() {
        return server.jdbc()
                .sql("SELECT letter FROM message ORDER BY id")
                .query(String.class)
                .list();
    }

    private String lastText() {
        return server.jdbc()
                .sql("SELECT text FROM message_text ORDER BY message_id DESC LIMIT 1")
                .query(String.class)
                .single();
    }

    @Test
    public void halfOfADepositIsBookedToItAndTheOtherHalfIsAskedFor() {
        Document quote = accepted(HALF, REST);
        assertThat(quote.totalMinor()).isEqualTo(827_098);
        assertThat(requests.missing(quote)).isEqualTo(eur("4135.49"));
        // 8,270.98 less what is asked for already.
        assertThat(requests.on(quote).askable()).isEqualTo(eur("4135.49"));
        assertThat(lastText()).contains("€4,135.49");
        Payment first = transfer(quote, "2000.00");
        Document deposit = invoices.invoice(first.invoiceId());
        assertThat(lastText())
                .contains("Your payment of €2,000.00 for deposit invoice 2027-0001 has arrived.")
                .contains("€2,135.49 of what was asked for on quote " + quote.number() + " is still to be paid.")
                .contains("For deposit invoice 2027-0001: €2,000.00")
                .contains("Still to pay of what was asked for: €2,135.49")
                .contains("See quote " + quote.number() + ": ");
        assertThat(deposit.kind().title()).isEqualTo("Deposit invoice");
        assertThat(deposit.state()).isEqualTo(DocumentState.SETTLED);
        assertThat(deposit.number()).isEqualTo("2027-0001");
        assertThat(requests.missing(quotes.quote(quote.id()))).isEqualTo(eur("2135.49"));
        assertThat(requests.on(quote).askable()).isEqualTo(eur("4135.49"));
        agree();
        CardOrders orders = server.bean(CardOrders.class);
        assertThatThrownBy(() -> orders.payAt(quotes.quote(quote.id()), java.util.Set.of(), eur("1000.00")))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("paid whole: it is 2,135.49");
        card(quote, "2135.49");
        assertThat(lastText())
                .contains("The invoice for the work will deduct what was paid before.")
                .doesNotContain("till to ");
        assertThat(requests.missing(quotes.quote(quote.id()))).isEqualTo(eur("0.00"));
        assertThatThrownBy(() -> orders.payAt(quotes.quote(quote.id()), java.util.Set.of(), eur("2135.49")))
                .hasMessageContaining("Nothing is asked for");
        DocumentId draft = begin(quote, "rest", "");
        assertThat(documents.reckon(documents.typed(invoices.invoice(draft))).deductions())
                .hasSize(4);
        Document last = issue(draft);
        IssuedDocument said = documents.issued(last);
        assertThat(said.sums().total().amount()).isEqualTo(eur("4135.49"));
        assertThat(said.lines()).hasSize(6);
        assertThat(said.lines().get(2).description())
                .isEqualTo("Less deposit invoice 2027-0001 of 1 March 2027 (Tax high)");
        assertThat(said.job().left()).isEqualTo(eur("0.00"));
        assertThat(said.job().earlier()).hasSize(2).allMatch(e -> e.deducted());
        assertThat(server.bean(Debts.class).of(last.id())).hasSize(1);
        agree();
        assertThat(letters()).containsExactly("ACCEPTED", "RECEIPT", "RECEIPT");
        assertThat(server.jdbc()
                        .sql("SELECT copies_to FROM message WHERE letter = 'RECEIPT' ORDER BY id")
                        .query(String.class)
                        .list())
                .containsExactly("", "may@clients.example");
        assertThatThrownBy(() -> begin(quote, "rest", "")).hasMessageContaining("all of this quote is billed");
    }

    @Test
    public void aBusinessThatChargesNoTaxHoldsTheDepositAndDeductsItAsPrepaid() {
        Document quote = accept(List.of(new TypedLine("Action", "1", "", "8413.57", "", List.of("none"))), HALF, REST);
        assertThat(requests.missing(quote)).isEqualTo(eur("4206.79"));
        Payment held = transfer(quote, "4206.79");
        assertThat(held.held()).isTrue();
        assertThat(lastText()).contains("held as a deposit for quote " + quote.number());
        agree();
        DocumentId draft = begin(quote, "rest", "");
        Document last = issue(draft);
        assertThat(documents.issued(last).sums().prepaid().amount()).isEqualTo(eur("4206.79"));
        assertThat(documents.issued(last).sums().due().amount()).isEqualTo(eur("4206.78"));
        agree();
    }

    @Test
    public void aHeldDepositThatWasAMistakeIsAskedForAgain() {
        Document quote = accept(List.of(new TypedLine("Action", "1", "", "100.00", "", List.of("none"))), HALF, REST);
        Payment held = transfer(quote, "50.00");
        server.bean(Undoing.class).undo(held.id(), "it was for somebody else");
        assertThat(requests.missing(quotes.quote(quote.id()))).isEqualTo(eur("50.00"));
        assertThat(letters()).containsExactly("ACCEPTED", "RECEIPT");
        assertThat(server.jdbc()
                        .sql("SELECT state FROM message WHERE letter = 'RECEIPT'")
                        .query(String.class)
                        .single())
                .isEqualTo("set aside");
        agree();
    }

    @Test
    public void allOfItPaidAtOnceIssuesTheInvoicePaid() {
        Document quote = accepted(new TypedTerm(true, "100%", "0"));
        Payment all = card(quote, "8270.98");
        Document invoice = invoices.invoice(all.invoiceId());
        assertThat(invoice.kind().title()).isEqualTo("Invoice");
        assertThat(invoice.state()).isEqualTo(DocumentState.SETTLED);
        assertThat(requests.missing(quotes.quote(quote.id()))).isEqualTo(eur("0.00"));
        agree();
    }

    /** All of it came ahead, in two: the final invoice asks for nothing, and its tax was due before. */
    @Test
    public void aFinalInvoiceOfNothingIsSettledAtOnce() {
        Document quote = accepted(HALF, REST);
        transfer(quote, "4135.49");
        transfer(quote, "4135.49");
        Document last = issue(begin(quote, "rest", ""));
        assertThat(last.totalMinor()).isZero();
        assertThat(last.state()).isEqualTo(DocumentState.SETTLED);
        assertThat(documents.issued(last).sums().tax().amount()).isEqualTo(eur("0.00"));
        agree();
        // Taken back and written anew, it is of the same job, and takes the same deposits off.
        DocumentId again = server.bean(Crediting.class)
                .write(quotes2Deposit(quote), quill.server.creditnotes.Crediting.Wanted.rest("a mistake", false))
                .note()
                .id();
        assertThat(again).isNotNull();
        agree();
    }

    @Test
    public void theRunGoesOnWhereADepositDidNotComeAfterAll() {
        Document quote = accepted(HALF, REST);
        Payment payment = transfer(quote, "4135.49");
        server.bean(Undoing.class).undo(payment.id(), "it bounced");
        Document deposit = invoices.invoice(payment.invoiceId());
        assertThat(deposit.openMinor()).isEqualTo(413_549);
        for (int day = 1; day < 25; day++) {
            server.moveTo(BEGIN.plusDays(day), java.time.LocalTime.of(9, 30));
            server.bean(quill.server.dailyrun.DailyRun.class).catchUp();
        }
        assertThat(invoices.invoice(deposit.id()).openMinor()).isEqualTo(413_549);
        assertThat(server.bean(quill.server.dailyrun.DailyRun.class).failed()).isEmpty();
        agree();
    }

    @Test
    public void whatComesBeyondWhatIsAskedForIsClientCredit() {
        Document quote = accepted(HALF, REST);
        card(quote, "4200.00");
        assertThat(server.bean(Debts.class).agreement(client, EUR).credit()).isEqualTo(eur("64.51"));
        // What was begun before and is paid all the same is not lost.
        card(quote, "10.00");
        assertThat(server.bean(Debts.class).agreement(client, EUR).credit()).isEqualTo(eur("74.51"));
        agree();
    }

    @Test
    public void stagesAndTheFinalInvoiceSumToTheQuoteAndTheDepositGoesBack() {
        Document quote = accepted(HALF, REST);
        transfer(quote, "4135.49");
        Document first = issue(begin(quote, "percent", "20"));
        assertThat(documents.issued(first).sums().net().amount()).isEqualTo(eur("1390.75"));
        assertThat(documents.issued(first).job().left()).isEqualTo(eur("2481.29"));
        DocumentId draft = begin(quote, "lines", "", new QuoteInvoicing.TypedStage(1, "4"));
        assertThatThrownBy(() -> begin(quote, "percent", "10"))
                .isInstanceOf(ConflictException.class)
                .hasMessageContaining("begun already");
        Document second = issue(draft);
        assertThatThrownBy(() -> begin(quote, "lines", "", new QuoteInvoicing.TypedStage(1, "9")))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("at most 4, what is left of the line");
        assertThatThrownBy(() -> begin(quote, "percent", "0")).hasMessageContaining("above zero and below 100");
        // With the deposit invoiced, a stage of half of all would bill more than is left.
        DocumentId tooMuch = begin(quote, "percent", "50");
        assertThatThrownBy(() -> issue(tooMuch)).hasMessageContaining("the final invoice deducts that");
        invoices.discard(tooMuch, invoices.invoice(tooMuch).version());
        Document last = issue(begin(quote, "rest", ""));
        long sum = List.of(first, second, last).stream()
                        .mapToLong(Document::totalMinor)
                        .sum()
                + 413_549;
        assertThat(sum).isEqualTo(827_098);
        assertThat(documents.issued(last).job().left()).isEqualTo(eur("0.00"));
        agree();
        // The work falls through: what was not done is credited, and the deposit is client credit to be given back.
        Document deposit = invoices.invoice(quotes2Deposit(quote));
        server.bean(Crediting.class).write(last.id(), Crediting.Wanted.rest("the work falls through", false));
        server.bean(Crediting.class).write(deposit.id(), Crediting.Wanted.rest("the work falls through", false));
        agree();
        assertThat(requests.missing(quotes.quote(quote.id()))).isEqualTo(eur("0.00"));
        Money credit = server.bean(Debts.class).agreement(client, EUR).credit();
        assertThatThrownBy(() -> giveBack(quote, false, "99999.00")).hasMessageContaining("can be given back");
        giveBack(quote, false, quill.core.money.Amounts.plain(credit));
        assertThat(server.bean(Debts.class).agreement(client, EUR).credit()).isEqualTo(eur("0.00"));
        agree();
    }

    private void giveBack(Document quote, boolean deposit, String amount) {
        server.bean(Refunds.class)
                .give(new Refunds.Given(
                        "give-back-" + keys++, client, quote.id(), deposit, "TRANSFER", "EUR", amount, "", ""));
    }

    @Test
    public void aHeldDepositGoesBackInPartAndTheRestIsDeducted() {
        Document quote = accept(List.of(new TypedLine("Action", "1", "", "100.00", "", List.of("none"))), HALF, REST);
        transfer(quote, "50.00");
        assertThatThrownBy(() -> giveBack(quote, true, "50.01")).hasMessageContaining("at most 50.00 of deposits");
        ClientId other = server.client("Somebody Else", true);
        assertThatThrownBy(() -> server.bean(Refunds.class)
                        .give(new Refunds.Given(
                                "give-back-x1", other, quote.id(), true, "TRANSFER", "EUR", "1.00", "", "")))
                .hasMessageContaining("no document of this client");
        giveBack(quote, true, "20.00");
        agree();
        aKeyServesForOneThing(quote);
        Document last = issue(begin(quote, "rest", ""));
        assertThat(documents.issued(last).sums().prepaid().amount()).isEqualTo(eur("30.00"));
        agree();
    }

    /** What was recorded under a key is not taken for what is given back, or the other way round, nor one sum for another. */
    private void aKeyServesForOneThing(Document quote) {
        Refunds refunds = server.bean(Refunds.class);
        Refunds.Given given = new Refunds.Given(
                "give-back-" + (keys - 1), client, quote.id(), true, "TRANSFER", "EUR", "20.00", "", "");
        refunds.give(given);
        for (Refunds.Given other : List.of(
                new Refunds.Given(given.key(), client, quote.id(), true, "TRANSFER", "EUR", "21.00", "", ""),
                new Refunds.Given(
                        "quote-money-" + (keys - 3), client, null, true, "TRANSFER", "EUR", "1.00", "", ""))) {
            assertThatThrownBy(() -> refunds.give(other))
                    .isInstanceOf(ConflictException.class)
                    .hasMessageContaining("Nothing was recorded");
        }
        agree();
    }

    private DocumentId quotes2Deposit(Document quote) {
        return server.bean(QuotePaying.class).led(quote).stream()
                .filter(l -> l.title().equals("Deposit invoice"))
                .findFirst()
                .orElseThrow()
                .id();
    }
}
