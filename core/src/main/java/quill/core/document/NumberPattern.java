package quill.core.document;

import quill.core.RefusedException;

/**
 * How documents are numbered: {@code {year}} is the year of issue, {@code {seq}} the next number, of four digits at
 * least. Numbers have no gaps; with {@code {year}} in the pattern they start again at 1 each year.
 */
public record NumberPattern(String text) {
    private static final int MAX = 40;

    /** @throws RefusedException without {@code {seq}}, or if too long to print */
    public NumberPattern {
        if (text == null || !text.contains("{seq}") || text.length() > MAX) {
            throw new RefusedException(
                    "numberPattern", text, "must contain {seq}, may contain {year}, and has at most 40 characters");
        }
    }

    /** The series that a year's numbers are counted in; one for ever where the pattern names no year. */
    public int seriesOf(int year) {
        return text.contains("{year}") ? year : 0;
    }

    /** {@code {year}-{seq}}, 2027, 31 is {@code 2027-0031}. */
    public String format(int year, int sequence) {
        return text.replace("{year}", String.valueOf(year)).replace("{seq}", String.format("%04d", sequence));
    }
}
