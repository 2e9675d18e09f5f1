package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.latefee.FeeTax;
import quill.core.latefee.LateFee;
import quill.core.latefee.LateFeePolicy;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.money.Exchange;
import quill.core.money.Percent;

/** Flat and percentage fees. Amounts and days in the tables were worked by hand. */
public class LateFeeTest {
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;
    private static final Percent TEN = Percent.of("10");

    /** 40.00 divided by 0.0061 euros a yen is 6557.4 yen; what is worth less than a cent there never becomes nothing. */
    @Test
    public void theSumsOfAPolicyAreConvertedAtTheInvoicesRate() {
        Exchange yen = new Exchange(EUR, new BigDecimal("0.0061"));
        CurrencyUnit jpy = CurrencyUnit.of("JPY");
        TypedLateFeePolicy typed = new TypedLateFeePolicy("flat", "12.50", "7", "once", "", "40.00", "0.01", false);
        assertThat(typed.in(jpy, yen))
                .isEqualTo(new TypedLateFeePolicy("flat", "2049", "7", "once", "", "6557", "2", false));
        assertThat(typed.in(jpy, yen).read("", jpy, TEN, new ArrayList<>()).words())
                .isEqualTo(
                        "Late fee: JPY 2,049, after 7 days of grace, once, at most JPY 6,557 on an installment, nothing"
                                + " below JPY 2 overdue.");
        TypedLateFeePolicy percent = new TypedLateFeePolicy("percent", "1%", "7", "once", "", "5%", "", false);
        assertThat(percent.in(jpy, yen)).isEqualTo(percent);
        Exchange dear = new Exchange(EUR, new BigDecimal("300"));
        assertThat(dear.into(CurrencyUnit.of("USD"), Money.parse("EUR 0.01"))).isEqualTo(Money.parse("USD 0.01"));
        assertThat(typed.in(EUR, Exchange.none(EUR))).isEqualTo(typed);
    }

    /** First fee: the first day that lies more than the grace days past the due date. */
    @DataProvider
    public Object[][] firstDays() {
        return new Object[][] {
            {"2027-03-01", 7, "2027-03-09"}, // the example of the rule
            {"2027-03-01", 0, "2027-03-02"},
            {"2027-02-26", 3, "2027-03-02"}, // over the end of February
            {"2028-02-26", 3, "2028-03-01"}, // in a leap year
            {"2026-12-28", 5, "2027-01-03"}, // over the new year
            {"2027-03-27", 1, "2027-03-29"}, // over a change to daylight time
        };
    }

    @Test(dataProvider = "firstDays")
    public void theFirstFeeFallsOnTheDayAfterTheGrace(String due, int grace, String first) {
        LateFeePolicy policy = policy("percent", "1%", String.valueOf(grace), "once", "", "", "");
        LocalDate day = LocalDate.parse(first);
        assertThat(LateFee.on(day.minusDays(1), debt(due, "100.00"), policy)).isEmpty();
        LateFee fee = LateFee.on(day, debt(due, "100.00"), policy).orElseThrow();
        assertThat(fee.occasion()).isEqualTo(day);
        assertThat(fee.sequence()).isEqualTo(1);
        assertThat(LateFee.nextDay(debt(due, "100.00"), policy)).contains(day);
    }

    @DataProvider
    public Object[][] repeats() {
        return new Object[][] {
            {"days", "7", "2027-03-01", 2, "2027-03-16"},
            {"days", "30", "2027-03-01", 3, "2027-05-08"},
            {"days", "1", "2027-02-27", 3, "2027-03-09"},
            // Monthly from the first fee's own day: 31 January, 28 February, 31 March, 30 April.
            {"monthly", "", "2027-01-23", 1, "2027-01-31"},
            {"monthly", "", "2027-01-23", 2, "2027-02-28"},
            {"monthly", "", "2027-01-23", 3, "2027-03-31"},
            {"monthly", "", "2027-01-23", 4, "2027-04-30"},
            {"monthly", "", "2028-01-23", 2, "2028-02-29"},
        };
    }

    @Test(dataProvider = "repeats")
    public void laterFeesFollowTheFirst(String repeat, String every, String due, int sequence, String day) {
        LateFeePolicy policy = policy("flat", "5.00", "7", repeat, every, "", "");
        assertThat(policy.dayOf(LocalDate.parse(due), sequence)).isEqualTo(day);
    }

