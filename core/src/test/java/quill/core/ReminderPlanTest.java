package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import quill.core.reminder.ReminderPlan;
import quill.core.reminder.ReminderPlan.TypedPlan;
import quill.core.reminder.ReminderPlan.TypedStep;
import quill.core.reminder.ReminderStep;

public class ReminderPlanTest {
    private static final LocalDate DUE = LocalDate.of(2027, 3, 10);
    private static final LocalDate ISSUED = LocalDate.of(2027, 2, 1);
    private static final LocalDate LONG_AGO = LocalDate.of(2020, 1, 1);

    /** Three days before, on the day, 3 and 14 days after (common practice). */
    @DataProvider
    public Object[][] days() {
        return new Object[][] {
            {"2027-03-06", null, null},
            {"2027-03-07", null, -3},
            {"2027-03-09", null, -3}, // missed on its day: still the one that is due
            {"2027-03-10", -3, 0},
            {"2027-03-12", 0, null},
            {"2027-03-13", 0, 3},
            {"2027-03-24", 3, 14},
            {"2027-03-24", -3, 14}, // after an outage only the latest of 0, 3 and 14 goes
            {"2027-05-01", 14, null},
        };
    }

    @Test(dataProvider = "days")
    public void theLatestStepThatIsNotUsedUpIsDue(String day, Integer used, Integer expected) {
        ReminderPlan plan = plan(TypedPlan.usual(), LONG_AGO);
        assertThat(plan.dueOn(LocalDate.parse(day), DUE, ISSUED, used)
                        .map(ReminderStep::days)
                        .orElse(null))
                .isEqualTo(expected);
    }

    @Test
    public void stepsUpToTheDayOfIssueAreUsedUp() {
        ReminderPlan plan = plan(TypedPlan.usual(), LONG_AGO);
        // Issued on the due date: the letter with the invoice is the first; the next is three days after.
        assertThat(plan.dueOn(DUE, DUE, DUE, null)).isEmpty();
        assertThat(plan.dueOn(DUE.plusDays(3), DUE, DUE, null).orElseThrow().days())
                .isEqualTo(3);
    }

    @Test
    public void aChangedPlanWritesToNobodyAboutThePast() {
        ReminderPlan plan = plan(TypedPlan.usual(), DUE.plusDays(5));
        assertThat(plan.dueOn(DUE.plusDays(6), DUE, ISSUED, null)).isEmpty();
        assertThat(plan.nextDay(DUE, ISSUED, null)).contains(DUE.plusDays(14));
    }

    @Test
    public void aPlanThatIsOffSendsNothing() {
        TypedPlan usual = TypedPlan.usual();
        ReminderPlan off = plan(new TypedPlan(usual.steps(), false, "09:00", false, ""), LONG_AGO);
        assertThat(off.dueOn(DUE, DUE, ISSUED, null)).isEmpty();
        assertThat(off.nextDay(DUE, ISSUED, null)).isEmpty();
    }

    @DataProvider
    public Object[][] moved() {
        return new Object[][] {
            {"2027-03-12", "2027-03-12"}, // Friday
            {"2027-03-13", "2027-03-15"}, // Saturday to Monday
            {"2027-03-14", "2027-03-15"}, // Sunday to Monday
            {"2027-12-24", "2027-12-28"}, // 24 a holiday, then a weekend, 27 a holiday
            {"2027-12-27", "2027-12-28"},
        };
    }

    @Test(dataProvider = "moved")
    public void restDaysAreMovedToTheNextWorkingDay(String due, String day) {
        TypedPlan typed =
                new TypedPlan(List.of(new TypedStep("0", null, "FIRM")), true, "09:00", true, "2027-12-24, 2027-12-27");
        ReminderPlan plan = plan(typed, LONG_AGO);
        assertThat(plan.dayOf(plan.steps().get(0), LocalDate.parse(due))).isEqualTo(day);
    }

