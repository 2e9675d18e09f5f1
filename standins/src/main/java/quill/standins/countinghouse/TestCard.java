package quill.standins.countinghouse;

import java.util.Arrays;
import java.util.Optional;
import org.apache.commons.validator.routines.checkdigit.LuhnCheckDigit;

/**
 * The only cards that the counting house takes. They begin with 99, which no card issuer uses (ISO/IEC 7812-1 leaves
 * 9 to national standards bodies), and pass the Luhn check. Every other number is refused, so no real one is typed.
 */
enum TestCard {
    APPROVED("9901000000000019", "approved"),
    NOT_ENOUGH_FUNDS("9902000000000026", "not enough funds"),
    EXPIRED("9903000000000033", "the card has expired"),
    REFUSED("9904000000000040", "refused by the bank"),
    ASKS_CODE("9905000000000056", "the bank asks for a code (2468)"),
    REFUNDS_FAIL("9906000000000063", "approved; what is refunded to it comes back"),
    CONTESTS("9907000000000070", "approved; its holder contests it the next day"),
    KEPT_IN_VAIN("9908000000000087", "approved; refused when it is kept and taken from later");

    /** What the bank of the last card wants to hear. */
    static final String CODE = "2468";

    private final String number;
    private final String words;

    TestCard(String number, String words) {
        this.number = number;
        this.words = words;
    }

    public String words() {
        return words;
    }

    boolean pays() {
        return this == APPROVED || this == REFUNDS_FAIL || this == CONTESTS;
    }

    /** Whether it pays for its holder, who is there: it may be refused later all the same. */
    boolean paysNow() {
        return pays() || this == KEPT_IN_VAIN;
    }

    /** Whether it pays, or is kept, for whoever types it: it may be refused later all the same. */
    boolean canBeKept() {
        return paysNow() || this == NOT_ENOUGH_FUNDS;
    }

    /** Why its bank refuses what is taken without its holder. */
    String later() {
        return this == KEPT_IN_VAIN ? REFUSED.words : words;
    }

    public String grouped() {
        return number.replaceAll("(.{4})(?=.)", "$1 ");
    }

    public String lastFour() {
        return number.substring(number.length() - 4);
    }

    /** The test card of this number, blanks not minded; empty for every other number. */
    static Optional<TestCard> of(String typed) {
        String plain = typed.replaceAll("[ -]", "");
        return Arrays.stream(values()).filter(c -> c.number.equals(plain)).findFirst();
    }

    /** Why a number is no test card: a slip of the finger is told apart from a number that has no place here. */
    static String refusalOf(String typed) {
        String plain = typed.replaceAll("[ -]", "");
        if (!plain.matches("\\d{12,19}")) {
            return "Write the card's number: 16 digits.";
        }
        if (!LuhnCheckDigit.LUHN_CHECK_DIGIT.isValid(plain)) {
            return "That number has a slip in it: its check digit is wrong.";
        }
        return "Only the test cards listed below are taken here. Never write a real card's number.";
    }
}
