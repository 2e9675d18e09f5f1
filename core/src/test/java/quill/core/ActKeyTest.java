package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.acts.ActKey;
import quill.core.acts.ActKind;
import quill.core.id.ClientId;

public class ActKeyTest {
    @Test
    public void whatIsWrittenIsReadBack() {
        assertThat(ActKey.read("fee:12:2027-03-01:2"))
                .contains(new ActKey(ActKind.FEE, 12, LocalDate.of(2027, 3, 1), 2))
                .map(ActKey::toString)
                .contains("fee:12:2027-03-01:2");
        ActKey reminder = ActKey.reminder(new ClientId(7), LocalDate.of(2027, 3, 4));
        assertThat(reminder).hasToString("reminder:7:2027-03-04");
        assertThat(ActKey.read(reminder.toString())).contains(reminder);
        assertThat(reminder.toString()).startsWith(ActKey.beginning(ActKind.REMINDER, 7));
    }

    @DataProvider
    Object[][] none() {
        return new Object[][] {
            {null},
            {""},
            {"fee"},
            {"fee:1:2027-03-01:0"},
            {"fee:01:2027-03-01:1"},
            {"fee:+1:2027-03-01:1"},
            {"fee:1:2027-02-30:1"},
            {"fee:1:2027-03-01:1:1"},
            {"pigeon:1:2027-03-01:1"},
            {"reminder:1234567890123456789:2027-03-01"},
            {"reminder:7:2027-03-04 "},
            {"fee:1:2027-03-01:1234567"},
        };
    }

    @Test(dataProvider = "none")
    public void nothingElseIsAKey(String text) {
        assertThat(ActKey.read(text)).isEmpty();
    }

    @Test
    public void kindsComeInTheOrderOfTheRun() {
        assertThat(ActKind.values()).containsExactly(ActKind.FEE, ActKind.REMINDER);
        assertThat(ActKind.of("letter")).isEmpty();
    }
}
