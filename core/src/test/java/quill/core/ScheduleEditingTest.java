package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.money.Amounts;
import quill.core.schedule.Installment;
import quill.core.schedule.ScheduleEditing;
import quill.core.schedule.ScheduleMaking;
import quill.core.schedule.Term;
import quill.core.schedule.TypedTerm;

public class ScheduleEditingTest {
    private static final LocalDate ISSUED = LocalDate.of(2027, 3, 15);
    private static final Money DUE = Money.parse("EUR 1890.00");

    private static ScheduleEditing editing(String... terms) {
        return new ScheduleEditing(terms(terms), DUE, ISSUED);
    }

    /** {@code 40% 0} is 40% on issue. */
    private static List<TypedTerm> terms(String... terms) {
        return Arrays.stream(terms)
                .map(t -> t.split(" ", 2))
                .map(p -> new TypedTerm(false, p[0], p[1]))
                .toList();
    }

    private static List<Installment> make(List<TypedTerm> typed, Money due) {
        List<Problem> problems = new ArrayList<>();
        List<Term> terms = Term.readAll(typed, due.getCurrencyUnit(), ISSUED, problems);
        assertThat(problems).isEmpty();
        return ScheduleMaking.make(due, ISSUED, terms);
    }

    private static List<String> written(List<TypedTerm> terms) {
        return terms.stream().map(t -> t.share() + " " + t.days()).toList();
    }

    private static List<String> amounts(List<TypedTerm> terms) {
        return make(terms, DUE).stream().map(i -> Amounts.plain(i.amount())).toList();
    }

    @Test
    public void twelveTimesIsTwelveEqualOnesAMonthApart() {
        List<TypedTerm> twelve = editing("rest 20 Apr").several(0, "12x");
        assertThat(make(twelve, DUE))
                .hasSize(12)
                .allSatisfy(i -> assertThat(i.amount()).isEqualTo(Money.parse("EUR 157.50")));
        assertThat(make(twelve, DUE))
                .extracting(Installment::dueOn)
                .startsWith(LocalDate.of(2027, 4, 20), LocalDate.of(2027, 5, 20))
                .endsWith(LocalDate.of(2028, 3, 20));
    }

    @Test
    public void threePercentagesAreThreeInstallments() {
        assertThat(written(editing("rest 0").several(0, "30/40/30")))
                .containsExactly("30% 0", "40% monthly", "30% monthly");
        assertThat(written(editing("rest 1 and 15").several(0, "50% / 50%")))
                .containsExactly("50% 1 and 15", "50% 1 and 15");
        assertThat(written(editing("rest at Delivery").several(0, "2x")))
                .containsExactly("equal at Delivery", "equal no date yet");
    }

    @DataProvider
    public Object[][] tooFewOrTooMany() {
        return new Object[][] {{"0x"}, {"1x"}, {"61x"}, {"400x"}};
    }

    @Test(dataProvider = "tooFewOrTooMany")
    public void tooFewOrTooManyAreRefused(String typed) {
        assertThatThrownBy(() -> editing("rest 0").several(0, typed))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("from 2 to 60 installments");
    }

    @DataProvider
    public Object[][] notTheWhole() {
        return new Object[][] {{"30/40/29", "99%"}, {"30/40/31", "101%"}};
    }

    @Test(dataProvider = "notTheWhole")
    public void percentagesThatDoNotMakeAHundredAreRefused(String typed, String sum) {
        List<TypedTerm> three = editing("rest 0").several(0, typed);
        assertThatThrownBy(() -> make(three, DUE))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("make " + sum + " together");
    }

    @Test
    public void oneMoreIsEqualAmongEqualOnesOrIsTakenFromTheRestOrTheLast() {
        assertThat(amounts(editing("equal 0", "equal monthly").add())).containsExactly("630.00", "630.00", "630.00");
        assertThat(amounts(editing("40% 0", "rest 30").add())).containsExactly("756.00", "567.00", "567.00");
        assertThat(written(editing("50% 0", "50% 30").add())).containsExactly("50% 0", "25% 30", "25% monthly");
        assertThat(amounts(editing("1000.00 0", "890.00 2027-05-31").add()))
                .containsExactly("1000.00", "445.00", "445.00");
        assertThatThrownBy(() -> new ScheduleEditing(editing("rest 0").several(0, "60x"), DUE, ISSUED).add())
                .hasMessageContaining("at most 60");
    }

