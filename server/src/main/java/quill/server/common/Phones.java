package quill.server.common;

import com.google.i18n.phonenumbers.NumberParseException;
import com.google.i18n.phonenumbers.PhoneNumberUtil;
import com.google.i18n.phonenumbers.Phonenumber.PhoneNumber;
import quill.core.RefusedException;

/** Telephone numbers as a gateway takes them: ITU-T E.164, a plus sign and at most 15 digits. */
public final class Phones {
    private static final PhoneNumberUtil NUMBERS = PhoneNumberUtil.getInstance();
    private static final String ALLOWED =
            "must be a telephone number of digits, with its country where it is another: +44 7700 900123";

    private Phones() {}

    /**
     * Reads a number as people write it.
     *
     * @param country ISO 3166-1 code, for one that is written without its own; may be empty
     * @throws RefusedException for letters, and for what no network can dial
     */
    public static String read(String field, String typed, String country) {
        try {
            // The library would read letters as the digits beside them on a dial.
            if (typed.codePoints().anyMatch(Character::isLetter)) {
                throw new RefusedException(field, typed, ALLOWED);
            }
            PhoneNumber number = NUMBERS.parse(typed, country.isEmpty() ? null : country);
            if (!NUMBERS.isPossibleNumber(number)) {
                throw new RefusedException(field, typed, ALLOWED);
            }
            return NUMBERS.format(number, PhoneNumberUtil.PhoneNumberFormat.E164);
        } catch (NumberParseException e) {
            throw new RefusedException(field, typed, ALLOWED);
        }
    }

    /** As people read it: with blanks. */
    public static String shown(String e164) {
        try {
            return NUMBERS.format(NUMBERS.parse(e164, null), PhoneNumberUtil.PhoneNumberFormat.INTERNATIONAL);
        } catch (NumberParseException e) {
            return e164;
        }
    }
}
