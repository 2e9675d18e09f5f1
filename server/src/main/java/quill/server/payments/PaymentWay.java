package quill.server.payments;

import quill.core.ledger.Account;

/** How money comes, and which account it reaches. */
public enum PaymentWay {
    CARD(Account.PROCESSOR_CLEARING),
    TRANSFER(Account.BANK),
    CASH(Account.CASH),
    CHEQUE(Account.BANK);

    private final Account account;

    PaymentWay(Account account) {
        this.account = account;
    }

    /** Where it arrives. */
    Account account() {
        return account;
    }

    /** What a person may record: all but cards. @return null for any other word, and for none */
    static PaymentWay recorded(String word) {
        for (PaymentWay way : values()) {
            if (way != CARD && way.name().equals(word)) {
                return way;
            }
        }
        return null;
    }
}