    @Test
    public void allButADepositBecomeEqual() {
        List<TypedTerm> terms = List.of(
                new TypedTerm(true, "40%", "0"), new TypedTerm(false, "10%", "30"), new TypedTerm(false, "rest", "60"));
        assertThat(amounts(new ScheduleEditing(terms, DUE, ISSUED).equal()))
                .containsExactly("756.00", "567.00", "567.00");
    }

    @Test
    public void aDivisionMovesToAWholePercentOrAWholeUnit() {
        assertThat(written(editing("40% 0", "rest 30").divide(0, 498))).containsExactly("50% 0", "rest 30");
        assertThat(written(editing("40% 0", "60% 30").divide(0, 252))).containsExactly("25% 0", "75% 30");
        assertThat(written(editing("rest 0", "60% 30").divide(0, 252))).containsExactly("rest 0", "75% 30");
        assertThat(written(editing("equal 0", "equal 30", "equal 60").divide(0, 500)))
                .containsExactly("50% 0", "equal 30", "equal 60");
        assertThat(written(editing("500.00 0", "rest 30").divide(0, 300))).containsExactly("567.00 0", "rest 30");
        assertThat(amounts(editing("rest 0", "890.00 30").divide(0, 500))).containsExactly("945.00", "945.00");
        assertThatThrownBy(() -> editing("40% 0", "rest 30").divide(0, 1000)).isInstanceOf(RefusedException.class);
        assertThatThrownBy(() -> editing("40% 0", "60% 30").divide(1, 500)).hasMessageContaining("but the last");
    }

    /** Whatever is done to a schedule, of any total in currencies with 0, 2 and 3 decimals, it sums to it exactly. */
    @Test
    public void anySequenceOfChangesSumsExactly() {
        Random random = new Random(17);
        for (int i = 0; i < 4_000; i++) {
            CurrencyUnit currency = CurrencyUnit.of(List.of("JPY", "EUR", "KWD").get(i % 3));
            Money due = Money.ofMinor(currency, 1_000 + random.nextInt(2_000_000_000));
            List<TypedTerm> typed = terms("rest 0");
            for (int change = 0; change < 4; change++) {
                typed = changed(new ScheduleEditing(typed, due, ISSUED), typed, random);
                List<Installment> made = make(typed, due);
                assertThat(Amounts.sum(
                                currency, made.stream().map(Installment::amount).toList()))
                        .isEqualTo(due);
                assertThat(made)
                        .allSatisfy(one -> assertThat(one.amount().isPositive()).isTrue());
            }
        }
    }

    private static List<TypedTerm> changed(ScheduleEditing editing, List<TypedTerm> typed, Random random) {
        int place = random.nextInt(typed.size());
        try {
            return switch (random.nextInt(4)) {
                case 0 -> typed.size() == 1 ? editing.several(0, (2 + random.nextInt(11)) + "x") : editing.equal();
                case 1 -> editing.add();
                case 2 ->
                    typed.size() == 1 ? editing.several(0, "30/40/30") : editing.divide(place, 1 + random.nextInt(998));
                default -> editing.divide(place, 1 + random.nextInt(998));
            };
        } catch (RefusedException e) {
            return typed;
        }
    }

    @DataProvider
    public Object[][] inParts() {
        return new Object[][] {
            {"EUR 100.00", 3, "33.34, 33.33, 33.33"},
            {"JPY 100", 3, "34, 33, 33"},
            {"KWD 1.000", 7, "0.143, 0.143, 0.143, 0.143, 0.143, 0.143, 0.142"},
        };
    }

    @Test(dataProvider = "inParts")
    public void equalOnesDifferByOneMinorUnitAtMost(String total, int parts, String amounts) {
        Money due = Money.parse(total);
        List<TypedTerm> typed = new ScheduleEditing(terms("rest 0"), due, ISSUED).several(0, parts + "x");
        assertThat(make(typed, due).stream().map(i -> Amounts.plain(i.amount())).toList())
                .isEqualTo(List.of(amounts.split(", ")));
    }

    @Test
    public void halfOfAnOddSumIsTheLargerHalf() {
        Money due = Money.parse("EUR 8413.57");
        assertThat(make(terms("50% 0", "rest 30"), due))
                .extracting(Installment::amount)
                .containsExactly(Money.parse("EUR 4206.79"), Money.parse("EUR 4206.78"));
    }
}
