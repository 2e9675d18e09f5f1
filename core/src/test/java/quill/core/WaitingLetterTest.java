package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import org.joda.money.Money;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.reminder.WaitingLetter;

public class WaitingLetterTest {
    private static final LocalDate WRITTEN = LocalDate.of(2027, 3, 1);

    @DataProvider
    Object[][] letters() {
        return new Object[][] {
            // days later, by hand, open of debt 1, open of debt 2, what becomes of it
            {0, false, "50.00", "20.00", "LEAVES"},
            {0, false, "60.00", "20.00", "LEAVES"},
            {0, false, "49.99", "20.00", "PAID_MEANWHILE"},
            {0, false, "50.00", null, "PAID_MEANWHILE"},
            {1, false, "50.00", "20.00", "DAY_HAS_PASSED"},
            {1, false, "0.00", "0.00", "DAY_HAS_PASSED"},
            {1, true, "50.00", "20.00", "LEAVES"},
            {30, true, "50.00", "19.99", "PAID_MEANWHILE"},
        };
    }

    /** It asks for 50.00 of one debt and 20.00 of another. */
    @Test(dataProvider = "letters")
    public void itLeavesOnItsDayWhileAllThatItAsksForIsOpen(
            int later, boolean byHand, String first, String second, String fate) {
        WaitingLetter letter = new WaitingLetter(WRITTEN, byHand, Map.of(1L, eur("50.00"), 2L, eur("20.00")));
        assertThat(letter.on(
                        WRITTEN.plusDays(later),
                        debt -> Optional.ofNullable(debt == 1 ? first : second).map(WaitingLetterTest::eur)))
                .hasToString(fate);
    }

    private static Money eur(String amount) {
        return Money.parse("EUR " + amount);
    }
}
