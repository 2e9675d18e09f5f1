package quill.server.payments;

import java.time.LocalDate;
import org.joda.money.Money;
import quill.core.id.DocumentId;

/** Says what becomes of money that comes for an accepted quote, before there is an invoice for its work. */
public interface QuoteMoney {
    /**
     * What it becomes.
     *
     * @param settles the document that it settles: a deposit invoice, or the invoice itself where all of it came; else null
     * @param held whether it is held as a deposit for the quote; else it is client credit
     */
    record Becomes(DocumentId settles, boolean held) {}

    /**
     * Makes the document that money settles, if there is to be one. The caller has locked the client, and books the money
     * to it in the same transaction.
     *
     * @param asked whether it was paid because it was asked for; else a person says that it is for this quote
     */
    Becomes receive(DocumentId quoteId, Money amount, LocalDate receivedOn, boolean asked);

    /** What is asked for on a quote and did not come. */
    Money missing(DocumentId quoteId);

    /** Told once the money is booked, or undone. */
    void booked(DocumentId quoteId);
}