    @Test
    public void aPercentageIsOfWhatIsOverdueOnTheDayAndRoundedHalfUp() {
        LateFeePolicy one = policy("percent", "1%", "7", "once", "", "", "");
        assertThat(amount(one, "1163.48")).isEqualTo("11.63"); // 11.6348
        assertThat(amount(one, "307.34")).isEqualTo("3.07");
        assertThat(amount(one, "2.50")).isEqualTo("0.03"); // 0.025 rounds up
        LateFeePolicy fine = policy("percent", "1.2345%", "7", "once", "", "", "");
        assertThat(amount(fine, "1000.00")).isEqualTo("12.35"); // 12.345 rounds up
        assertThat(amount(policy("flat", "12.50", "7", "once", "", "", ""), "3.00"))
                .isEqualTo("12.50");
    }

    @Test
    public void aFeeAfterAPartPaymentIsReckonedOnTheRest() {
        LateFeePolicy policy = policy("percent", "2%", "7", "days", "14", "", "");
        LateFee.Overdue whole = debt("2027-03-01", "500.00");
        assertThat(LateFee.on(LocalDate.of(2027, 3, 9), whole, policy)
                        .orElseThrow()
                        .amount())
                .isEqualTo(eur("10.00"));
        LateFee.Overdue rest = new LateFee.Overdue(
                eur("500.00"), LocalDate.of(2027, 3, 1), false, eur("180.00"), List.of(charged(1, "10.00", false)));
        LateFee second = LateFee.on(LocalDate.of(2027, 3, 23), rest, policy).orElseThrow();
        assertThat(second.amount()).isEqualTo(eur("3.60")); // 2% of 180.00
        assertThat(second.sequence()).isEqualTo(2);
    }

    @Test
    public void whatCreditOrMoneyInTransitCoversBearsNoFee() {
        LateFeePolicy policy = policy("flat", "5.00", "0", "once", "", "", "");
        assertThat(LateFee.on(LocalDate.of(2027, 4, 1), debt("2027-03-01", "0.00"), policy))
                .isEmpty();
    }

    @Test
    public void theLastFeeIsCutToTheCapToTheCent() {
        // 5% of an installment of 333.33 is 16.67 (16.6665): after 7.50 and 7.50 the third is cut to 1.67.
        LateFeePolicy policy = policy("flat", "7.50", "7", "days", "7", "5%", "");
        List<LateFee.Charged> before = List.of(charged(1, "7.50", false), charged(2, "7.50", false));
        LateFee.Overdue debt =
                new LateFee.Overdue(eur("333.33"), LocalDate.of(2027, 3, 1), false, eur("333.33"), before);
        LateFee third = LateFee.on(LocalDate.of(2027, 3, 23), debt, policy).orElseThrow();
        assertThat(third.amount()).isEqualTo(eur("1.67"));
        assertThat(third.why().steps()).anyMatch(s -> s.contains("cut to 1.67"));
        List<LateFee.Charged> all = new ArrayList<>(before);
        all.add(charged(3, "1.67", false));
        LateFee.Overdue full = new LateFee.Overdue(eur("333.33"), LocalDate.of(2027, 3, 1), false, eur("333.33"), all);
        assertThat(LateFee.on(LocalDate.of(2027, 4, 30), full, policy)).isEmpty();
        assertThat(LateFee.nextDay(full, policy)).isEmpty();
    }

    @Test
    public void waivedFeesDoNotCountTowardsTheCapButUseUpTheirNumber() {
        LateFeePolicy policy = policy("flat", "7.50", "7", "days", "7", "10.00", "");
        LateFee.Overdue debt = new LateFee.Overdue(
                eur("300.00"), LocalDate.of(2027, 3, 1), false, eur("300.00"), List.of(charged(1, "7.50", true)));
        assertThat(LateFee.on(LocalDate.of(2027, 3, 10), debt, policy)).isEmpty();
        LateFee second = LateFee.on(LocalDate.of(2027, 3, 16), debt, policy).orElseThrow();
        assertThat(second.sequence()).isEqualTo(2);
        assertThat(second.amount()).isEqualTo(eur("7.50"));
    }

