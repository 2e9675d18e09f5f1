package quill.core.ledger;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;

/** A journal entry: postings that sum to zero in each currency. One that does not cannot exist. */
public record Entry(Event event, List<Posting> postings) {
    /** What an entry records. */
    public enum Event {
        ISSUED("Invoice issued"),
        PAYMENT("Payment received"),
        PROCESSING_FEE("Processing fee"),
        ON_TOP("Tip or surcharge"),
        ON_TOP_BACK("Tip or surcharge that went back"),
        CREDIT_NOTE("Credit note"),
        CREDIT_USED("Client credit used"),
        CREDIT_RELEASED("Client credit released"),
        PAYMENT_UNDONE("Payment undone"),
        DEPOSIT("Deposit received"),
        TAKEN_BACK("Invoice taken back, not sent yet"),
        VOIDED("Invoice voided"),
        LATE_FEE("Late fee"),
        LATE_FEE_WAIVED("Late fee waived"),
        REFUND("Refund"),
        CHARGEBACK("Chargeback"),
        CHARGEBACK_WON("Chargeback won"),
        REFUND_FAILED("Refund that did not arrive"),
        DEBIT_RETURNED("Bank debit returned"),
        PAID_OUT("Payout"),
        EARLY_SETTLEMENT("Early settlement discount"),
        EARLY_SETTLEMENT_WITHDRAWN("Early settlement discount withdrawn"),
        MOVED("Money moved"),
        WRITTEN_OFF("Written off"),
        OWED_AGAIN("Owed again");

        private final String words;

        Event(String words) {
            this.words = words;
        }

        /** The event, for people. */
        public String words() {
            return words;
        }
    }

    /** @throws IllegalArgumentException if empty, or if the postings of a currency do not sum to zero */
    public Entry {
        postings = List.copyOf(postings);
        if (postings.isEmpty()) {
            throw new IllegalArgumentException("an entry must have postings");
        }
        Map<CurrencyUnit, Money> sums = postings.stream()
                .map(Posting::amount)
                .collect(Collectors.toMap(Money::getCurrencyUnit, m -> m, Money::plus));
        sums.values().stream().filter(sum -> !sum.isZero()).findFirst().ifPresent(sum -> {
            throw new IllegalArgumentException(event + " postings sum to " + sum + ", must sum to zero");
        });
    }
}
