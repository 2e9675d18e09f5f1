package quill.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.Test;
import quill.core.schedule.Due;
import quill.core.schedule.Rearranging;
import quill.core.schedule.Rearranging.Change;
import quill.core.schedule.Rearranging.Standing;
import quill.core.schedule.Share;
import quill.core.schedule.Term;

public class RearrangingTest {
    private static final LocalDate TODAY = LocalDate.of(2027, 6, 21);

    private static Money eur(String amount) {
        return Money.of(CurrencyUnit.EUR, new BigDecimal(amount));
    }

    private static Standing standing(long debt, String amount, String open) {
        return new Standing(debt, eur(amount), eur(open), TODAY.minusDays(1));
    }

    private static List<Term> equal(int count) {
        List<Term> terms = new ArrayList<>(List.of(new Term(false, new Share.Equal(), new Due.AfterIssue(30))));
        terms.addAll(Collections.nCopies(count - 1, new Term(false, new Share.Equal(), new Due.Monthly(null))));
        return terms;
    }

    /** Six of 315.00: one is paid, one half paid; what is open, 1,417.50, goes into six over six more months. */
    @Test
    public void moreTimeKeepsWhatWasPaidWhereItIs() {
        List<Standing> open = List.of(
                standing(2, "315.00", "157.50"),
                standing(3, "315.00", "315.00"),
                standing(4, "315.00", "315.00"),
                standing(5, "315.00", "315.00"),
                standing(6, "315.00", "315.00"));
        List<Change> changes = Rearranging.of(open, equal(6), TODAY);
        assertThat(changes).hasSize(6);
        // What was paid on the second stays on it: 157.50 and its part of 236.25.
        assertThat((Change.Kept) changes.get(0)).extracting(Change.Kept::amount).isEqualTo(eur("393.75"));
        assertThat((Change.Kept) changes.get(1)).extracting(Change.Kept::amount).isEqualTo(eur("236.25"));
        assertThat(changes.get(5)).isInstanceOf(Change.Added.class);
        assertThat(((Change.Kept) changes.get(0)).then().dueOn()).isEqualTo("2027-07-21");
    }

    @Test
    public void fewerEndTheOnesThatAreLeftOver() {
        List<Change> changes = Rearranging.of(
                List.of(standing(1, "100.00", "40.00"), standing(2, "100.00", "100.00"), standing(3, "50.00", "20.00")),
                equal(1),
                TODAY);
        assertThat(changes)
                .extracting(Object::toString)
                .element(1)
                .isEqualTo(new Change.Ended(2, eur("0.00")).toString());
        assertThat(changes).last().isEqualTo(new Change.Ended(3, eur("30.00")));
        assertThat(((Change.Kept) changes.get(0)).amount()).isEqualTo(eur("220.00"));
    }

    @Test
    public void nothingToRearrangeAndNothingChangedAreRefused() {
        assertThatThrownBy(() -> Rearranging.of(List.of(), equal(2), TODAY))
                .hasMessageContaining("nothing to rearrange");
        Standing one = new Standing(1, eur("10.00"), eur("10.00"), TODAY.plusDays(30));
        assertThatThrownBy(() -> Rearranging.of(List.of(one), equal(1), TODAY))
                .hasMessageContaining("nothing would change");
        assertThatThrownBy(() -> Rearranging.of(List.of(one), List.of(new Term(true, new Share.Rest(), 0)), TODAY))
                .hasMessageContaining("no deposit");
        assertThatThrownBy(() -> Rearranging.of(
                        List.of(one), List.of(new Term(false, new Share.OfAmount(eur("11.00")), 3)), TODAY))
                .hasMessageContaining("10.00 is due");
    }

    @Test
    public void whatWaitsForAMilestoneBeginsWithItAndStaysTheSameWhereNothingIsTyped() {
        Due delivery = new Due.AtMilestone("Delivery", 14);
        Standing waits = new Standing(1, eur("10.00"), eur("10.00"), null, delivery);
        assertThat(waits.typed(TODAY).days()).isEqualTo("at Delivery + 14");
        assertThat(standing(2, "10.00", "4.00").typed(TODAY).days()).isEmpty();
        assertThat(standing(2, "10.00", "4.00").typed(TODAY).share()).isEqualTo("4.00");
        List<Term> same = List.of(new Term(false, new Share.Rest(), delivery));
        assertThatThrownBy(() -> Rearranging.of(List.of(waits), same, TODAY))
                .hasMessageContaining("nothing would change");
        List<Term> other = List.of(new Term(false, new Share.Rest(), new Due.NoDateYet()));
        assertThat(Rearranging.of(List.of(waits), other, TODAY)).hasSize(1);
    }

    /** Whatever is agreed, what was done stays, and what is open in all stays the same to the last minor unit. */
    @Test
    public void whatIsPaidNeverMovesAndTheOpenSumStays() {
        Random random = new Random(18);
        for (int i = 0; i < 5_000; i++) {
            CurrencyUnit currency = CurrencyUnit.of(List.of("JPY", "EUR", "KWD").get(i % 3));
            List<Standing> open = new ArrayList<>();
            for (int d = 0; d <= random.nextInt(12); d++) {
                Money amount = Money.ofMinor(currency, 100 + random.nextInt(1_000_000));
                Money left = Money.ofMinor(currency, 1 + random.nextInt((int) amount.getAmountMinorLong()));
                open.add(new Standing(d, amount, left, TODAY.minusDays(random.nextInt(90))));
            }
            if (Rearranging.sum(open).getAmountMinorLong() < 24) {
                continue;
            }
            Money then = Money.zero(currency);
            for (Change c : Rearranging.of(open, equal(1 + random.nextInt(24)), TODAY)) {
                if (c instanceof Change.Kept kept) {
                    Standing was = open.get((int) kept.debt());
                    assertThat(kept.amount().minus(kept.then().amount()))
                            .isEqualTo(was.amount().minus(was.open()));
                    then = then.plus(kept.then().amount());
                } else if (c instanceof Change.Added added) {
                    then = then.plus(added.then().amount());
                } else if (c instanceof Change.Ended ended) {
                    Standing was = open.get((int) ended.debt());
                    assertThat(ended.amount()).isEqualTo(was.amount().minus(was.open()));
                }
            }
            assertThat(then).isEqualTo(Rearranging.sum(open));
        }
    }
}