    @Test
    public void aNewDueDateStartsANewCountAndTheCapGoesOn() {
        LateFeePolicy policy = policy("flat", "7.50", "7", "once", "", "10.00", "");
        LateFee.Overdue moved = new LateFee.Overdue(
                eur("300.00"), LocalDate.of(2027, 5, 1), false, eur("300.00"), List.of(charged(1, "7.50", false)));
        LateFee fee = LateFee.on(LocalDate.of(2027, 5, 9), moved, policy).orElseThrow();
        assertThat(fee.sequence()).isEqualTo(1);
        assertThat(fee.amount()).isEqualTo(eur("2.50"));
    }

    @Test
    public void belowTheSmallestBalanceAndOnADepositNothingIsCharged() {
        LateFeePolicy policy = policy("percent", "1%", "7", "once", "", "", "50.00");
        LocalDate late = LocalDate.of(2027, 6, 1);
        assertThat(LateFee.on(late, debt("2027-03-01", "49.99"), policy)).isEmpty();
        assertThat(LateFee.on(late, debt("2027-03-01", "50.00"), policy)).isPresent();
        LateFee.Overdue deposit =
                new LateFee.Overdue(eur("80.00"), LocalDate.of(2027, 3, 1), true, eur("80.00"), List.of());
        assertThat(LateFee.on(late, deposit, policy)).isEmpty();
        TypedLateFeePolicy onDeposits = new TypedLateFeePolicy("percent", "1%", "7", "once", "", "", "", true);
        assertThat(LateFee.on(late, deposit, read(onDeposits, new ArrayList<>())))
                .isPresent();
    }

    @Test
    public void ofSeveralThatWereHinderedOnlyTheLatestIsCharged() {
        LateFeePolicy policy = policy("flat", "5.00", "0", "days", "10", "", "");
        LateFee fee = LateFee.on(LocalDate.of(2027, 3, 25), debt("2027-03-01", "100.00"), policy)
                .orElseThrow();
        assertThat(fee.sequence()).isEqualTo(3); // 2, 12 and 22 March have passed
        assertThat(fee.occasion()).isEqualTo("2027-03-22");
    }

    /** An independent reckoning, day by day with plain numbers, over generated policies and payments. */
    @Test
    public void generatedFeesEqualAPlainCount() {
        Random random = new Random(31);
        for (int round = 0; round < 1_500; round++) {
            int grace = random.nextInt(15);
            int every = 1 + random.nextInt(20);
            int rate = 1 + random.nextInt(1000); // hundredths of a percent, up to the ceiling of 10%
            long first = 1_000 + random.nextInt(200_000);
            long cap = random.nextBoolean() ? first / 20 : Long.MAX_VALUE;
            LateFeePolicy policy = policy(
                    "percent",
                    new java.math.BigDecimal(rate).movePointLeft(2).toPlainString(),
                    String.valueOf(grace),
                    "days",
                    String.valueOf(every),
                    cap == Long.MAX_VALUE
                            ? ""
                            : Money.ofMinor(EUR, cap).getAmount().toPlainString(),
                    "");
            LocalDate due = LocalDate.of(2027, 1, 1).plusDays(random.nextInt(300));
            List<LateFee.Charged> before = new ArrayList<>();
            long open = first;
            long total = 0;
            for (int day = 0; day <= 90; day++) {
                if (random.nextInt(30) == 0) {
                    open -= random.nextInt((int) open + 1);
                }
                LateFee.Overdue debt =
                        new LateFee.Overdue(Money.ofMinor(EUR, first), due, false, Money.ofMinor(EUR, open), before);
                Optional<LateFee> fee = LateFee.on(due.plusDays(day), debt, policy);
                long expected = 0;
                if (day > grace && (day - grace - 1) % every == 0 && open > 0) {
                    long exact = open * rate; // in ten-thousandths of a minor unit
                    expected = Math.min((exact + 5_000) / 10_000, cap - total);
                }
                assertThat(fee.map(f -> f.amount().getAmountMinorLong()).orElse(0L))
                        .isEqualTo(expected);
                total += expected;
                fee.ifPresent(f -> before.add(new LateFee.Charged(due, f.sequence(), f.amount(), false)));
                assertThat(total).isLessThanOrEqualTo(cap);
            }
        }
    }

