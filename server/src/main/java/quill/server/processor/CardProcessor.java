package quill.server.processor;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import quill.core.pay.PaymentWay;
import quill.core.pay.WayToPay;

/**
 * A service that takes cards and bank debits, as this product needs one. Whoever adapts another has to keep to this: an order
 * carries a key of ours, and the same key finds the same order however often it is opened; an order is for one amount and is
 * paid once or never; what {@link #ask} says is the truth, whatever events said before; one that was withdrawn is never paid
 * after; no call but {@link #charge} takes money by itself; what it books for the business is told by {@link #entries}, numbered without a gap and
 * never changed; and a call that has no answer throws {@link NoAnswer}, so that it is made again later. Connected for trial,
 * it moves no money, and says so of each order.
 */
public interface CardProcessor {
    /** What an attempt that was taken is told as. */
    String APPROVED = "approved";

    /** No answer came, or none that can be read: nobody knows whether the call was heard. */
    class NoAnswer extends RuntimeException {
        private static final long serialVersionUID = 1;

        /** @param why for the log */
        public NoAnswer(String why, Throwable cause) {
            super(why, cause);
        }
    }

    /** It answered that it does not know who asks. */
    final class KeyUnknown extends NoAnswer {
        private static final long serialVersionUID = 1;

        /** @param cause as it came */
        public KeyUnknown(Throwable cause) {
            super("it does not know the key", cause);
        }
    }

    /**
     * Opens an order, or finds the one that this key opened before.
     *
     * @param key of ours, at most 80 characters
     * @param about what the pay page shows
     */
    Answer open(String key, Money amount, About about, Wish wish);

    /**
     * How an order may be paid.
     *
     * @param takes in which ways, one at least
     * @param hold whether a card's money is only held
     * @param keep whether what pays it is kept for later
     * @param from the kept card or account that it is taken from, once it is charged; null where somebody pays it
     */
    record Wish(Set<Taking> takes, boolean hold, boolean keep, String from) {}

    /**
     * Takes an order from the kept card or account that it names; asked again, what was done stands.
     *
     * @throws Refused where it can be taken no more
     */
    Answer charge(String orderId);

    /** What is kept. @param method its token @param way card or debit @param expiry month and year; null for an account */
    record Kept(String method, String way, String name, String lastFour, String expiry) {
        /** Whether it is a bank account. */
        public boolean isDebit() {
            return "debit".equals(way);
        }
    }

    /** A page on which something is kept, and nothing is taken. @param kept null before that */
    record Keeping(String id, String state, String keepAt, Kept kept) {}

    /** Opens such a page, or finds the one that this key opened before. @param key of ours */
    Keeping openKeeping(String key, String description, String returnTo, Set<Taking> takes);

    /** The truth about one; empty where the processor does not know it. */
    Optional<Keeping> askKeeping(String id);

    /** Forgets what is kept: nothing is taken from it any more. What it does not know is forgotten already. */
    void forget(String method);

    /** A way that a processor takes. */
    enum Taking {
        CARD("card"),
        DEBIT("debit"),
        SATCHEL("satchel"),
        HATBOX("hatbox");

        private final String word;

        Taking(String word) {
            this.word = word;
        }

        /** As the ways in which something is offered are called here. */
        public static Set<Taking> of(Set<WayToPay> ways) {
            return ways.stream()
                    .map(w -> switch (w) {
                        case CARD -> CARD;
                        case BANK_DEBIT -> DEBIT;
                        case SATCHEL -> SATCHEL;
                        case HATBOX -> HATBOX;
                        default -> throw new IllegalArgumentException(w + " is not paid on a page");
                    })
                    .collect(Collectors.toSet());
        }

        /** As processors are told. */
        public String word() {
            return word;
        }
    }

    /**
     * What the pay page shows, so that nobody types what is known.
     *
     * @param description what is paid
     * @param returnTo where the payer is sent afterwards, whatever came of it
     * @param payerName may be empty, as the address of e-mail
     */
    record About(String description, String returnTo, String payerName, String payerEmail) {}

    /** The truth about an order; empty where the processor does not know it. */
    Optional<Answer> ask(String orderId);

    /** Withdraws an order; the answer says whether it was paid before. */
    Answer withdraw(String orderId);

    /** Takes what is held, or less of it; asked again, what was taken stands. @throws Refused where nothing is held any more */
    Answer take(String orderId, Money amount);

    /** Lets go what is held. @throws Refused where nothing is held any more */
    Answer release(String orderId);

    /** What it booked for the business after a number, in order; not all at once. */
    List<Entry> entries(long after);

    /**
     * Gives back a payment, or a part of it; the same key finds the first.
     *
     * @param key of ours
     * @throws Refused where it will not, with its reason
     */
    void refund(String key, String orderId, Money amount);

    /**
     * Answers what a payer contests.
     *
     * @param contest as the processor calls it
     * @throws Refused where it is too late
     */
    void answer(String contest, String evidence);

