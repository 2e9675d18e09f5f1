package quill.core;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.YearMonth;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.IntFunction;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Days as people type them: {@code 15 Apr}, {@code Apr 15}, {@code 15.4.}, {@code 30}, {@code +14}, {@code tomorrow},
 * {@code next friday}, {@code end of month}, {@code in 2 weeks}. What could be two days is refused, never guessed, and
 * what was understood is for the caller to show.
 */
public final class LooseDate {
    /** Which of several days is meant where the text alone does not say. */
    public enum Lean {
        /** Today, or the next one: when something falls due. */
        COMING,
        /** Today, or the last one: when money came. */
        PAST,
        /** The nearest; of two that are as near the one to come. */
        NEAR
    }

    private static final String ALLOWED = "write a day such as 15 Apr, 2027-04-15, +14, next friday or end of month";
    private static final List<String> MONTHS = List.of(
            "january",
            "february",
            "march",
            "april",
            "may",
            "june",
            "july",
            "august",
            "september",
            "october",
            "november",
            "december");
    private static final Pattern DAY_MONTH =
            Pattern.compile("(\\d{1,2})(?:st|nd|rd|th)?\\.?\\s*(\\p{L}{3,9})\\.?(?:,?\\s+(\\d{4}))?");
    private static final Pattern MONTH_DAY =
            Pattern.compile("(\\p{L}{3,9})\\.?\\s*(\\d{1,2})(?:st|nd|rd|th)?(?:,?\\s+(\\d{4}))?");
    private static final Pattern NUMBERS =
            Pattern.compile("(\\d{1,2})\\s*([./])\\s*(\\d{1,2})(?:\\s*[./]\\s*(\\d{4}|\\d{2})?)?");
    private static final Pattern SHIFT = Pattern.compile("([-−+])\\s*(\\d{1,4})(?:\\s*days?)?");
    private static final Pattern SPAN =
            Pattern.compile("(?:in\\s+)?(an?|\\d{1,4})\\s+(day|week|month|year)s?(\\s+ago)?");
    private static final Pattern WEEKDAY = Pattern.compile("(?:(next|last|this|on)\\s+)?(\\p{L}{3,9})");
    private static final Pattern MONTH_END = Pattern.compile(
            "(?:the\\s+)?(?:end of|month[ -]?end)(?:\\s+(?:the|this))?(?:\\s+(next|last))?(?:\\s+month)?");

    private final String text;
    private final LocalDate today;
    private final Lean lean;

    private LooseDate(String text, LocalDate today, Lean lean) {
        this.text = text.strip().toLowerCase(Locale.ROOT).replaceAll("\\s+", " ");
        this.today = today;
        this.lean = lean;
    }

    /**
     * Reads a day.
     *
     * @param today from which relative ones count
     * @return the day, or null where a problem was added; nothing typed is a problem too
     */
    public static LocalDate read(String field, String text, LocalDate today, Lean lean, List<Problem> problems) {
        String typed = text == null ? "" : text;
        try {
            Optional<LocalDate> day = new LooseDate(typed, today, lean).day();
            if (day.isEmpty()) {
                problems.add(new Problem(field, typed, ALLOWED));
                return null;
            }
            int before = problems.size();
            TypedDate.check(field, day.get(), problems);
            return problems.size() > before ? null : day.get();
        } catch (AmbiguousException e) {
            problems.add(new Problem(field, typed, e.getMessage()));
            return null;
        } catch (DateTimeException e) {
            problems.add(new Problem(field, typed, "there is no such day; " + ALLOWED));
            return null;
        }
    }

    private static final class AmbiguousException extends RuntimeException {
        private static final long serialVersionUID = 1;

        AmbiguousException(String message) {
            super(message);
        }
    }

    private Optional<LocalDate> day() {
        if (text.matches("\\d{4}-\\d{2}-\\d{2}")) {
            return Optional.of(LocalDate.parse(text));
        }
        if (text.matches("\\d{1,2}")) {
            return Optional.of(ofMonth(Integer.parseInt(text)));
        }
        return named().or(this::numbered).or(this::shifted).or(this::monthEnd).or(this::weekday);
    }

    /** With the name of a month. */
    private Optional<LocalDate> named() {
        Matcher first = DAY_MONTH.matcher(text);
        if (first.matches() && month(first.group(2)) > 0) {
            return Optional.of(inYear(first.group(1), month(first.group(2)), first.group(3)));
        }
        Matcher second = MONTH_DAY.matcher(text);
        return second.matches() && month(second.group(1)) > 0
                ? Optional.of(inYear(second.group(2), month(second.group(1)), second.group(3)))
                : Optional.empty();
    }

    private static int month(String name) {
        for (int i = 0; i < MONTHS.size(); i++) {
            if (MONTHS.get(i).startsWith(name) || name.equals("sept") && i == 8) {
                return i + 1;
            }
        }
        return 0;
    }

    private LocalDate inYear(String day, int month, String year) {
        int d = Integer.parseInt(day);
        if (year != null) {
            int y = Integer.parseInt(year);
            return LocalDate.of(y < 100 ? 2000 + y : y, month, d);
        }
        LocalDate.of(2024, month, d); // a leap year: refuses what no year has
        return nearest(i -> {
            int y = today.getYear() + i;
            return java.time.MonthDay.of(month, d).isValidYear(y) ? LocalDate.of(y, month, d) : null;
        });
    }

