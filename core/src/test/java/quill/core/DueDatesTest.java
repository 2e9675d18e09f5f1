package quill.core;

import static org.assertj.core.api.Assertions.assertThat;

import com.opengamma.strata.basics.ReferenceData;
import com.opengamma.strata.basics.date.BusinessDayAdjustment;
import com.opengamma.strata.basics.schedule.Frequency;
import com.opengamma.strata.basics.schedule.PeriodicSchedule;
import com.opengamma.strata.basics.schedule.RollConventions;
import com.opengamma.strata.basics.schedule.StubConvention;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.dmfs.rfc5545.DateTime;
import org.dmfs.rfc5545.recur.RecurrenceRule;
import org.dmfs.rfc5545.recur.RecurrenceRuleIterator;
import org.testng.annotations.Test;
import quill.core.schedule.Due;
import quill.core.schedule.DueDates;

public class DueDatesTest {
    private static final LocalDate ISSUED = LocalDate.of(2028, 1, 31);

    private static LocalDate day(String iso) {
        return LocalDate.parse(iso);
    }

    private static List<LocalDate> days(Due... dues) {
        return DueDates.of(List.of(dues), ISSUED).stream().map(Optional::get).toList();
    }

    @Test
    public void theLastOfJanuaryMonthlyOverALeapFebruaryKeepsItsOwnDay() {
        Due monthly = new Due.Monthly(null);
        assertThat(days(monthly, monthly, monthly, monthly))
                .containsExactly(day("2028-01-31"), day("2028-02-29"), day("2028-03-31"), day("2028-04-30"));
    }

    @Test
    public void monthlyGoesOnFromTheDatedOneAbove() {
        assertThat(days(new Due.On(day("2028-03-30")), new Due.Monthly(null), new Due.Monthly(null)))
                .containsExactly(day("2028-03-30"), day("2028-04-30"), day("2028-05-30"));
        assertThat(days(new Due.AfterIssue(0), new Due.Monthly(day("2028-05-15")), new Due.Monthly(null)))
                .containsExactly(ISSUED, day("2028-05-15"), day("2028-06-15"));
    }

    @Test
    public void afterTheEndOfTheMonthCountsFromItsLastDay() {
        assertThat(DueDates.of(new Due.AfterMonthEnd(30), day("2028-02-10"))).contains(day("2028-03-30"));
        assertThat(DueDates.of(new Due.AfterMonthEnd(0), day("2028-02-29"))).contains(day("2028-02-29"));
    }

    @Test
    public void twoDaysOfEachMonthFollowEachOther() {
        Due halves = new Due.TwiceAMonth(15, Due.LAST, null);
        assertThat(days(halves, halves, halves, halves))
                .containsExactly(day("2028-01-31"), day("2028-02-15"), day("2028-02-29"), day("2028-03-15"));
        assertThat(days(new Due.TwiceAMonth(1, 15, day("2028-02-02")), new Due.TwiceAMonth(1, 15, null)))
                .containsExactly(day("2028-02-15"), day("2028-03-01"));
    }

    @Test
    public void aMilestoneAndNoDateYetHaveNoDay() {
        assertThat(DueDates.of(List.of(new Due.AtMilestone("Strings on", 14), new Due.NoDateYet()), ISSUED))
                .containsExactly(Optional.empty(), Optional.empty());
        assertThat(DueDates.of(List.of(new Due.AtMilestone("Strings on", 14), new Due.Monthly(null)), ISSUED))
                .last()
                .isEqualTo(Optional.of(ISSUED));
    }

    /** RFC 5545 with RFC 7529's SKIP=BACKWARD, by lib-recur; and the rolls of OpenGamma Strata's schedules. */
    @Test
    public void tenThousandMonthlySchedulesAgreeWithTwoLibraries() throws Exception {
        Random random = new Random(15);
        for (int i = 0; i < 10_000; i++) {
            LocalDate first = day("2026-01-01").plusDays(random.nextInt(4_000));
            int count = 2 + random.nextInt(23);
            List<Due> dues = new ArrayList<>(List.of(new Due.Monthly(first)));
            dues.addAll(Collections.nCopies(count - 1, new Due.Monthly(null)));
            List<LocalDate> ours = days(dues.toArray(Due[]::new));
            assertThat(ours).isEqualTo(recurring("FREQ=MONTHLY;RSCALE=GREGORIAN;SKIP=BACKWARD", first, count));
            assertThat(ours).isEqualTo(rolled(first, count));
        }
    }

    @Test
    public void twoThousandSchedulesOfTwoDaysAMonthAgreeWithALibrary() throws Exception {
        Random random = new Random(16);
        for (int i = 0; i < 2_000; i++) {
            LocalDate from = day("2026-01-01").plusDays(random.nextInt(4_000));
            int one = 1 + random.nextInt(28);
            int other = random.nextInt(5) == 0 ? Due.LAST : one + 1 + random.nextInt(Due.LAST - one);
            List<Due> dues = new ArrayList<>(List.of(new Due.TwiceAMonth(one, other, from)));
            dues.addAll(Collections.nCopies(11, new Due.TwiceAMonth(one, other, null)));
            List<LocalDate> theirs = recurring(
                    "FREQ=MONTHLY;RSCALE=GREGORIAN;SKIP=BACKWARD;BYMONTHDAY=" + one + "," + other, firstOf(from), 16);
            assertThat(days(dues.toArray(Due[]::new)))
                    .isEqualTo(theirs.stream()
                            .filter(d -> !d.isBefore(from))
                            .distinct()
                            .limit(12)
                            .toList());
        }
    }

    private static LocalDate firstOf(LocalDate from) {
        return from.withDayOfMonth(1);
    }

    private static List<LocalDate> recurring(String rule, LocalDate first, int count) throws Exception {
        RecurrenceRuleIterator days = new RecurrenceRule(rule)
                .iterator(new DateTime(first.getYear(), first.getMonthValue() - 1, first.getDayOfMonth()));
        List<LocalDate> all = new ArrayList<>();
        while (all.size() < count) {
            DateTime next = days.nextDateTime();
            all.add(LocalDate.of(next.getYear(), next.getMonth() + 1, next.getDayOfMonth()));
        }
        return all;
    }

    private static List<LocalDate> rolled(LocalDate first, int count) {
        return PeriodicSchedule.builder()
                .startDate(first)
                .endDate(first.plusMonths(count - 1))
                .frequency(Frequency.P1M)
                .businessDayAdjustment(BusinessDayAdjustment.NONE)
                .stubConvention(StubConvention.NONE)
                .rollConvention(
                        first.getDayOfMonth() == 31
                                ? RollConventions.EOM
                                : com.opengamma.strata.basics.schedule.RollConvention.ofDayOfMonth(
                                        first.getDayOfMonth()))
                .build()
                .createUnadjustedDates(ReferenceData.standard());
    }
}
