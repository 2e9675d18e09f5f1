package quill.server.moneyin;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.joda.money.Money;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.clearing.Dispute;
import quill.server.clearing.RefundOrders;
import quill.server.common.Amount;
import quill.server.debts.StoredInstallment;
import quill.server.dispatch.Message;
import quill.server.paylinks.LinkViews;
import quill.server.payments.Payment;
import quill.server.payments.Payments;

/**
 * A payment with all that is known of it, or an attempt at one.
 *
 * @param clientId null where somebody began to pay through a link, and nobody knows them yet
 * @param payment null for what was not paid
 * @param way its way to the bank, in order
 * @param begun what is said of it while it is not certain, or was not paid; empty for a payment
 */
record MoneyRecord(
        String key,
        MoneyRow.State state,
        @Schema(nullable = true) ClientId clientId,
        String clientName,
        Amount amount,
        @Schema(nullable = true) Payment payment,
        String begun,
        List<Station> way,
        List<Settled> settled,
        List<Booking> books,
        List<Message> letters,
        After after) {
    /**
     * A place on its way.
     *
     * @param words what it is; over it
     * @param below when, and with what; under it
     * @param reached whether it is there
     * @param kept what the processor keeps there, in words; empty for nothing
     */
    record Station(String words, String below, boolean reached, String kept) {}

    /** What it settled of a debt. @param left what is open of that debt */
    record Settled(
            long debt, DocumentId document, String number, int position, boolean fee, Amount amount, Amount left) {
        /** What is to come for some of a document's debts. @param number the document's @param parts by the debt's key */
        static List<Settled> toCome(List<StoredInstallment> debts, String number, Map<Long, Money> parts) {
            return debts.stream()
                    .filter(d -> parts.containsKey(d.id()))
                    .map(d -> new Settled(
                            d.id(),
                            d.invoiceId(),
                            number,
                            d.position(),
                            d.fee(),
                            Amount.of(parts.get(d.id())),
                            Amount.of(d.open())))
                    .toList();
        }
    }

    /** A posting. @param amount a debit above zero, a credit below */
    record Booking(LocalDate on, String what, String account, Amount amount) {}

    /** An open debt. */
    record Target(
            long debt,
            String number,
            int position,
            boolean fee,
            @Schema(nullable = true) LocalDate dueOn,
            Amount open) {}

    /**
     * What may be done with it, and what was.
     *
     * @param refundCredit what could be given back without opening anything; null where nothing can
     * @param refundMost what could be given back in all
     * @param yours what of it is left to the business, less all costs; null for what was not paid
     * @param moveTo where what it settles could be moved to
     * @param number the processor's own; empty for what none took
     * @param held the order whose money is held and can be taken; null where none is
     * @param openAt the processor's page of it
     * @param takeBackOn the document on which it is planned, where it can still be taken back; null for others
     * @param link the payment link through which it came; null for what is for a document
     */
    record After(
            @Schema(nullable = true) Amount refundCredit,
            @Schema(nullable = true) Amount refundMost,
            @Schema(nullable = true) Amount yours,
            List<Payments.Later> later,
            List<RefundOrders.GoingBack> refunds,
            @Schema(nullable = true) Dispute dispute,
            List<Target> moveTo,
            String number,
            @Schema(nullable = true) String openAt,
            @Schema(nullable = true) Long held,
            @Schema(nullable = true) LinkViews.FromLink link,
            @Schema(nullable = true) DocumentId takeBackOn) {
        /** Of what has not come: nothing of it goes back or can be moved. */
        static After notCome(String number, String openAt, Long held, LinkViews.FromLink link, DocumentId takeBackOn) {
            return new After(
                    null, null, null, List.of(), List.of(), null, List.of(), number, openAt, held, link, takeBackOn);
        }
    }
}