    /** Day and month in numbers; with strokes the month may stand first, so that some could be two days. */
    private Optional<LocalDate> numbered() {
        Matcher m = NUMBERS.matcher(text);
        if (!m.matches()) {
            return Optional.empty();
        }
        int first = Integer.parseInt(m.group(1));
        int second = Integer.parseInt(m.group(3));
        boolean strokes = "/".equals(m.group(2));
        if (strokes && first != second && first <= 12 && second <= 12) {
            throw new AmbiguousException("could be "
                    + TypedDate.inWords(inYear(m.group(1), second, m.group(4))) + " or "
                    + TypedDate.inWords(inYear(m.group(3), first, m.group(4))) + "; write the month in letters");
        }
        return Optional.of(
                strokes && second > 12
                        ? inYear(m.group(3), first, m.group(4))
                        : inYear(m.group(1), second, m.group(4)));
    }

    /** So many days, weeks, months or years from today. */
    private Optional<LocalDate> shifted() {
        switch (text) {
            case "today", "now":
                return Optional.of(today);
            case "tomorrow":
                return Optional.of(today.plusDays(1));
            case "yesterday":
                return Optional.of(today.minusDays(1));
            default:
        }
        Matcher days = SHIFT.matcher(text);
        if (days.matches()) {
            int n = Integer.parseInt(days.group(2));
            return Optional.of(today.plusDays("+".equals(days.group(1)) ? n : -n));
        }
        Matcher span = SPAN.matcher(text);
        if (!span.matches()) {
            return Optional.empty();
        }
        int n = span.group(1).startsWith("a") ? 1 : Integer.parseInt(span.group(1));
        ChronoUnit unit = ChronoUnit.valueOf(span.group(2).toUpperCase(Locale.ROOT) + "S");
        boolean back = span.group(3) != null || !text.startsWith("in ") && lean == Lean.PAST;
        return Optional.of(today.plus(back ? -n : n, unit));
    }

    private Optional<LocalDate> monthEnd() {
        Matcher m = MONTH_END.matcher(text);
        if (m.matches()) {
            int months = "next".equals(m.group(1)) ? 1 : "last".equals(m.group(1)) ? -1 : 0;
            return Optional.of(YearMonth.from(today).plusMonths(months).atEndOfMonth());
        }
        Matcher of = Pattern.compile("end of (\\p{L}{3,9})(?: (\\d{4}))?").matcher(text);
        if (!of.matches() || month(of.group(1)) == 0) {
            return Optional.empty();
        }
        int month = month(of.group(1));
        return Optional.of(
                of.group(2) != null
                        ? YearMonth.of(Integer.parseInt(of.group(2)), month).atEndOfMonth()
                        : nearest(i -> YearMonth.of(today.getYear() + i, month).atEndOfMonth()));
    }

    /** The next one is after today, the last one before it; without either word today counts. */
    private Optional<LocalDate> weekday() {
        Matcher m = WEEKDAY.matcher(text);
        if (!m.matches()) {
            return Optional.empty();
        }
        Optional<DayOfWeek> named = Arrays.stream(DayOfWeek.values())
                .filter(d -> d.name().toLowerCase(Locale.ROOT).startsWith(m.group(2)))
                .findFirst();
        return named.map(d -> {
            if ("next".equals(m.group(1))) {
                return today.with(TemporalAdjusters.next(d));
            }
            if ("last".equals(m.group(1))) {
                return today.with(TemporalAdjusters.previous(d));
            }
            LocalDate coming = today.with(TemporalAdjusters.nextOrSame(d));
            LocalDate past = today.with(TemporalAdjusters.previousOrSame(d));
            return chosen(past, coming);
        });
    }

    /** The day of a month that has it. */
    private LocalDate ofMonth(int day) {
        if (day < 1 || day > 31) {
            throw new DateTimeException("no such day");
        }
        return nearest(i -> {
            YearMonth month = YearMonth.from(today).plusMonths(i);
            return day <= month.lengthOfMonth() ? month.atDay(day) : null;
        });
    }

    /** Of those that recur, one for each step from now, the one that is meant; null is none in that step. */
    private LocalDate nearest(IntFunction<LocalDate> at) {
        LocalDate past = null;
        LocalDate coming = null;
        for (int i = 9; i >= -9; i--) {
            LocalDate day = at.apply(i);
            if (day != null && !day.isBefore(today)) {
                coming = day;
            }
        }
        for (int i = -9; i <= 9; i++) {
            LocalDate day = at.apply(i);
            if (day != null && !day.isAfter(today)) {
                past = day;
            }
        }
        return chosen(past, coming);
    }

    private LocalDate chosen(LocalDate past, LocalDate coming) {
        return switch (lean) {
            case COMING -> coming;
            case PAST -> past;
            case NEAR -> ChronoUnit.DAYS.between(past, today) < ChronoUnit.DAYS.between(today, coming) ? past : coming;
        };
    }
}
