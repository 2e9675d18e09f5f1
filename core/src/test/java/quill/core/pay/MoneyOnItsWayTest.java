package quill.core.pay;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.Problem;
import quill.core.ledger.Account;

/** How money comes, what may be on its way, and what a page offers to pay. */
public class MoneyOnItsWayTest {
    private static final Instant NOW = Instant.parse("2027-03-15T12:00:00Z");
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 15);

    /** Minutes since it was opened and since the processor told of it last; null for never. */
    @DataProvider
    public Object[][] orders() {
        return new Object[][] {
            {0, 0, true},
            {29, 1, true}, // the payer may still be at the pay page
            {30, 1, false}, // the pay page has ended, and nothing was paid a minute ago
            {200, 60, false},
            {200, 61, true}, // for so long nobody told how it stands
            {200, null, true},
            {null, null, true},
            {null, 5, false},
        };
    }

    @Test(dataProvider = "orders")
    public void anOrderMayBringMoneyWhileItIsYoungOrUnknown(Integer opened, Integer told, boolean may) {
        assertThat(InTransit.mayBring(ago(opened), ago(told), NOW)).isEqualTo(may);
    }

    private static Instant ago(Integer minutes) {
        return minutes == null ? null : NOW.minusSeconds(minutes * 60L);
    }

    private static final LocalDate PAST = TODAY.minusDays(3);
    private static final LocalDate SOON = TODAY.plusDays(3);
    private static final LocalDate LATER = TODAY.plusDays(30);

    @DataProvider
    public Object[][] pages() {
        return new Object[][] {
            {days(), List.of()},
            {days(PAST), List.of("due 1")},
            {days(TODAY), List.of("due 1")},
            {days(SOON), List.of("due 1")}, // nothing has fallen due: the first that will
            {days(PAST, TODAY, SOON, LATER), List.of("due 2", "all 4")},
            {days(SOON, LATER), List.of("due 1", "all 2")},
            {days(PAST, null), List.of("due 1", "all 2")}, // no date yet is never due
            {days((LocalDate) null), List.of("due 1")},
        };
    }

    @Test(dataProvider = "pages")
    public void aPageOffersWhatIsDueAndAllThatIsOpen(List<Optional<LocalDate>> open, List<String> offers) {
        assertThat(PageChoices.of(open, d -> d.orElse(null), TODAY))
                .extracting(c -> c.what() + " " + c.parts().size())
                .isEqualTo(offers);
    }

    private static List<Optional<LocalDate>> days(LocalDate... days) {
        return Arrays.stream(days).map(Optional::ofNullable).toList();
    }

    @Test
    public void aPersonRecordsWhatNoProcessorTells() {
        List<Problem> problems = new ArrayList<>();
        for (PaymentWay way : PaymentWay.values()) {
            PaymentWay read = PaymentWay.recorded("way", way.name(), problems);
            boolean byHand = way.account() != Account.PROCESSOR_CLEARING;
            assertThat(read).isEqualTo(byHand ? way : null);
            assertThat(way.isByHand()).isEqualTo(byHand);
        }
        assertThat(problems)
                .hasSize(3)
                .extracting(Problem::message)
                .containsOnly("must be TRANSFER, CASH, CHEQUE or OTHER");
    }
}
