package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.LooseDate.Lean;

/** Days as people type them; 15 March 2027 is a Monday. */
public class LooseDateTest {
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 15);

    @DataProvider
    Object[][] days() {
        return new Object[][] {
            // typed, coming, past, near
            {"2027-04-15", "2027-04-15", "2027-04-15", "2027-04-15"},
            {"15 Apr", "2027-04-15", "2026-04-15", "2027-04-15"},
            {"15. April", "2027-04-15", "2026-04-15", "2027-04-15"},
            {"15th apr 2028", "2028-04-15", "2028-04-15", "2028-04-15"},
            {"Apr 15", "2027-04-15", "2026-04-15", "2027-04-15"},
            {"April 15, 2026", "2026-04-15", "2026-04-15", "2026-04-15"},
            {"1 dec", "2027-12-01", "2026-12-01", "2026-12-01"},
            {"1 sept", "2027-09-01", "2026-09-01", "2027-09-01"},
            {"29 Feb", "2028-02-29", "2024-02-29", "2028-02-29"},
            {"15 March", "2027-03-15", "2027-03-15", "2027-03-15"},
            {"15.4.", "2027-04-15", "2026-04-15", "2027-04-15"},
            {"15.4.2028", "2028-04-15", "2028-04-15", "2028-04-15"},
            {"3.4.27", "2027-04-03", "2027-04-03", "2027-04-03"},
            {"15/4", "2027-04-15", "2026-04-15", "2027-04-15"},
            {"4/15/2027", "2027-04-15", "2027-04-15", "2027-04-15"},
            {"4/4", "2027-04-04", "2026-04-04", "2027-04-04"},
            {"30", "2027-03-30", "2027-01-30", "2027-03-30"},
            {"1", "2027-04-01", "2027-03-01", "2027-03-01"},
            {"31", "2027-03-31", "2027-01-31", "2027-03-31"},
            {"15", "2027-03-15", "2027-03-15", "2027-03-15"},
            {"+14", "2027-03-29", "2027-03-29", "2027-03-29"},
            {"+ 14 days", "2027-03-29", "2027-03-29", "2027-03-29"},
            {"-3", "2027-03-12", "2027-03-12", "2027-03-12"},
            {"today", "2027-03-15", "2027-03-15", "2027-03-15"},
            {"Tomorrow", "2027-03-16", "2027-03-16", "2027-03-16"},
            {"yesterday", "2027-03-14", "2027-03-14", "2027-03-14"},
            {"in 2 weeks", "2027-03-29", "2027-03-29", "2027-03-29"},
            {"2 weeks", "2027-03-29", "2027-03-01", "2027-03-29"},
            {"a month ago", "2027-02-15", "2027-02-15", "2027-02-15"},
            {"in a month", "2027-04-15", "2027-04-15", "2027-04-15"},
            {"end of month", "2027-03-31", "2027-03-31", "2027-03-31"},
            {"end of the month", "2027-03-31", "2027-03-31", "2027-03-31"},
            {"month end", "2027-03-31", "2027-03-31", "2027-03-31"},
            {"end of next month", "2027-04-30", "2027-04-30", "2027-04-30"},
            {"end of last month", "2027-02-28", "2027-02-28", "2027-02-28"},
            {"end of february", "2028-02-29", "2027-02-28", "2027-02-28"},
            {"friday", "2027-03-19", "2027-03-12", "2027-03-12"},
            {"fri", "2027-03-19", "2027-03-12", "2027-03-12"},
            {"monday", "2027-03-15", "2027-03-15", "2027-03-15"},
            {"next monday", "2027-03-22", "2027-03-22", "2027-03-22"},
            {"next friday", "2027-03-19", "2027-03-19", "2027-03-19"},
            {"last friday", "2027-03-12", "2027-03-12", "2027-03-12"},
            {"  next   FRIDAY ", "2027-03-19", "2027-03-19", "2027-03-19"},
        };
    }

    @Test(dataProvider = "days")
    public void daysAreReadAsPeopleTypeThem(String typed, String coming, String past, String near) {
        assertThat(read(typed, Lean.COMING)).isEqualTo(coming);
        assertThat(read(typed, Lean.PAST)).isEqualTo(past);
        assertThat(read(typed, Lean.NEAR)).isEqualTo(near);
    }

    @DataProvider
    Object[][] slips() {
        return new Object[][] {
            {"", "write a day such as"},
            {"soon", "write a day such as"},
            {"3/4", "could be 3 April 2027 or 4 March 2028; write the month in letters"},
            {"3/4/2027", "could be 3 April 2027 or 4 March 2027"},
            {"31 Apr", "there is no such day"},
            {"30 Feb 2028", "there is no such day"},
            {"29 Feb 2027", "there is no such day"},
            {"0", "there is no such day"},
            {"32", "there is no such day"},
            {"45.1.", "there is no such day"},
            {"2027-02-30", "there is no such day"},
            {"15 Apx", "write a day such as"},
            {"15 Apr 1066", "from 1900 to 2200"},
            {"end of 5", "write a day such as"},
            {"in a fortnight", "write a day such as"},
        };
    }

    @Test(dataProvider = "slips")
    public void whatIsNoDayOrCouldBeTwoIsRefused(String typed, String says) {
        List<Problem> problems = new ArrayList<>();
        assertThat(LooseDate.read("f", typed, TODAY, Lean.COMING, problems)).isNull();
        assertThat(problems)
                .singleElement()
                .satisfies(p -> assertThat(p.message()).contains(says));
    }

    private static String read(String typed, Lean lean) {
        List<Problem> problems = new ArrayList<>();
        LocalDate day = LooseDate.read("f", typed, TODAY, lean, problems);
        assertThat(problems).as(typed).isEmpty();
        return String.valueOf(day);
    }
}
