package quill.core;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Locale;

/** Reads days as they travel: ISO 8601, from 1900 to 2200 (a day outside is a slip), and writes them in words. */
public final class TypedDate {
    private static final LocalDate FIRST = LocalDate.of(1900, 1, 1);
    private static final LocalDate LAST = LocalDate.of(2200, 12, 31);

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
