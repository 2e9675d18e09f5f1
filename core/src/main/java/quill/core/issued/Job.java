package quill.core.issued;

import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import org.joda.money.Money;

/**
 * What was agreed once and is billed by several documents, as a document that bills of it says it.
 *
 * @param quote number of the quote that was accepted, issued on {@code quotedOn}
 * @param total what it was accepted for
 * @param earlier what was billed of it before
 * @param left what is left of it after this document; below zero where more is billed than was agreed
 * @param deducted what this document takes off for deposit invoices, without tax, for each of its sets of taxes
 */
public record Job(
        String quote, LocalDate quotedOn, Money total, List<Earlier> earlier, Money left, List<Money> deducted) {
    /**
     * A document that was issued before.
     *
     * @param title what it is
     * @param deducted whether this document takes it off
     * @param total what it billed, less what credit notes took back
     */
    public record Earlier(String number, LocalDate issuedOn, String title, boolean deducted, Money total) {
        /** Whole, or not at all. */
        public Earlier {
            Objects.requireNonNull(number);
            Objects.requireNonNull(issuedOn);
            Objects.requireNonNull(title);
            Objects.requireNonNull(total);
        }
    }

    /** Whole, or not at all. */
    public Job {
        Objects.requireNonNull(quote);
        Objects.requireNonNull(quotedOn);
        Objects.requireNonNull(total);
        Objects.requireNonNull(left);
        earlier = List.copyOf(earlier);
        deducted = List.copyOf(deducted);
    }
}
