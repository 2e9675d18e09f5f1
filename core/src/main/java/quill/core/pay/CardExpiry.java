package quill.core.pay;

import java.time.LocalDate;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.Locale;
import java.util.Optional;

/**
 * The month to whose end a card is valid (ISO/IEC 7813 has year and month only; that it holds to the end of that month is
 * common practice).
 */
public record CardExpiry(YearMonth month) {
    /** So many days before its end a person hears of it. */
    public static final int DAYS_WARNED = 30;

    private static final DateTimeFormatter AS_ON_CARDS = DateTimeFormatter.ofPattern("MM/yy", Locale.ROOT);

    /** As it stands on the card, such as {@code 09/29}; empty where it is not that. */
    public static Optional<CardExpiry> read(String text) {
        try {
            return text == null
                    ? Optional.empty()
                    : Optional.of(new CardExpiry(YearMonth.parse(text.strip(), AS_ON_CARDS)));
        } catch (DateTimeParseException e) {
            return Optional.empty();
        }
    }

    /** The last day on which it is valid. */
    public LocalDate lastDay() {
        return month.atEndOfMonth();
    }

    /** Whether it is valid no more. */
    public boolean isOver(LocalDate today) {
        return lastDay().isBefore(today);
    }

    /** Whether it soon ends, or has: from {@value #DAYS_WARNED} days before its last day on. */
    public boolean isNear(LocalDate today) {
        return !today.isBefore(lastDay().minusDays(DAYS_WARNED));
    }

    /** As on the card. */
    public String words() {
        return month.format(AS_ON_CARDS);
    }
}
