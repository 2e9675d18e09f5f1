package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.id.DocumentId;
import quill.core.ledger.Aging;
import quill.core.ledger.Aging.Band;
import quill.core.ledger.Appropriation;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.ledger.OpenDebt;

public class AgingTest {
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 15);

    /** Common practice: not due, 1-30, 31-60, 61-90, over 90. */
    @DataProvider
    public Object[][] bands() {
        return new Object[][] {
            {-10, Band.NOT_DUE},
            {0, Band.NOT_DUE}, // on the due date itself nothing is late
            {1, Band.DAYS_1_30},
            {30, Band.DAYS_1_30},
            {31, Band.DAYS_31_60},
            {60, Band.DAYS_31_60},
            {61, Band.DAYS_61_90},
            {90, Band.DAYS_61_90},
            {91, Band.OVER_90},
            {4000, Band.OVER_90},
        };
    }

    @Test(dataProvider = "bands")
    public void aDebtStandsInTheBandOfItsDaysLate(int daysLate, Band band) {
        Aging aging = Aging.of(CurrencyUnit.EUR, List.of(debt(1, false, TODAY.minusDays(daysLate), "12.34")), TODAY);
        for (Band each : Band.values()) {
            assertThat(aging.in(each)).isEqualTo(eur(each == band ? "12.34" : "0.00"));
        }
        assertThat(aging.total()).isEqualTo(eur("12.34"));
    }

    @Test
    public void eachInstallmentAgesByItsOwnDueDate() {
        Aging aging = Aging.of(
                CurrencyUnit.EUR,
                List.of(
                        debt(1, false, TODAY.minusDays(45), "100.00"),
                        debt(2, false, TODAY.minusDays(15), "100.00"),
                        debt(3, false, TODAY.plusDays(15), "100.00"),
                        debt(4, true, TODAY.minusDays(7), "1.00")),
                TODAY);
        assertThat(aging.in(Band.DAYS_31_60)).isEqualTo(eur("100.00"));
        assertThat(aging.in(Band.DAYS_1_30)).isEqualTo(eur("101.00"));
        assertThat(aging.in(Band.NOT_DUE)).isEqualTo(eur("100.00"));
        assertThat(aging.total()).isEqualTo(eur("301.00"));
    }

    @Test
    public void ofTheSameDateInstallmentsAreSettledBeforeFees() {
        List<OpenDebt> debts = List.of(
                debt(1, true, TODAY, "5.00"),
                debt(2, false, TODAY, "50.00"),
                debt(3, true, TODAY.minusDays(1), "4.00"),
                debt(4, false, TODAY.plusDays(1), "60.00"));
        assertThat(order(debts, OpenDebt.ORDER)).containsExactly(3L, 2L, 1L, 4L);
    }

    /** The United States rule (Story v. Livingston, 1839; value from memory), for the setting "fees first". */
    @Test
    public void aBusinessMayChooseFeesFirst() {
        List<OpenDebt> debts = List.of(
                debt(1, false, TODAY.minusDays(60), "1000.00"),
                debt(2, true, TODAY.minusDays(30), "20.00"),
                debt(3, true, TODAY, "20.00"));
        assertThat(order(debts, OpenDebt.FEES_FIRST)).containsExactly(2L, 3L, 1L);
        Appropriation part = Appropriation.of(eur("100.00"), debts, Set.of(), OpenDebt.FEES_FIRST);
        assertThat(part.parts())
                .extracting(p -> p.amount().getAmount().toPlainString())
                .containsExactly("20.00", "20.00", "60.00");
    }

    @Test
    public void aWaivedFeeMirrorsTheChargedOne() {
        var charged = Bookings.lateFee(new DocumentId(3), eur("11.63"), List.of());
        var waived = Bookings.reversed(Entry.Event.LATE_FEE_WAIVED, charged);
        for (int i = 0; i < charged.postings().size(); i++) {
            assertThat(waived.postings().get(i).amount())
                    .isEqualTo(charged.postings().get(i).amount().negated());
            assertThat(waived.postings().get(i).account())
                    .isEqualTo(charged.postings().get(i).account());
        }
    }

    private static List<Long> order(List<OpenDebt> debts, java.util.Comparator<OpenDebt> by) {
        return debts.stream().sorted(by).map(OpenDebt::id).toList();
    }

    private static OpenDebt debt(long id, boolean fee, LocalDate due, String open) {
        return new OpenDebt(id, new DocumentId(1), "2027-0001", (int) id, fee, due, eur(open));
    }

    private static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }
}
