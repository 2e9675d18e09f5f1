package quill.core.pay;

import java.util.List;

/** A way in which a client can be let pay. Its order is the order in which ways are named. */
public enum WayToPay {
    CARD("card", "by card on its page", "2.9", "0.30", "2"),
    BANK_DEBIT("bank debit", "by bank debit on its page", "1", "0", "5"),
    TRANSFER("bank transfer", "by bank transfer", "0", "0", "1"),
    CASH("cash", "in cash", "0", "0", "0"),
    CHEQUE("cheque", "by cheque", "0", "0", "5");

    private final String words;
    private final String how;
    private final String feePercent;
    private final String feeFixed;
    private final String days;

    WayToPay(String words, String how, String feePercent, String feeFixed, String days) {
        this.words = words;
        this.how = how;
        this.feePercent = feePercent;
        this.feeFixed = feeFixed;
        this.days = days;
    }

    /** What it is called. */
    public String words() {
        return words;
    }

    /** Whether it is paid on the page of a card processor. */
    public boolean isOnline() {
        return online().contains(this);
    }

    /** Those that are, as they are named. */
    public static List<WayToPay> online() {
        return List.of(CARD, BANK_DEBIT);
    }

    /** In a sentence: you can pay … */
    public String how() {
        return how;
    }

    /** As it is until the business says otherwise (costs and days: common practice). @param on whether it is offered then */
    public TypedWay usual(boolean on) {
        return new TypedWay(name(), on, "", "", "", "", feePercent, feeFixed, days, "");
    }
}
