package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.acts.Act;
import quill.core.acts.Act.Stop;
import quill.core.acts.ActKind;
import quill.core.document.IssueChecks;
import quill.core.document.TypedDraft;
import quill.core.id.ClientId;
import quill.core.reminder.ReminderStep;

/** What a day's list has, what lapses with its day, and what keeps a draft from being issued. */
public class DayListTest {
    private static final LocalDate TODAY = LocalDate.of(2027, 3, 15);

    /** The letter's day, what stands in its way, whether it came up on that day, whether the list has it. */
    @DataProvider
    public Object[][] letters() {
        LocalDate yesterday = TODAY.minusDays(1);
        return new Object[][] {
            {TODAY, Stop.NOTHING, true, true},
            {TODAY, Stop.NOTHING, false, true}, // it waited until now, and goes
            {TODAY, Stop.MUTED, true, true}, // for a person to see
            {TODAY, Stop.MUTED, false, false}, // it goes on waiting: nothing new
            {yesterday, Stop.NOTHING, true, false}, // missed: the next letter says what is open then
            {yesterday, Stop.MUTED, true, false},
            {yesterday, Stop.KEPT_BACK, true, true}, // its steps are used up all the same
            {yesterday, Stop.KEPT_BACK, false, false},
        };
    }

    @Test(dataProvider = "letters")
    public void aMissedLetterLapsesUnlessAPersonKeptItBack(LocalDate on, Stop stop, boolean isNew, boolean listed) {
        Act letter = new Act.Reminder(
                on, new ClientId(7), new ReminderStep(3, ReminderStep.Tone.FRIENDLY), List.of(), stop, isNew);
        assertThat(letter.isListedOn(TODAY)).isEqualTo(listed);
    }

    @Test
    public void feesAreChargedLateAndLettersAreNotSentLate() {
        assertThat(ActKind.FEE.isDoneLate()).isTrue();
        assertThat(ActKind.REMINDER.isDoneLate()).isFalse();
    }

    /** Client, day of supply, what could not be read; the fields to be mended. */
    @DataProvider
    public Object[][] drafts() {
        Problem line = new Problem("lines[0].price", "x", "must be a number");
        return new Object[][] {
            {new ClientId(1), "2027-03-01", List.of(), List.of()},
            {null, "2027-03-01", List.of(), List.of("clientId")},
            {new ClientId(1), " ", List.of(), List.of("supplyDate")},
            {new ClientId(1), "2027-03-01", List.of(line), List.of("lines[0].price")},
            {null, "", List.of(line), List.of("clientId", "lines[0].price", "supplyDate")},
        };
    }

    @Test(dataProvider = "drafts")
    public void aDraftIsIssuedOnceNothingIsMissing(
            ClientId client, String supplied, List<Problem> reading, List<String> fields) {
        TypedDraft draft = TypedDraft.in("EUR").build().suppliedOn(supplied).forClient(client);
        assertThat(IssueChecks.of(draft, reading)).extracting(Problem::field).isEqualTo(fields);
    }
}