    /** It answered that it will not do what was asked. */
    final class Refused extends RuntimeException {
        private static final long serialVersionUID = 1;

        /** @param why in the processor's words */
        public Refused(String why, Throwable cause) {
            super(why, cause);
        }
    }

    /** One try of a payer. @param outcome {@link #APPROVED}, or why not */
    record Attempt(String lastFour, String outcome) {}

    /**
     * With what it was paid.
     *
     * @param way card, debit, satchel or hatbox
     * @param name the card's brand, the wallet's name, or what stands for the bank
     * @param keptAs the token under which it was kept for later; null where it was not
     */
    record With(String way, String name, String lastFour, String expiry, String keptAs) {
        /** What was kept for later; empty where nothing was. */
        public Optional<Kept> kept() {
            return Optional.ofNullable(keptAs).map(token -> new Kept(token, way, name, lastFour, expiry));
        }

        /** How the money came, or comes. */
        public PaymentWay by() {
            return switch (way) {
                case "debit" -> PaymentWay.BANK_DEBIT;
                case "satchel", "hatbox" -> PaymentWay.WALLET;
                default -> PaymentWay.CARD;
            };
        }

        /** As people know it: {@code Test card ending 0019}. */
        public String words() {
            return name + " ending " + lastFour;
        }
    }

    /** What was taken. @param fee what the processor keeps of it */
    record Paid(String payment, LocalDate on, String amount, String fee) {}

    /**
     * What the processor says of an order.
     *
     * @param paid null before anything was taken
     * @param with null before anybody tried
     * @param certainOn until when a bank debit that is on its way is decided; null for others
     * @param lapsesOn the last day on which what is held can be taken; null for others
     * @param reason why a bank debit was refused or came back, or what is kept was refused
     * @param test whether no money moves
     */
    record Answer(
            String id,
            String state,
            String amount,
            String currency,
            String payAt,
            boolean test,
            Paid paid,
            With with,
            LocalDate certainOn,
            LocalDate lapsesOn,
            String reason,
            List<Attempt> attempts) {
        /** Whether the money was taken, and did not come back. */
        public boolean isPaid() {
            return "paid".equals(state);
        }

        /** Whether the money was taken, whatever became of it. */
        public boolean wasPaid() {
            return isPaid() || "returned".equals(state);
        }

        /** Whether a bank debit brings it, and is not certain yet. */
        public boolean isUnderway() {
            return "underway".equals(state);
        }

        /** Whether a card's money is held. */
        public boolean isHeld() {
            return "held".equals(state);
        }

        /** Whether what was held was let go, or has lapsed. */
        public boolean isLetGo() {
            return "released".equals(state) || "lapsed".equals(state);
        }

        /** What was taken; what it is for before that. */
        public Money money() {
            return Money.of(CurrencyUnit.of(currency), new BigDecimal(paid == null ? amount : paid.amount()));
        }

        /** What the processor keeps of it; nothing before it is paid. */
        public Money feeMoney() {
            return paid == null
                    ? Money.zero(CurrencyUnit.of(currency))
                    : Money.of(CurrencyUnit.of(currency), new BigDecimal(paid.fee()));
        }

        /** The latest refusal, or empty. */
        public Optional<String> declined() {
            if ("refused".equals(state)) {
                return Optional.of(reason);
            }
            // A card that was taken at this moment may be told before the order is told to be paid.
            return attempts == null || attempts.isEmpty() || wasPaid()
                    ? Optional.empty()
                    : Optional.of(attempts.get(attempts.size() - 1).outcome()).filter(o -> !APPROVED.equals(o));
        }
    }

    /** What an entry of a processor is about. */
    enum Booked {
        /** A payment is certain. */
        TAKEN,
        /** A bank debit was not paid; only its cost is booked. */
        REFUSED,
        /** A bank debit that was certain came back. */
        RETURNED,
        REFUNDED,
        /** What was given back did not arrive. */
        REFUND_FAILED,
        /** The payer's bank took a payment back. */
        CONTESTED,
        CONTEST_WON,
        /** It stays taken back; nothing more is booked. */
        CONTEST_LOST,
        PAID_OUT
    }

    /**
     * An entry of the account that the processor keeps: what it holds changes by amount less cost.
     *
     * @param kind null for one that this product does not know
     * @param subject the payment, refund, contest or payout, as the processor calls it
     * @param order as the processor calls it; null for a payout
     * @param amount below zero for what went
     * @param answerBy of what is contested; else null
     * @param key of ours: the order's, or the refund's; null for a payout
     * @param entries of a payout, which it was made of
     */
    record Entry(
            long number,
            Booked kind,
            String subject,
            String order,
            Money amount,
            Money cost,
            LocalDate on,
            String reason,
            LocalDate answerBy,
            String key,
            List<Long> entries) {}
}
