package quill.standins.countinghouse;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Wallets that can be put on a device, each with one of the test cards in it. A device says by a cookie which it has; as with
 * a card, the business hears of no number.
 */
enum Wallet {
    SATCHEL("satchel", "Satchel"),
    HATBOX("hatbox", "Hatbox");

    private final String word;
    private final String shown;

    Wallet(String word, String shown) {
        this.word = word;
        this.shown = shown;
    }

    /** As a business names it among the ways that it takes. */
    public String word() {
        return word;
    }

    /** As people know it. */
    public String shown() {
        return shown;
    }

    /** The cookie that says which card is in it. */
    String cookie() {
        return "wallet-" + word;
    }

    static Optional<Wallet> of(String word) {
        return Arrays.stream(values()).filter(w -> w.word.equals(word)).findFirst();
    }

    /** The cards that can be in one: a device asks for no bank's code. */
    static List<TestCard> cards() {
        return Arrays.stream(TestCard.values())
                .filter(c -> c != TestCard.ASKS_CODE)
                .toList();
    }

    /** One that a device has. */
    record OnDevice(Wallet wallet, TestCard card) {}

    /** Those that a device has, by its cookies. */
    static List<OnDevice> onDevice(Map<String, String> cookies) {
        return Arrays.stream(values())
                .flatMap(w -> cards().stream()
                        .filter(c -> c.name().equals(cookies.get(w.cookie())))
                        .map(c -> new OnDevice(w, c)))
                .toList();
    }
}
