package quill.core.pay;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;
import quill.core.RefusedException;

/** Cards' months, what was agreed, and the days on which something may be taken later. */
public class SavedMethodRulesTest {
    private static final LocalDate TODAY = LocalDate.of(2027, 2, 27);
    private static final CurrencyUnit EUR = CurrencyUnit.EUR;

    @Test
    public void aCardIsValidToTheEndOfItsMonth() {
        CardExpiry leap = CardExpiry.read("02/28").orElseThrow();
        assertThat(leap.lastDay()).isEqualTo("2028-02-29");
        assertThat(leap.isOver(LocalDate.of(2028, 2, 29))).isFalse();
        assertThat(leap.isOver(LocalDate.of(2028, 3, 1))).isTrue();
        assertThat(leap.words()).isEqualTo("02/28");
        assertThat(CardExpiry.read(" 12/99 ").orElseThrow().lastDay()).isEqualTo("2099-12-31");
    }

    /** 30 days before the 31st of March is the 1st. */
    @Test
    public void aCardIsWarnedOfThirtyDaysBefore() {
        CardExpiry march = CardExpiry.read("03/27").orElseThrow();
        assertThat(march.isNear(LocalDate.of(2027, 2, 28))).isFalse();
        assertThat(march.isNear(LocalDate.of(2027, 3, 1))).isTrue();
        assertThat(march.isNear(LocalDate.of(2027, 4, 1))).isTrue();
    }

    @DataProvider
    public Object[][] noMonths() {
        return new Object[][] {{null}, {""}, {"13/27"}, {"00/27"}, {"2027-03"}, {"3/27"}, {"03/2027"}, {"x"}};
    }

    @Test(dataProvider = "noMonths")
    public void whatIsNoMonthIsNone(String text) {
        assertThat(CardExpiry.read(text)).isEmpty();
    }

    @Test
    public void nothingIsTakenBeyondWhatWasAgreed() {
        CollectionAgreement limited = read(true, "500.00");
        assertThat(limited.refusal(Money.parse("EUR 500.00"))).isEmpty();
        assertThat(limited.refusal(Money.parse("EUR 500.01"))).contains("EUR 500.00 at a time");
        assertThat(limited.refusal(Money.parse("GBP 1.00"))).contains("EUR 500.00");
        assertThat(read(true, "").refusal(Money.parse("GBP 90000.00"))).isEmpty();
        assertThat(CollectionAgreement.OWN_USE.refusal(Money.parse("EUR 0.01"))).contains("alone");
        assertThat(read(false, "500.00")).isEqualTo(CollectionAgreement.OWN_USE);
    }

    @DataProvider
    public Object[][] noLimits() {
        return new Object[][] {{"0"}, {"-1"}, {"0.001"}, {"1000000000000000"}, {"x"}};
    }

    @Test(dataProvider = "noLimits")
    public void whatIsNoLimitIsRefused(String text) {
        List<Problem> problems = new ArrayList<>();
        assertThat(CollectionAgreement.read(true, text, EUR, problems)).isNull();
        assertThat(problems).extracting(Problem::field).containsExactly("most");
    }

    private static CollectionAgreement read(boolean collects, String most) {
        List<Problem> problems = new ArrayList<>();
        CollectionAgreement read = CollectionAgreement.read(collects, most, EUR, problems);
        assertThat(problems).isEmpty();
        return read;
    }

    @Test
    public void laterIsFromTomorrowUntilSomeDaysAfterItIsDue() {
        PayingLater ahead = new PayingLater(TODAY, LocalDate.of(2027, 3, 10), 14);
        assertThat(ahead.first()).isEqualTo("2027-02-28");
        assertThat(ahead.last()).isEqualTo("2027-03-24");
        PayingLater late = new PayingLater(TODAY, LocalDate.of(2026, 12, 1), 14);
        assertThat(late.last()).isEqualTo("2027-03-13");
        assertThat(new PayingLater(TODAY, null, 1).last()).isEqualTo("2027-02-28");
        assertThat(late.check(LocalDate.of(2027, 3, 13))).isEqualTo("2027-03-13");
        assertThatThrownBy(() -> late.check(LocalDate.of(2027, 3, 14)))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("from 28 February 2027 to 13 March 2027");
        assertThatThrownBy(() -> late.check(TODAY)).isInstanceOf(RefusedException.class);
    }

    @Test
    public void itIsTakenBackUntilTheDayBefore() {
        assertThat(PayingLater.canBeTakenBack(LocalDate.of(2027, 2, 28), TODAY)).isTrue();
        assertThat(PayingLater.canBeTakenBack(TODAY, TODAY)).isFalse();
    }
}
