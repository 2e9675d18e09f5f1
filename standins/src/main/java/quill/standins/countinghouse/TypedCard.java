package quill.standins.countinghouse;

import java.time.LocalDate;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.Optional;

/**
 * A card as somebody typed it.
 *
 * @param card null where it is none of the test cards
 * @param wrong what is wrong with it; null where nothing is
 * @param number to be shown again: only where the card is known and its date is wrong
 */
record TypedCard(TestCard card, String wrong, String number) {
    static TypedCard read(String number, String expiry, LocalDate today) {
        Optional<TestCard> card = TestCard.of(number);
        if (card.isEmpty()) {
            return new TypedCard(null, TestCard.refusalOf(number), "");
        }
        String wrong = wrongExpiry(expiry, today);
        return new TypedCard(card.get(), wrong, wrong == null ? "" : number);
    }

    /** What is wrong with a card's date; null where nothing is. */
    static String wrongExpiry(String expiry, LocalDate today) {
        try {
            YearMonth month = YearMonth.parse(expiry.strip(), DateTimeFormatter.ofPattern("MM/yy"));
            return month.isBefore(YearMonth.from(today)) ? "That card's date has passed." : null;
        } catch (DateTimeParseException e) {
            return "Write the card's date as month and year, such as 09/29.";
        }
    }
}
