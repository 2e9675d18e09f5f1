package quill.standins.countinghouse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.web.server.ResponseStatusException;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import quill.standins.StandinsApplication;

/** What days bring: payouts, debits that are certain or come back, holds, refunds, contests. 1 March 2027 is a Monday. */
public class MoneyDaysTest {
    private static final LocalDate MONDAY = LocalDate.of(2027, 3, 1);
    private ConfigurableApplicationContext context;
    private OrderBook orders;
    private Days days;

    @BeforeMethod
    public void start() throws IOException {
        context = StandinsApplication.start(
                "--server.port=0",
                "--standins.smtp-port=0",
                "--standins.imap-port=0",
                "--standins.api-key=k",
                "--standins.webhook-secret=whsec_c2VjcmV0LW9mLXRoZS10ZXN0cw==",
                "--standins.webhook-url=http://127.0.0.1:9/nobody",
                "--standins.data=" + Files.createTempDirectory("counting-house"));
        orders = context.getBean(OrderBook.class);
        days = context.getBean(Days.class);
        days.moveTo(MONDAY);
    }

    @AfterMethod(alwaysRun = true)
    public void stop() {
        context.close();
    }

    /** 900.00 less 26.40 (2.9 % + 0.30): the first after seven days, later ones after two working days. */
    @Test
    public void payoutsAreNetTwoWorkingDaysLaterAndTheFirstAfterSeven() {
        pay("900.00");
        days.moveTo(MONDAY.plusDays(6));
        assertThat(payouts()).isEmpty();
        days.moveTo(MONDAY.plusDays(7));
        assertThat(payouts()).containsExactly("EUR 873.60");
        assertThat(held()).isEqualByComparingTo("0");
        days.moveTo(MONDAY.plusDays(11)); // a Friday
        pay("100.00");
        days.moveTo(MONDAY.plusDays(14));
        assertThat(payouts()).hasSize(1);
        days.moveTo(MONDAY.plusDays(15)); // Tuesday: two working days after Friday
        assertThat(payouts()).containsExactlyInAnyOrder("EUR 873.60", "EUR 96.80");
    }

    /** 96.80 was paid out; 100.00 goes back, so that −100.00 is carried until 194.20 − 0.30 … has come: 193.90 − 100.00. */
    @Test
    public void whatComesToLessThanNothingIsCarriedForward() {
        String first = pay("100.00");
        days.moveTo(MONDAY.plusDays(8));
        assertThat(payouts()).containsExactly("EUR 96.80");
        refunds().give("r1", first, new BigDecimal("100.00"));
        days.moveTo(MONDAY.plusDays(10));
        assertThat(payouts()).hasSize(1);
        assertThat(held()).isEqualByComparingTo("-100.00");
        pay("200.00"); // less 6.10
        days.moveTo(MONDAY.plusDays(14));
        assertThat(payouts()).containsExactlyInAnyOrder("EUR 96.80", "EUR 93.90");
        assertThat(held()).isEqualByComparingTo("0");
    }

    @Test
    public void aDebitIsCertainAfterThreeWorkingDaysAndMayComeBack() {
        String good = debit("50.00", BankAccount.GOOD);
        String poor = debit("60.00", BankAccount.SHORT);
        String objecting = debit("70.00", BankAccount.OBJECTS);
        assertThat(state(good)).isEqualTo("underway");
        assertThat(held()).isEqualByComparingTo("0");
        days.moveTo(MONDAY.plusDays(2));
        assertThat(state(good)).isEqualTo("underway");
        days.moveTo(MONDAY.plusDays(3));
        assertThat(state(good)).isEqualTo("paid");
        assertThat(state(objecting)).isEqualTo("paid");
        assertThat(state(poor)).isEqualTo("refused");
        assertThat(orders.find(poor).orElseThrow().reason()).contains("not enough money");
        assertThat(held()).isEqualByComparingTo("115.30"); // 50.00 - 0.50 + 70.00 - 0.70 - 3.50
        days.moveTo(MONDAY.plusDays(7));
        assertThat(state(objecting)).isEqualTo("returned");
        assertThat(held()).isEqualByComparingTo("41.80"); // and 70.00 + 3.50 less
    }

