package quill.server.processor;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;

/**
 * A service that takes cards, as this product needs one. Whoever adapts another has to keep to this: an order carries a key
 * of ours, and the same key finds the same order however often it is opened; an order is for one amount and is paid once or
 * never; what {@link #ask} says is the truth, whatever events said before; one that was withdrawn is never paid after; no
 * call takes money by itself; and a call that has no answer throws {@link NoAnswer}, so that it is made again later. Connected for trial, it moves no money,
 * and says so of each order.
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
    Answer open(String key, Money amount, About about);

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

    /** One try of a payer. @param outcome {@link #APPROVED}, or why not */
    public record Attempt(String lastFour, String outcome) {}

    /** The card that paid. @param name its brand */
    record Card(String name, String lastFour, String expiry) {
        /** As people know it: {@code Test card ending 0019}. */
        public String words() {
            return name + " ending " + lastFour;
        }
    }

    /** What the processor says of an order. @param test whether no money moves */
    public record Answer(
            String id,
            String state,
            String amount,
            String currency,
            String payAt,
            String paymentId,
            LocalDate paidOn,
            String fee,
            Card card,
            boolean test,
            List<Attempt> attempts) {
        /** Whether the money was taken. */
        public boolean isPaid() {
            return "paid".equals(state);
        }

        /** What it is for. */
        public Money money() {
            return Money.of(CurrencyUnit.of(currency), new BigDecimal(amount));
        }

        /** What the processor keeps of it; nothing before it is paid. */
        public Money feeMoney() {
            return fee == null
                    ? Money.zero(CurrencyUnit.of(currency))
                    : Money.of(CurrencyUnit.of(currency), new BigDecimal(fee));
        }

        /** The latest refusal, or empty. */
        public Optional<String> declined() {
            // A card that was taken at this moment may be told before the order is told to be paid.
            return attempts == null || attempts.isEmpty() || isPaid()
                    ? Optional.empty()
                    : Optional.of(attempts.get(attempts.size() - 1).outcome()).filter(o -> !APPROVED.equals(o));
        }
    }
}