    @DataProvider
    public Object[][] refused() {
        return new Object[][] {
            {typed("percent", "900%", "7", "once", "", "", ""), "amount", "at most the ceiling of 10%"},
            {typed("percent", "10.0001%", "7", "once", "", "", ""), "amount", "at most the ceiling of 10%"},
            {typed("percent", "0%", "7", "once", "", "", ""), "amount", "above 0%"},
            {typed("percent", "one", "7", "once", "", "", ""), "amount", "write a number"},
            {typed("flat", "0.00", "7", "once", "", "", ""), "amount", "above zero"},
            {typed("flat", "5.001", "7", "once", "", "", ""), "amount", "at most 2 decimals"},
            {typed("percent", "1%", "-1", "once", "", "", ""), "grace", "from 0 to 365"},
            {typed("percent", "1%", "366", "once", "", "", ""), "grace", "from 0 to 365"},
            {typed("percent", "1%", "7", "days", "0", "", ""), "every", "from 1 to 365"},
            {typed("percent", "1%", "7", "weekly", "", "", ""), "repeat", "once, days or monthly"},
            {typed("percent", "1%", "7", "once", "", "120%", ""), "cap", "from 0% to 100%"},
            {typed("percent", "1%", "7", "once", "", "", "-3"), "smallest", "not be below zero"},
            {typed("interest", "1%", "7", "once", "", "", ""), "kind", "none, flat or percent"},
        };
    }

    @Test(dataProvider = "refused")
    public void aWrongFieldIsNamedWithWhatWouldBeAllowed(TypedLateFeePolicy typed, String field, String message) {
        List<Problem> problems = new ArrayList<>();
        assertThat(read(typed, problems)).isNull();
        assertThat(problems).hasSize(1);
        assertThat(problems.get(0).field()).isEqualTo(field);
        assertThat(problems.get(0).message()).contains(message);
    }

    @Test
    public void thePolicyIsASentenceAsItIsPrinted() {
        assertThat(policy("percent", "1%", "7", "once", "", "40.00", "20.00").words())
                .isEqualTo("Late fee: 1% of what is overdue, after 7 days of grace, once, at most EUR 40.00 on an"
                        + " installment, nothing below EUR 20.00 overdue.");
        assertThat(policy("flat", "12.50", "0", "monthly", "", "5%", "").words())
                .isEqualTo("Late fee: EUR 12.50, from the day after the due date, then monthly, at most 5% of an"
                        + " installment.");
        assertThat(policy("flat", "3", "1", "days", "7", "", "").words())
                .isEqualTo("Late fee: EUR 3.00, after day of grace, then every 7 days."
                        .replace("after day", "after 1 day"));
        assertThat(read(TypedLateFeePolicy.none(), new ArrayList<>()).words()).isEmpty();
    }

    @Test
    public void aPolicyOutsideItsBoundsCannotExist() {
        assertThatThrownBy(() -> new LateFeePolicy(
                        new LateFeePolicy.Charge.None(),
                        -1,
                        new LateFeePolicy.Repeat.Once(),
                        new LateFeePolicy.Cap.None(),
                        eur("0.00"),
                        false,
                        FeeTax.none()))
                .hasMessageContaining("grace (-1) must be from 0 to 365");
    }

    private static String amount(LateFeePolicy policy, String open) {
        return LateFee.on(LocalDate.of(2027, 5, 1), debt("2027-03-01", open), policy)
                .orElseThrow()
                .amount()
                .getAmount()
                .toPlainString();
    }

    private static LateFee.Overdue debt(String due, String open) {
        return new LateFee.Overdue(eur("1200.00"), LocalDate.parse(due), false, eur(open), List.of());
    }

    private static LateFee.Charged charged(int sequence, String amount, boolean waived) {
        return new LateFee.Charged(LocalDate.of(2027, 3, 1), sequence, eur(amount), waived);
    }

    private static TypedLateFeePolicy typed(
            String kind, String amount, String grace, String repeat, String every, String cap, String smallest) {
        return new TypedLateFeePolicy(kind, amount, grace, repeat, every, cap, smallest, false);
    }

    private static LateFeePolicy policy(
            String kind, String amount, String grace, String repeat, String every, String cap, String smallest) {
        List<Problem> problems = new ArrayList<>();
        LateFeePolicy policy = read(typed(kind, amount, grace, repeat, every, cap, smallest), problems);
        assertThat(problems).isEmpty();
        return policy;
    }

    private static LateFeePolicy read(TypedLateFeePolicy typed, List<Problem> problems) {
        return typed.read("", EUR, TEN, problems);
    }

    private static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }
}
