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
import org.testng.annotations.Test;
import quill.core.money.Amounts;
import quill.core.money.Percent;
import quill.core.schedule.Installment;
import quill.core.schedule.ScheduleMaking;
import quill.core.schedule.Share;
import quill.core.schedule.Term;

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

    private static Term percent(boolean deposit, String percent, int days) {
        return new Term(deposit, new Share.OfPercent(Percent.of(percent)), days);
    }

    private static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }
}
