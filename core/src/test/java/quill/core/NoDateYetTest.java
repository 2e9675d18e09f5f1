package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.acts.Act;
import quill.core.acts.ActsToCome;
import quill.core.acts.ClientState;
import quill.core.id.DocumentId;
import quill.core.latefee.PaidBefore;
import quill.core.ledger.Aging;
import quill.core.ledger.Agreement;
import quill.core.ledger.Appropriation;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.OpenReasons;
import quill.core.ledger.Standing;
import quill.core.reminder.ReminderPlan;
import quill.core.reminder.ReminderPlan.TypedPlan;

/** What is late, what is not, and what has no date yet: never late, never aged, settled when its turn comes. */
public class NoDateYetTest {
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 15);
    private static final Money TEN = eur("10.00");

    /** Due date, whether it is late, whether it has fallen due, days late. */
    @DataProvider
    public Object[][] days() {
        return new Object[][] {
            {TODAY.minusDays(40), true, true, 40L},
            {TODAY.minusDays(1), true, true, 1L},
            {TODAY, false, true, 0L},
            {TODAY.plusDays(1), false, false, -1L},
            {null, false, false, 0L},
        };
    }

    @Test(dataProvider = "days")
    public void lateIsWhatFellDueBeforeToday(LocalDate dueOn, boolean late, boolean due, long days) {
        assertThat(Standing.isLate(dueOn, TODAY)).isEqualTo(late);
        assertThat(Standing.isDue(dueOn, TODAY)).isEqualTo(due);
        assertThat(Standing.daysLate(dueOn, TODAY)).isEqualTo(days);
        assertThat(Standing.of(TEN, eur("0.00"), eur("0.00"), TEN, dueOn, TODAY))
                .isEqualTo(late ? Standing.LATE : Standing.COMING);
    }

    @Test
    public void withoutADateItIsNotAgedAndSettledInItsPlace() {
        OpenDebt undated = debt(1, null, TODAY.minusDays(5));
        OpenDebt before = debt(2, TODAY.minusDays(9), TODAY.minusDays(9));
        OpenDebt after = debt(3, TODAY.plusDays(9), TODAY.plusDays(9));
        List<OpenDebt> all = List.of(after, undated, before);
        Aging aging = Aging.of(CurrencyUnit.EUR, all, TODAY);
        assertThat(aging.in(Aging.Band.NOT_DUE)).isEqualTo(eur("20.00"));
        assertThat(aging.in(Aging.Band.DAYS_1_30)).isEqualTo(TEN);
        assertThat(Appropriation.of(eur("25.00"), all, Set.of()).parts())
                .extracting(p -> p.debt().id())
                .containsExactly(2L, 1L, 3L);
        assertThat(OpenReasons.debts("rule", List.of(undated), TODAY, TEN)
                        .steps()
                        .get(0))
                .isEqualTo("2027-1, installment 1, no date yet: 10.00");
    }

    @Test
    public void withoutADateItIsNeitherRemindedOfNorFined() {
        LocalDate due = TODAY.plusDays(1);
        ReminderPlan plan = ReminderPlan.read(TypedPlan.usual(), LocalDate.of(2020, 1, 1), new ArrayList<>());
        ActsToCome.Rules rules = new ActsToCome.Rules(plan, false, null);
        ActsToCome.Debt dated = ActsToComeTest.debt(2, new DocumentId(2), due, "50.00", null);
        ActsToCome.Debt undated = new ActsToCome.Debt(
                debt(1, null, TODAY.minusDays(5)),
                false,
                TEN,
                eur("0.00"),
                dated.issuedOn(),
                null,
                null,
                dated.policy(),
                List.of(),
                0,
                null,
                null);
        ClientState alone = ActsToComeTest.client(undated);
        assertThat(ActsToCome.of(alone, rules, TODAY, TODAY.plusDays(60))).isEmpty();
        assertThat(ActsToCome.nextDay(alone, rules)).isEmpty();
        assertThat(ActsToCome.unanswered(alone, rules, TODAY.plusDays(60))).isEmpty();
        List<Act> beside = ActsToCome.of(ActsToComeTest.client(undated, dated), rules, due, due.plusDays(20));
        assertThat(beside).isNotEmpty().allMatch(a -> !a.concerns(undated.open().document()));
    }

    /** Charged on 10 March by entry 50. */
    @DataProvider
    public Object[][] money() {
        LocalDate charged = LocalDate.of(2027, 3, 10);
        return new Object[][] {
            {charged.minusDays(1), 51L, true}, // moved before the fee, known after it
            {charged.minusDays(1), 49L, false}, // known before: the fee counted it
            {charged, 51L, false}, // moved on the day: it was late
            {charged.plusDays(1), 51L, false},
        };
    }

    @Test(dataProvider = "money")
    public void onlyMoneyThatNobodyKnewOfPutsAFeeUp(LocalDate paidOn, long entry, boolean putsUp) {
        assertThat(new PaidBefore(paidOn, entry).putsUp(LocalDate.of(2027, 3, 10), 50))
                .isEqualTo(putsUp);
    }

    @Test
    public void debtsLessCreditAndDepositsAreWhatThePostingsSay() {
        Agreement agreement = new Agreement(eur("100.00"), eur("30.00"), eur("20.00"), eur("50.00"));
        assertThat(agreement.holds()).isTrue();
        assertThat(new Agreement(eur("100.00"), eur("30.00"), eur("20.00"), eur("49.99")).holds())
                .isFalse();
    }

    private static OpenDebt debt(long id, LocalDate dueOn, LocalDate orderOn) {
        return new OpenDebt(id, new DocumentId(id), "2027-" + id, 1, false, dueOn, orderOn, TEN);
    }

    private static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }
}
