package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.schedule.Due;
import quill.core.schedule.DueDates;
import quill.core.schedule.Installment;
import quill.core.schedule.ScheduleMaking;
import quill.core.schedule.Share;
import quill.core.schedule.Term;
import quill.core.schedule.TypedTerm;

public class ScheduleMakingTest {
    private static final LocalDate ISSUED = LocalDate.of(2028, 2, 28);
    private static final Money DUE = Money.parse("EUR 1574.39");

    @Test
    public void fortyPercentDepositAndTheRestAfterThirtyDays() {
        List<Installment> schedule = ScheduleMaking.make(
                DUE, ISSUED, List.of(percent(true, "40", 0), new Term(false, new Share.Rest(), 30)));
        // 40 % of 1,574.39 is 629.756: the shares are floored to 629.75 and 944.63, the spare cent goes to .6 of the
        // first
        assertThat(schedule).extracting(Installment::amount).containsExactly(eur("629.76"), eur("944.63"));
        assertThat(schedule)
                .extracting(Installment::dueOn)
                .containsExactly(ISSUED, LocalDate.of(2028, 3, 29)); // 2028 has a 29 February
        assertThat(schedule.get(1).why().steps()).containsExactly("1,574.39 − 629.76 = 944.63");
    }

    @Test
    public void aFixedAmountLeavesTheRest() {
        List<Installment> schedule = ScheduleMaking.make(
                DUE,
                ISSUED,
                List.of(new Term(true, new Share.OfAmount(eur("500.00")), 0), new Term(false, new Share.Rest(), 14)));
        assertThat(schedule).extracting(Installment::amount).containsExactly(eur("500.00"), eur("1074.39"));
    }

    @Test
    public void installmentsThatDoNotMakeTheWholeAreRefused() {
        refused("together; they must make 100%", percent(false, "60", 0), percent(false, "50", 30));
        refused("make 90% together", percent(false, "40", 0), percent(false, "50", 30));
        refused("above zero", percent(false, "100", 0), new Term(false, new Share.Rest(), 30));
        refused("above zero", new Term(false, new Share.OfAmount(eur("2000.00")), 0), Term.all(30));
        refused("let one of them take the rest", new Term(false, new Share.OfAmount(eur("5.00")), 0));
        refused("only one", Term.all(0), Term.all(30));
        refused("must not be before the installment above it", percent(false, "50", 30), Term.all(0));
        refused("only the first can be a deposit", percent(false, "50", 0), new Term(true, new Share.Rest(), 3));
    }

    @Test
    public void generatedSchedulesSumExactly() {
        Random random = new Random(5);
        for (int i = 0; i < 3_000; i++) {
            Money due = Money.ofMinor(CurrencyUnit.EUR, 100 + random.nextInt(90_000_000));
            BigDecimal first = BigDecimal.valueOf(1 + random.nextInt(9_998), 2);
            List<Term> terms = new ArrayList<>();
            terms.add(percent(true, first.toPlainString(), 0));
            terms.add(
                    random.nextBoolean()
                            ? Term.all(30)
                            : percent(
                                    false,
                                    BigDecimal.valueOf(100).subtract(first).toPlainString(),
                                    30));
            if (due.getAmountMinorLong() > 20_000) {
                List<Installment> schedule = ScheduleMaking.make(due, ISSUED, terms);
                assertThat(Amounts.sum(
                                CurrencyUnit.EUR,
                                schedule.stream().map(Installment::amount).toList()))
                        .isEqualTo(due);
            }
        }
    }

    private static void refused(String words, Term... terms) {
        assertThatThrownBy(() -> ScheduleMaking.make(DUE, ISSUED, List.of(terms)))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining(words);
    }

    @DataProvider
    public Object[][] whens() {
        return new Object[][] {
            {"30", "2027-04-14"},
            {"30 days", "2027-04-14"},
            {"0", "2027-03-15"},
            {"15 Apr", "2027-04-15"},
            {"15. april", "2027-04-15"},
            {"1 Mar", "2028-03-01"}, // the next one: this year's has passed
            {"29 Feb", "2028-02-29"}, // the next leap year
            {"3 Sept 2027", "2027-09-03"},
            {"2027-04-15", "2027-04-15"},
            {"on issue", "2027-03-15"},
            {"month end + 10", "2027-04-10"},
            {"10 days after the end of the month", "2027-04-10"},
            {"end of month", "2027-03-31"},
            {"monthly from 20 Apr", "2027-04-20"},
            {"1st and 15th", "2027-03-15"},
            {"1 and last from 2 Apr", "2027-04-30"},
        };
    }