    @Test
    public void aHoldIsTakenInPartOrLetGoOrLapsesAfterSevenDays() {
        String taken = hold("120.00");
        String gone = hold("80.00");
        String lapsing = hold("40.00");
        Holds holds = context.getBean(Holds.class);
        assertThat(held()).isEqualByComparingTo("0");
        assertThat(holds.take(taken, new BigDecimal("90.00")).state()).isEqualTo("paid");
        assertThat(holds.take(taken, new BigDecimal("90.00")).state()).isEqualTo("paid");
        assertThat(holds.release(gone).state()).isEqualTo("released");
        assertThatThrownBy(() -> holds.take(gone, BigDecimal.TEN)).isInstanceOf(ResponseStatusException.class);
        assertThatThrownBy(() -> holds.take(lapsing, new BigDecimal("40.01"))).hasMessageContaining("at most 40.00");
        days.moveTo(MONDAY.plusDays(7));
        assertThat(state(lapsing)).isEqualTo("held");
        days.moveTo(MONDAY.plusDays(8));
        assertThat(state(lapsing)).isEqualTo("lapsed");
        assertThat(account().latest()).extracting(Account.Entry::kind).containsExactly("paid-out", "taken");
    }

    @Test
    public void aContestedPaymentIsLostWithoutAnAnswerAndWonWithOne() {
        String lost = pay("100.00");
        String won = pay("200.00");
        assertThat(contests().open(lost, "unknown to me")).isTrue();
        assertThat(contests().open(lost, "unknown to me")).isFalse();
        assertThat(contests().open(won, "not as agreed")).isTrue();
        assertThat(held()).isEqualByComparingTo("-39.30"); // the two fees, 3.20 + 6.10, and twice 15.00
        Contests.Contest answered = contests().of(won).orElseThrow();
        contests().answer(answered.id(), "The signed quote, and the letter that said when we come.");
        days.moveTo(MONDAY.plusDays(15));
        assertThat(contests().of(lost).orElseThrow().state()).isEqualTo("lost");
        assertThat(contests().of(won).orElseThrow().state()).isEqualTo("won");
        assertThat(all()).extracting(Account.Entry::kind).contains("contest-won", "contest-lost");
        assertThatThrownBy(() -> contests().answer(answered.id(), "more")).isInstanceOf(ResponseStatusException.class);
    }

    /** What is given back and what is contested is never more than was paid. */
    @Test
    public void aRefundAndAContestShareWhatThereIs() {
        String paid = pay("100.00");
        refunds().give("r1", paid, new BigDecimal("30.00"));
        assertThat(refunds().give("r1", paid, new BigDecimal("30.00")).key()).isEqualTo("r1");
        contests().open(paid, "not as agreed");
        assertThat(contests().of(paid).orElseThrow().amount()).isEqualByComparingTo("70.00");
        assertThatThrownBy(() -> refunds().give("r2", paid, new BigDecimal("0.01")))
                .hasMessageContaining("at most 0.00");
    }

    @Test
    public void aRefundThatDoesNotArriveComesBack() {
        CardOrder order = open("100.00", false, "card");
        orders.pay(order, TestCard.REFUNDS_FAIL, "09/29");
        refunds().give("r1", order.id(), new BigDecimal("40.00"));
        days.moveTo(MONDAY.plusDays(2));
        assertThat(held()).isEqualByComparingTo("96.80");
        assertThat(all()).extracting(Account.Entry::kind).containsExactly("taken", "refunded", "refund-failed");
    }

    /** The entries of a payout sum to it, and so do they in its statement. */
    @Test
    public void aPayoutIsAStatementToo() {
        pay("100.00");
        pay("50.00"); // less 1.75
        days.moveTo(MONDAY.plusDays(7));
        Account.Payout payout = account().payouts().get(0);
        String statement = Statement.of(payout, account().of(payout.id()));
        assertThat(statement)
                .contains("camt.053.001.08")
                .contains("<Amt Ccy=\"EUR\">96.80</Amt>")
                .contains("<Amt Ccy=\"EUR\">48.25</Amt>")
                .contains("<Amt Ccy=\"EUR\">145.05</Amt><CdtDbtInd>DBIT</CdtDbtInd>");
    }

