package quill.core.pay;

import java.util.Collection;
import java.util.List;

/** A way in which a client can be let pay. Its order is the order in which ways are named. */
public enum WayToPay {
    CARD("card", "by card on its page", "2.9", "0.30", "2"),
    BANK_DEBIT("bank debit", "by bank debit on its page", "1", "0", "5"),
    SATCHEL("Satchel", "by wallet on its page", "2.9", "0.30", "2"),
    HATBOX("Hatbox", "by wallet on its page", "2.9", "0.30", "2"),
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
        return List.of(CARD, BANK_DEBIT, SATCHEL, HATBOX);
    }

    /** Whether it is a wallet: a card in a device, which shows only where the payer's device has it. */
    public boolean isWallet() {
        return this == SATCHEL || this == HATBOX;
    }

    /** Whether a card pays, be it typed or in a wallet. */
    public boolean isCard() {
        return this == CARD || isWallet();
    }

    /**
     * The way by which something came through a processor.
     *
     * @param with what it was paid with, as the processor names it
     */
    public static WayToPay online(PaymentWay came, String with) {
        if (came == PaymentWay.BANK_DEBIT) {
            return BANK_DEBIT;
        }
        return came == PaymentWay.WALLET && with != null && with.startsWith(HATBOX.words)
                ? HATBOX
                : came == PaymentWay.WALLET ? SATCHEL : CARD;
    }

    /**
     * How some are named in a sentence: {@code by card or bank debit}. A wallet is another way of using a card on the same
     * page, and is named only where no card is typed there.
     *
     * @return empty where none is one of them
     */
    public static String onPage(Collection<WayToPay> ways) {
        List<String> by = online().stream()
                .filter(ways::contains)
                .filter(w -> !w.isWallet() || !ways.contains(CARD))
                .map(w -> w.isWallet() ? "wallet" : w.words)
                .distinct()
                .toList();
        return by.isEmpty() ? "" : "by " + String.join(" or ", by);
    }

    /** The wallets among some, by their names. */
    public static List<String> wallets(Collection<WayToPay> ways) {
        return online().stream()
                .filter(w -> w.isWallet() && ways.contains(w))
                .map(WayToPay::words)
                .toList();
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
