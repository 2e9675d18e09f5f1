package quill.standins.countinghouse;

import java.util.Arrays;
import java.util.Optional;

/** The bank accounts that can be chosen for a bank debit, and what comes of it. They have no numbers that could be real. */
enum BankAccount {
    GOOD("0101", "pays", ""),
    SHORT("0202", "has not enough money: refused when the debit is due", "not enough money in the account"),
    CLOSED("0303", "is closed: refused when the debit is due", "the account is closed"),
    OBJECTS("0404", "pays, and takes it back two working days later", "the account holder objected");

    private final String lastFour;
    private final String words;
    private final String reason;

    BankAccount(String lastFour, String words, String reason) {
        this.lastFour = lastFour;
        this.words = words;
        this.reason = reason;
    }

    public String lastFour() {
        return lastFour;
    }

    public String words() {
        return words;
    }

    /** Why its debits are refused or come back; empty where they do not. */
    String reason() {
        return reason;
    }

    boolean pays() {
        return this == GOOD || this == OBJECTS;
    }

    static Optional<BankAccount> of(String name) {
        return Arrays.stream(values()).filter(a -> a.name().equals(name)).findFirst();
    }
}
