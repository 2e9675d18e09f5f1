package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;

/**
 * One order: a sum that somebody may pay, once.
 *
 * @param state open, withdrawn, held, lapsed, released, underway (a bank debit that is not certain yet), refused, paid or
 *     returned
 * @param reason why a bank debit was refused or came back; empty mostly
 */
record CardOrder(
        String id,
        String ourKey,
        BigDecimal amount,
        String currency,
        About about,
        Wish wish,
        String state,
        Taken taken,
        Means means,
        boolean awaitsCode,
        String reason) {
    /**
     * What the payer sees, who it is as the business knows, and where the payer goes afterwards.
     *
     * @param test whether it is only tried: no money moves
     */
    record About(String description, String returnTo, String payerName, String payerEmail, boolean test) {}

    /**
     * In which ways it may be paid.
     *
     * @param hold whether its money is only reserved until the business takes it
     * @param keeps whether what pays it is kept for later
     * @param method the kept card or account that it is taken from; null where somebody pays it on its page
     */
    record Wish(List<String> takes, boolean hold, boolean keeps, String method) {
        public boolean has(String way) {
            return takes.contains(way);
        }
    }

    /** The wallets of a device by which it can be paid: what is kept for later is typed, and lies in none. */
    public List<Wallet.OnDevice> payableBy(List<Wallet.OnDevice> device) {
        return isOpen() && !awaitsCode && wish.method() == null && !wish.keeps()
                ? device.stream().filter(d -> wish.has(d.wallet().word())).toList()
                : List.of();
    }

    /** Whether nothing but wallets is taken, and nothing of it is on a device. */
    public boolean isElsewhere(List<Wallet.OnDevice> device) {
        return isOpen()
                && !wish.has("card")
                && !wish.has("debit")
                && payableBy(device).isEmpty();
    }

    /** The money that was taken; nulls before that. @param amount all of it, or less of what was held */
    record Taken(String paymentId, LocalDate on, BigDecimal amount, BigDecimal fee) {}

    /**
     * With what it was paid, or is tried to be; nulls before any.
     *
     * @param lastFour of the card or of the bank account
     * @param certainOn the day from which a bank debit is certain
     * @param lapsesOn the last day on which what is held can be taken
     * @param keptAs the token under which it was kept for later
     */
    record Means(String way, String lastFour, String expiry, LocalDate certainOn, LocalDate lapsesOn, String keptAs) {
        /** Whether it is a bank account; a card otherwise, be it in a wallet. */
        public boolean isDebit() {
            return "debit".equals(way);
        }

        /** What it is, as a person reads it. */
        public String shown() {
            return isDebit()
                    ? "bank account"
                    : Wallet.of(way).map(w -> "card in " + w.shown()).orElse("card");
        }
    }

    public boolean isOpen() {
        return "open".equals(state);
    }

    /** The amount as a person reads it. */
    public String shown() {
        return Sums.shown(amount, currency);
    }

    /** What of it was taken, as a person reads it. */
    public String takenShown() {
        return taken.amount() == null ? "" : Sums.shown(taken.amount(), currency);
    }
}