    /** Numbers have no gap, so that whoever reads on misses nothing. */
    @Test
    public void entriesAreNumberedWithoutAGap() {
        for (int i = 0; i < 5; i++) {
            pay("10.00");
        }
        List<Long> numbers = all().stream().map(Account.Entry::number).toList();
        assertThat(numbers).containsExactly(1L, 2L, 3L, 4L, 5L);
    }

    /** Each state of an order has its page, and all of them stand on the counting house's own. */
    @Test
    public void everyStateHasAPage() throws Exception {
        String open = open("10.00", false, "card").id();
        String both = orders.open(
                        "both",
                        BigDecimal.TEN,
                        "EUR",
                        new CardOrder.About("Invoice", "http://localhost/", "", "", false),
                        new CardOrder.Wish(List.of("card", "debit"), false, false, null))
                .id();
        String held = hold("20.00");
        String underway = debit("30.00", BankAccount.GOOD);
        String refused = debit("40.00", BankAccount.SHORT);
        String objecting = debit("50.00", BankAccount.OBJECTS);
        String paid = pay("60.00");
        contests().open(paid, "not as agreed");
        assertThat(page("/pay/" + open)).contains("Card number");
        assertThat(page("/pay/" + both)).contains("Card number").contains("by bank debit");
        assertThat(page("/pay/" + held)).contains("Held. Thank you.");
        assertThat(page("/pay/" + underway)).contains("On its way. Thank you.");
        assertThat(page("/pay/" + paid)).contains("Paid. Thank you.");
        days.moveTo(MONDAY.plusDays(9));
        assertThat(page("/pay/" + refused)).contains("not enough money");
        assertThat(page("/pay/" + objecting)).contains("the account holder objected");
        assertThat(page("/pay/" + held)).contains("was let go");
        assertThat(page("/counting-house")).contains("camt.053").contains("not as agreed");
    }

    private String page(String path) throws Exception {
        String url = "http://127.0.0.1:" + context.getEnvironment().getProperty("local.server.port") + path;
        var answer = java.net.http.HttpClient.newHttpClient()
                .send(
                        java.net.http.HttpRequest.newBuilder(java.net.URI.create(url))
                                .build(),
                        java.net.http.HttpResponse.BodyHandlers.ofString());
        assertThat(answer.statusCode()).isEqualTo(200);
        return answer.body();
    }

    private String pay(String amount) {
        CardOrder order = open(amount, false, "card");
        assertThat(orders.pay(order, TestCard.APPROVED, "09/29")).isTrue();
        return order.id();
    }

    private String hold(String amount) {
        CardOrder order = open(amount, true, "card");
        assertThat(orders.pay(order, TestCard.APPROVED, "09/29")).isTrue();
        return order.id();
    }

    private String debit(String amount, BankAccount from) {
        CardOrder order = open(amount, false, "debit");
        assertThat(orders.debit(order, from)).isTrue();
        return order.id();
    }

    private CardOrder open(String amount, boolean hold, String way) {
        return orders.open(
                UUID.randomUUID().toString(),
                new BigDecimal(amount),
                "EUR",
                new CardOrder.About("Invoice", "http://localhost/", "", "", false),
                new CardOrder.Wish(List.of(way), hold, false, null));
    }

    private String state(String id) {
        return orders.find(id).orElseThrow().state();
    }

    private BigDecimal held() {
        return account().held().stream().map(Account.Held::sum).findFirst().orElse(BigDecimal.ZERO);
    }

    private List<String> payouts() {
        return account().payouts().stream().map(Account.Payout::shown).toList();
    }

    private List<Account.Entry> all() {
        return account().after(0, 100);
    }

    private Account account() {
        return context.getBean(Account.class);
    }

    private Refunds refunds() {
        return context.getBean(Refunds.class);
    }

    private Contests contests() {
        return context.getBean(Contests.class);
    }
}
