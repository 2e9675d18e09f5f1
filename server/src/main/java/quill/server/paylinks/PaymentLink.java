package quill.server.paylinks;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import quill.core.id.ClientId;
import quill.core.pay.LinkAmount;
import quill.server.common.Amount;

/**
 * An address that takes a payment with no invoice behind it.
 *
 * @param description what it is for; may be empty
 * @param taxes keys of those that are inside the amount
 * @param fields what its payer fills in besides
 * @param closed whether its business takes no more
 */
public record PaymentLink(
        long id,
        String token,
        String title,
        String description,
        LinkAsks asks,
        List<String> taxes,
        LinkRules rules,
        List<LinkField> fields,
        AfterPaying after,
        boolean closed,
        int version,
        LocalDate madeOn) {
    /** @param most the same as the least where there is nothing to choose */
    public record LinkAsks(Amount least, Amount most) {
        static LinkAsks of(LinkAmount a) {
            return new LinkAsks(Amount.of(a.least()), Amount.of(a.most()));
        }

        LinkAmount amount() {
            return new LinkAmount(least.money(), most.money());
        }
    }

    /**
     * Who can pay, until when, and on which conditions.
     *
     * @param once whether it is paid once
     * @param endsOn its last day; null for none
     * @param terms that are accepted before paying; empty for none
     * @param clientId for whom it is; null for whoever has it
     * @param hold whether a card's money is only held until the work is done
     * @param shown whether it is one of the business's links; else it was made for one card that was at hand
     */
    public record LinkRules(
            boolean once,
            @Schema(nullable = true) LocalDate endsOn,
            String terms,
            @Schema(nullable = true) ClientId clientId,
            boolean hold,
            boolean shown) {}

    /** Something that its payer fills in. @param needed whether it must not be left empty */
    public record LinkField(String label, boolean needed) {}

    /** What its payer sees after paying: a text, or another place. @param onward an https address; empty for none */
    public record AfterPaying(String thanks, String onward) {}

    /** What was filled in. */
    public record FilledIn(String label, String text) {}

    /** How it stands. */
    public enum State {
        OPEN("Open"),
        /** Paid, and paid once. */
        PAID("Paid"),
        /** Its last day is past. */
        ENDED("Ended"),
        /** Its business takes no more. */
        CLOSED("Closed");

        private final String words;

        State(String words) {
            this.words = words;
        }

        String words() {
            return words;
        }
    }

    /** How it stands. @param paid whether something came of it */
    State state(boolean paid, LocalDate today) {
        if (rules.once() && paid) {
            return State.PAID;
        }
        if (closed) {
            return State.CLOSED;
        }
        return rules.endsOn() != null && rules.endsOn().isBefore(today) ? State.ENDED : State.OPEN;
    }
}
