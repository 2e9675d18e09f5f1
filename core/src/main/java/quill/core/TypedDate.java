package quill.core;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.Month;
import java.time.MonthDay;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads days as they travel: ISO 8601, from 1900 to 2200 (a day outside is a slip), and writes them in words. */
public final class TypedDate {
    private static final LocalDate FIRST = LocalDate.of(1900, 1, 1);
    private static final LocalDate LAST = LocalDate.of(2200, 12, 31);

    private static final String MONTHS = "jan feb mar apr may jun jul aug sep oct nov dec";
    private static final Pattern DAY_AND_MONTH = Pattern.compile(
            "(\\d{1,2})\\.?\\s*((?:" + MONTHS.replace(' ', '|') + ")[a-z]*)\\.?(?:\\s+(\\d{4}))?",
            Pattern.CASE_INSENSITIVE);
    private static final DateTimeFormatter IN_WORDS = DateTimeFormatter.ofPattern("d MMMM yyyy", Locale.UK);

    private TypedDate() {}

    /** A day as it stands in letters, on papers and in reasons: {@code 15 March 2027}. */
    public static String inWords(LocalDate day) {
        return IN_WORDS.format(day);
    }

    /** The day, or null where it is left empty or a problem was added. */
    public static LocalDate read(String field, String text, List<Problem> problems) {
        if (text == null || text.isBlank()) {
            return null;
        }
        try {
            LocalDate day = LocalDate.parse(text.strip());
            check(field, day, problems);
            return isWithin(day) ? day : null;
        } catch (DateTimeParseException e) {
            problems.add(new Problem(field, text, "write a date such as 2027-03-15"));
            return null;
        }
    }

    /**
     * A day as people write it: {@code 2027-04-15}, {@code 15 Apr 2027}, or {@code 15 Apr} for the next such day.
     *
     * @param from the first day that one without a year can be
     * @return the day, or null where a problem was added
     */
    public static LocalDate readFrom(String field, String text, LocalDate from, List<Problem> problems) {
        Matcher words = DAY_AND_MONTH.matcher(text.strip());
        if (!words.matches()) {
            LocalDate day = read(field, text, new ArrayList<>());
            if (day == null) {
                problems.add(new Problem(field, text, "write days such as 30, or a day such as 15 Apr or 2027-04-15"));
            }
            return day;
        }
        int month = MONTHS.indexOf(words.group(2).substring(0, 3).toLowerCase(Locale.ROOT)) / 4 + 1;
        String name = Month.of(month).getDisplayName(TextStyle.FULL, Locale.UK).toLowerCase(Locale.ROOT);
        try {
            if (!name.startsWith(words.group(2).toLowerCase(Locale.ROOT))) {
                throw new DateTimeException("no month");
            }
            MonthDay day = MonthDay.of(month, Integer.parseInt(words.group(1)));
            LocalDate read = words.group(3) == null
                    ? next(day, from)
                    : LocalDate.of(Integer.parseInt(words.group(3)), month, day.getDayOfMonth());
            check(field, read, problems);
            return isWithin(read) ? read : null;
        } catch (DateTimeException e) {
            problems.add(new Problem(field, text, "there is no such day; write one such as 15 Apr or 2027-04-15"));
            return null;
        }
    }

    private static LocalDate next(MonthDay day, LocalDate from) {
        int year = from.getYear();
        while (!day.isValidYear(year) || day.atYear(year).isBefore(from)) {
            year++;
        }
        return day.atYear(year);
    }

    /** Adds a problem for a day outside; none for null. */
    public static void check(String field, LocalDate day, List<Problem> problems) {
        if (day != null && !isWithin(day)) {
            problems.add(new Problem(field, day.toString(), "must be a day from 1900 to 2200"));
        }
    }

    private static boolean isWithin(LocalDate day) {
        return !day.isBefore(FIRST) && !day.isAfter(LAST);
    }
}
