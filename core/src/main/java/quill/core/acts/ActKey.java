package quill.core.acts;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Optional;
import quill.core.id.ClientId;

/**
 * What an act is known by: the same in every plan, and used once.
 *
 * @param whose the debt, or the client, that it is about
 * @param day of a fee the due date that it counts from; of a reminder the day on which it goes
 * @param number of a fee, counted from one; 0 where a kind does not count
 */
public record ActKey(ActKind kind, long whose, LocalDate day, int number) {
    private static final String BETWEEN = ":";
    private static final int LONGEST_ID = 18;
    private static final int LONGEST_NUMBER = 6;

    /** The key of a fee on an installment. */
    static ActKey fee(long debt, LocalDate dueOn, int number) {
        return new ActKey(ActKind.FEE, debt, dueOn, number);
    }

    /** The key of a client's reminder on a day: there is one at most. */
    public static ActKey reminder(ClientId client, LocalDate day) {
        return new ActKey(ActKind.REMINDER, client.value(), day, 0);
    }

    /** What the keys of all acts of a kind about one debt or client begin with. */
    public static String beginning(ActKind kind, long whose) {
        return kind.word() + BETWEEN + whose + BETWEEN;
    }

    /** As it is kept and travels; {@link #read} reads it. */
    @Override
    public String toString() {
        return beginning(kind, whose) + day + (number == 0 ? "" : BETWEEN + number);
    }

    /** Read back; empty for a text that is no key. */
    public static Optional<ActKey> read(String text) {
        String[] parts = text == null ? new String[0] : text.split(BETWEEN, -1);
        if (parts.length < 3 || parts.length > 4) {
            return Optional.empty();
        }
        try {
            Optional<ActKey> key = ActKind.of(parts[0])
                    .map(kind -> new ActKey(
                            kind,
                            Long.parseLong(fitting(parts[1], LONGEST_ID)),
                            LocalDate.parse(parts[2]),
                            parts.length == 3 ? 0 : Integer.parseInt(fitting(parts[3], LONGEST_NUMBER))));
            // Only what is written so is a key: no sign, no zero before a number.
            return key.filter(k -> k.toString().equals(text));
        } catch (NumberFormatException | DateTimeParseException e) {
            return Optional.empty();
        }
    }

    private static String fitting(String digits, int most) {
        if (digits.length() > most) {
            throw new NumberFormatException("more than " + most + " digits");
        }
        return digits;
    }
}
