package quill.core.pay;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import quill.core.Problem;
import quill.core.ledger.Account;

/** How money comes: its words, which account it reaches, and whether a person records it, and so may undo it. */
public enum PaymentWay {
    CARD("by card", "card", Account.PROCESSOR_CLEARING, false),
    BANK_DEBIT("by bank debit", "bank debit", Account.PROCESSOR_CLEARING, false),
    WALLET("by wallet", "wallet", Account.PROCESSOR_CLEARING, false),
    TRANSFER("by bank transfer", "transfer", Account.BANK, true),
    CASH("in cash", "cash", Account.CASH, true),
    CHEQUE("by cheque", "cheque", Account.BANK, true),
    OTHER("in another way", "other", Account.BANK, true);

    private final String words;
    private final String word;
    private final Account account;
    private final boolean byHand;

    PaymentWay(String words, String word, Account account, boolean byHand) {
        this.words = words;
        this.word = word;
        this.account = account;
        this.byHand = byHand;
    }

    /** How it came, after "paid". */
    public String words() {
        return words;
    }

    /** The way alone, as lists name it. */
    public String word() {
        return word;
    }

    /** Where it arrives. */
    public Account account() {
        return account;
    }

    /** Whether a person records it: what only a processor tells was really paid, and cannot be undone. */
    public boolean isByHand() {
        return byHand;
    }

    /** What a person may record; null where a problem was added. */
    public static PaymentWay recorded(String field, String word, List<Problem> problems) {
        List<PaymentWay> allowed =
                Arrays.stream(values()).filter(PaymentWay::isByHand).toList();
        for (PaymentWay way : allowed) {
            if (way.name().equals(word)) {
                return way;
            }
        }
        String most = allowed.stream()
                .limit(allowed.size() - 1L)
                .map(PaymentWay::name)
                .collect(Collectors.joining(", "));
        problems.add(new Problem(field, word, "must be " + most + " or " + allowed.get(allowed.size() - 1)));
        return null;
    }
}
