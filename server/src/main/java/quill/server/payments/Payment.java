package quill.server.payments;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import org.joda.money.Money;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.pay.PaymentWay;
import quill.server.common.Amount;

/**
 * Money received.
 *
 * @param amount what came for what is owed, or is held; without what was given on top
 * @param valueOn when the money moved
 * @param undone null while it stands
 * @param fee what the processor kept; on no paper for the client
 * @param unexpected whether it came for an order that had been withdrawn, and is held as client credit
 * @param held whether it is a deposit for work to come, which settles nothing by itself
 * @param back what became of it afterwards
 */
public record Payment(
        long id,
        ClientId clientId,
        @Schema(nullable = true) DocumentId invoiceId,
        Means means,
        Amount amount,
        Amount fee,
        LocalDate valueOn,
        LocalDate bookedOn,
        @Schema(nullable = true) Undone undone,
        boolean unexpected,
        boolean held,
        Back back) {
    /**
     * How it came.
     *
     * @param card brand and last four, or the bank account's; empty for others
     * @param byHand whether a person may undo it
     * @param payer whoever paid, where that is not the client; null for the client
     * @param extra what came with it beside the amount; null for nothing
     */
    public record Means(
            PaymentWay way,
            String reference,
            String card,
            boolean byHand,
            @Schema(nullable = true) Payer payer,
            @Schema(nullable = true) Extra extra) {
        Means(PaymentWay way, String reference, String card, Payer payer, Extra extra) {
            this(way, reference, card, way.isByHand(), payer, extra);
        }
    }

    /** A tip, and what was asked for paying by card, with the tax on that. They settle nothing. */
    public record Extra(Amount tip, Amount surcharge, Amount tax) {
        Money sum() {
            return tip.money().plus(surcharge.money()).plus(tax.money());
        }
    }

    /** All that came: the amount, and what was beside it. */
    public Money total() {
        return means.extra == null ? amount.money() : amount.money().plus(means.extra.sum());
    }

    /**
     * What became of a payment after it had come.
     *
     * @param amount how much of it went back
     * @param payoutId the payout that it is in; null before that, and for what no processor took
     */
    public record Back(
            Amount amount,
            Stands stands,
            @Schema(nullable = true) Long payoutId) {}

    /** How it stands where the payer's bank took it back. */
    public enum Stands {
        /** Nothing of the kind. */
        CAME,
        /** A bank debit that came back. */
        RETURNED,
        /** Taken back; not decided yet. */
        CONTESTED,
        WON,
        LOST;

        String word() {
            return this == CAME ? "" : name();
        }

        static Stands of(String word) {
            return word.isEmpty() ? CAME : valueOf(word);
        }
    }

    /** Whether its bank has not taken it back. */
    public boolean isHere() {
        return back.stands() == Stands.CAME || back.stands() == Stands.WON;
    }

    /** What of it is still here. */
    Money left() {
        return amount.money().minus(back.amount().money());
    }

    /** Taken back since, by a person. */
    public record Undone(LocalDate on, String why) {}

    /** Its reference, as it follows the words of an entry; empty where there is none. */
    String referenceWords() {
        return means.reference.isEmpty() ? "" : " · reference " + means.reference;
    }

    /** How it came, in words for a client. */
    public String words() {
        return means.way.words() + (means.card.isEmpty() ? "" : ", " + means.card);
    }
}