    @DataProvider
    public Object[][] refused() {
        return new Object[][] {
            {"3", "3", "09:00", "", "steps[1].days", "another step has this day"},
            {"-61", "3", "09:00", "", "steps[0].days", "from 0 to 365 days after"},
            {"366", "3", "09:00", "", "steps[0].days", "from 0 to 365 days after"},
            {"1.5", "3", "09:00", "", "steps[0].days", "no decimals"},
            {"0", "3", "25:00", "", "hour", "from 00:00 to 23:59"},
            {"0", "3", "", "", "hour", "from 00:00 to 23:59"},
            {"0", "3", "09:00", "2027-02-30", "holidays", "write a date"},
        };
    }

    @Test(dataProvider = "refused")
    public void aWrongFieldIsNamed(
            String first, String second, String hour, String holidays, String field, String message) {
        List<Problem> problems = new ArrayList<>();
        TypedPlan typed = new TypedPlan(
                List.of(new TypedStep(first, null, "FRIENDLY"), new TypedStep(second, null, "FIRM")),
                true,
                hour,
                false,
                holidays);
        assertThat(ReminderPlan.read(typed, LONG_AGO, problems)).isNull();
        assertThat(problems).hasSize(1);
        assertThat(problems.get(0).field()).isEqualTo(field);
        assertThat(problems.get(0).message()).contains(message);
    }

    @Test
    public void anUnknownToneAndTooManyStepsAreRefused() {
        List<Problem> problems = new ArrayList<>();
        List<TypedStep> many = new ArrayList<>();
        for (int i = 0; i < 13; i++) {
            many.add(new TypedStep(String.valueOf(i), null, i == 0 ? "angry" : "FIRM"));
        }
        ReminderPlan.read(new TypedPlan(many, true, "9:00", false, null), LONG_AGO, problems);
        assertThat(problems).extracting(Problem::field).containsExactly("steps", "steps[0].tone");
    }

    @Test
    public void daysAreNeverNegative() {
        List<Problem> problems = new ArrayList<>();
        TypedStep typed = new TypedStep("-3", false, "FIRM");
        ReminderPlan.read(new TypedPlan(List.of(typed), true, "09:00", false, ""), LONG_AGO, problems);
        assertThat(problems).extracting(Problem::field).containsExactly("steps[0].days");
        ReminderPlan.read(
                new TypedPlan(List.of(new TypedStep("61", true, "FIRM")), true, "09:00", false, ""),
                LONG_AGO,
                problems);
        assertThat(problems.get(1).message()).contains("from 0 to 60 days before");
    }

    @Test
    public void aStepThatIsMilderThanTheOneBeforeItIsRefused() {
        List<Problem> problems = new ArrayList<>();
        TypedPlan kindAgain = new TypedPlan(
                List.of(
                        new TypedStep("14", false, "FRIENDLY"),
                        new TypedStep("0", false, "FRIENDLY"),
                        new TypedStep("3", false, "FIRM")),
                true,
                "09:00",
                false,
                "");
        assertThat(ReminderPlan.read(kindAgain, LONG_AGO, problems)).isNull();
        assertThat(problems).hasSize(1);
        assertThat(problems.get(0).field()).isEqualTo("steps[0].tone");
        assertThat(problems.get(0).message()).isEqualTo("is milder than the step 3 days after, which is firm");
    }

    @Test
    public void stepsAreSaidInWords() {
        assertThat(plan(TypedPlan.usual(), LONG_AGO).steps())
                .extracting(ReminderStep::words)
                .containsExactly("3 days before", "on the due date", "3 days after", "14 days after");
    }

    private static ReminderPlan plan(TypedPlan typed, LocalDate since) {
        List<Problem> problems = new ArrayList<>();
        ReminderPlan plan = ReminderPlan.read(typed, since, problems);
        assertThat(problems).isEmpty();
        return plan;
    }

    @Test
    public void furtherHolidaysMoveAStepOnToo() {
        TypedPlan typed = new TypedPlan(List.of(new TypedStep("0", null, "FIRM")), true, "09:00", true, "", "BE");
        ReminderPlan plan = ReminderPlan.read(typed, LONG_AGO, new ArrayList<>());
        LocalDate monday = LocalDate.of(2027, 3, 29);
        assertThat(plan.dayOf(plan.steps().get(0), monday)).isEqualTo(monday);
        assertThat(plan.withHolidays(Set.of(monday)).dayOf(plan.steps().get(0), monday))
                .isEqualTo(monday.plusDays(1));
    }
}