    @DataProvider
    public Object[][] undated() {
        return new Object[][] {
            {"at Strings on", new Due.AtMilestone("Strings on", 0)},
            {"at Strings on + 14 days", new Due.AtMilestone("Strings on", 14)},
            {"14 days after Strings on", new Due.AtMilestone("Strings on", 14)},
            {"no date yet", new Due.NoDateYet()},
        };
    }

    @Test(dataProvider = "undated")
    public void anInstallmentMayWaitForAMilestoneOrForADay(String typed, Due due) {
        assertThat(read(typed)).isEqualTo(due);
        assertThat(DueDates.of(due, ISSUED)).isEmpty();
        assertThat(read(due.typed())).isEqualTo(due);
    }

    @Test(dataProvider = "whens")
    public void whatWasUnderstoodCanBeTypedAgain(String typed, String due) {
        assertThat(read(read(typed).typed())).isEqualTo(read(typed));
    }

    private static Due read(String typed) {
        List<Problem> problems = new ArrayList<>();
        Term term = Term.readAll(
                        List.of(new TypedTerm(false, "rest", typed)),
                        CurrencyUnit.EUR,
                        LocalDate.of(2027, 3, 15),
                        problems)
                .get(0);
        assertThat(problems).isEmpty();
        return term.due();
    }

    @Test(dataProvider = "whens")
    public void anInstallmentIsDueAfterDaysOrOnADay(String typed, String due) {
        List<Problem> problems = new ArrayList<>();
        LocalDate issued = LocalDate.of(2027, 3, 15);
        List<Term> terms =
                Term.readAll(List.of(new TypedTerm(false, "rest", typed)), CurrencyUnit.EUR, issued, problems);
        assertThat(problems).isEmpty();
        assertThat(DueDates.of(terms.get(0).due(), issued)).contains(LocalDate.parse(due));
    }

    @DataProvider
    public Object[][] noWhens() {
        return new Object[][] {
            {"14 Mar 2027", "before the day of issue, 15 March 2027"},
            {"31 Apr", "there is no such day"},
            {"29 Feb 2027", "there is no such day"},
            {"15 Marzo", "write a day such as 15 Apr"},
            {"soon", "write a day such as 15 Apr"},
            {"2027-13-01", "there is no such day"},
            {"", "write days after issue such as 30, a day such as 15 Apr"},
            {"15 and 1", "the earlier one first"},
            {"1 and 32", "the earlier one first"},
            {"monthly from 30 Feb", "there is no such day"},
            {"4000", "at most 3,650 days"},
            {"4000 days after delivery", "at most 3,650 days"},
            {"at " + "x".repeat(61), "at most 60 characters"},
            {"1 Jan 2190", "at most 3,650 days"},
        };
    }

    @Test(dataProvider = "noWhens")
    public void aDayThatIsNoneIsRefusedBesideItsField(String typed, String message) {
        List<Problem> problems = new ArrayList<>();
        Term.readAll(
                List.of(new TypedTerm(false, "rest", typed)), CurrencyUnit.EUR, LocalDate.of(2027, 3, 15), problems);
        assertThat(problems).hasSize(1);
        assertThat(problems.get(0).field()).isEqualTo("schedule[0].days");
        assertThat(problems.get(0).message()).contains(message);
    }

    /** 100.00 in three is 33.34, 33.33, 33.33; after a deposit of 40% each has a third of 60%. */
    @Test
    public void equalPartsShareWhatTheOthersLeaveExactly() {
        assertThat(amounts("100.00", equal(), equal(), equal())).containsExactly("33.34", "33.33", "33.33");
        assertThat(amounts("100.00", percent(true, "40", 0), equal(), equal(), equal()))
                .containsExactly("40.00", "20.00", "20.00", "20.00");
        assertThat(amounts("1000.00", new Term(true, new Share.OfAmount(eur("99.99")), 0), equal(), equal()))
                .containsExactly("99.99", "450.01", "450.00");
        refused("equal parts leave no rest", equal(), Term.all(30));
        refused("above zero", percent(false, "100", 0), equal());
    }

    private static Term equal() {
        return new Term(false, new Share.Equal(), 30);
    }

    private static List<String> amounts(String due, Term... terms) {
        return ScheduleMaking.make(eur(due), ISSUED, List.of(terms)).stream()
                .map(i -> i.amount().getAmount().toPlainString())
                .toList();
    }

    private static Term percent(boolean deposit, String percent, int days) {
        return new Term(deposit, new Share.OfPercent(Percent.of(percent)), days);
    }

    private static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }
}
