package quill.core.schedule;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.core.TypedDate;
import quill.core.money.TypedNumber;

/**
 * Reads when an installment falls due, as people type it: {@code 30}, {@code 30 days}, {@code on issue}, {@code month end
 * + 10}, {@code 15 Apr}, {@code monthly}, {@code monthly from 20 Apr}, {@code 1 and 15}, {@code 15 and last from 1 May},
 * {@code at delivery}, {@code 14 days after delivery}, {@code no date yet}.
 */
final class DueReading {
    static final int MAX_DAYS = 3650;
    private static final int MAX_NAME = 60;
    private static final String DAYS = "(\\d{1,6})(?: ?days?)?";
    private static final String MONTH_END = "(?:the )?(?:end of (?:the )?month|month[ -]?end)(?: of issue)?";
    private static final Pattern NO_DATE = Pattern.compile("no (?:date|day)(?: yet)?|open|later");
    private static final Pattern ON_ISSUE = Pattern.compile("on issue|at issue|at once|now");
    private static final Pattern PLAIN_DAYS = Pattern.compile("\\+? ?" + DAYS + "(?: after issue)?");
    private static final Pattern AFTER_MONTH_END =
            Pattern.compile("(?:at )?" + MONTH_END + "(?: ?\\+ ?" + DAYS + ")?|" + DAYS + " after " + MONTH_END);
    private static final Pattern MONTHLY = Pattern.compile("monthly(?: from (.+))?");
    private static final Pattern TWICE = Pattern.compile("(?:the )?(\\d{1,2})(?:st|nd|rd|th)? ?(?:and|&) ?(?:the )?"
            + "(\\d{1,2}(?:st|nd|rd|th)?|last)(?: of (?:each|every|the) month)?(?: from (.+))?");
    private static final Pattern DAYS_AFTER = Pattern.compile(DAYS + " after (.+)", Pattern.CASE_INSENSITIVE);
    private static final Pattern AT =
            Pattern.compile("(?:at|when|milestone:?) (.+?)(?: ?\\+ ?" + DAYS + ")?", Pattern.CASE_INSENSITIVE);

    private static final String ALLOWED = "write days after issue such as 30, a day such as 15 Apr, monthly, 1 and 15,"
            + " month end + 10, at and the name of a milestone, or no date yet";

    private final String field;
    private final String typed;
    private final LocalDate issuedOn;
    private final List<Problem> problems;

    private DueReading(String field, String typed, LocalDate issuedOn, List<Problem> problems) {
        this.field = field;
        this.typed = typed == null ? "" : typed.strip().replaceAll("\\s+", " ");
        this.issuedOn = issuedOn;
        this.problems = problems;
    }

    /**
     * Reads one.
     *
     * @param issuedOn a day is not before it; one without a year is the next such day
     * @return null where a problem was added
     */
    static Due read(String field, String typed, LocalDate issuedOn, List<Problem> problems) {
        return new DueReading(field, typed, issuedOn, problems).due();
    }

    private Due due() {
        String text = typed.toLowerCase(Locale.ROOT);
        if (NO_DATE.matcher(text).matches()) {
            return new Due.NoDateYet();
        }
        if (ON_ISSUE.matcher(text).matches()) {
            return new Due.AfterIssue(0);
        }
        Matcher plain = PLAIN_DAYS.matcher(text);
        if (plain.matches()) {
            return days(plain.group(1)).<Due>map(Due.AfterIssue::new).orElse(null);
        }
        Matcher monthEnd = AFTER_MONTH_END.matcher(text);
        if (monthEnd.matches()) {
            String days = monthEnd.group(1) == null ? monthEnd.group(2) : monthEnd.group(1);
            return days(days == null ? "0" : days)
                    .<Due>map(Due.AfterMonthEnd::new)
                    .orElse(null);
        }
        Matcher monthly = MONTHLY.matcher(text);
        if (monthly.matches()) {
            return monthly.group(1) == null
                    ? new Due.Monthly(null)
                    : day(monthly.group(1)).<Due>map(Due.Monthly::new).orElse(null);
        }
        Matcher twice = TWICE.matcher(text);
        return twice.matches() ? twiceAMonth(twice) : milestoneOrDay();
    }

    private Due twiceAMonth(Matcher m) {
        int one = Integer.parseInt(m.group(1));
        int other = m.group(2).equals("last")
                ? Due.LAST
                : Integer.parseInt(m.group(2).replaceAll("\\D", ""));
        if (one < 1 || other > Due.LAST || one >= other) {
            problems.add(new Problem(
                    field, typed, "name two days of the month, the earlier one first: 1 and 15, or 15 and last"));
            return null;
        }
        if (m.group(3) == null) {
            return new Due.TwiceAMonth(one, other, null);
        }
        return day(m.group(3))
                .<Due>map(from -> new Due.TwiceAMonth(one, other, from))
                .orElse(null);
    }

    private Due milestoneOrDay() {
        Matcher after = DAYS_AFTER.matcher(typed);
        if (after.matches()) {
            return milestone(after.group(2), after.group(1));
        }
        Matcher at = AT.matcher(typed);
        if (at.matches()) {
            return milestone(at.group(1), at.group(2) == null ? "0" : at.group(2));
        }
        if (!typed.matches(".*\\d.*|.*\\p{L}{3}.*")) {
            problems.add(new Problem(field, typed, ALLOWED));
            return null;
        }
        if (typed.matches("[-−\\d.,*/() ]+") && !typed.matches("\\d{4}-.*|\\d{1,2}[./]\\d.*")) {
            BigDecimal days = TypedNumber.read(field, typed, 0, false, problems);
            return days == null
                    ? null
                    : days(days.toPlainString()).<Due>map(Due.AfterIssue::new).orElse(null);
        }
        return day(typed).<Due>map(Due.On::new).orElse(null);
    }

    private Due milestone(String typedName, String typedDays) {
        String name = typedName.strip();
        if (name.length() > MAX_NAME) {
            problems.add(new Problem(field, name, "a milestone has a name of at most " + MAX_NAME + " characters"));
            return null;
        }
        return days(typedDays).<Due>map(n -> new Due.AtMilestone(name, n)).orElse(null);
    }

    private Optional<Integer> days(String digits) {
        if (new BigDecimal(digits).compareTo(BigDecimal.valueOf(MAX_DAYS)) > 0) {
            problems.add(new Problem(field, typed, "at most 3,650 days"));
            return Optional.empty();
        }
        return Optional.of(Integer.valueOf(digits));
    }

    private Optional<LocalDate> day(String text) {
        LocalDate day = LooseDate.read(field, text, issuedOn, LooseDate.Lean.COMING, problems);
        if (day == null) {
            return Optional.empty();
        }
        if (day.isBefore(issuedOn)) {
            problems.add(new Problem(field, typed, "is before the day of issue, " + TypedDate.inWords(issuedOn)));
            return Optional.empty();
        }
        if (day.isAfter(issuedOn.plusDays(MAX_DAYS))) {
            problems.add(new Problem(field, typed, "at most 3,650 days after issue"));
            return Optional.empty();
        }
        return Optional.of(day);
    }
}
