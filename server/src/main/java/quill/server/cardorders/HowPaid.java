package quill.server.cardorders;

import java.util.Objects;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.savedmethods.Agreed;
import quill.server.savedmethods.SavedMethod;

/**
 * How an order is to be paid.
 *
 * @param hold whether a card's money is only held until the business takes it
 * @param keep what was agreed, where the card or account that pays it is kept for later; else null
 * @param from what is kept, where it is taken from that; else null
 */
public record HowPaid(boolean hold, Agreed keep, SavedMethod from) {
    /** On the processor's page, at once. */
    public static final HowPaid PLAIN = new HowPaid(false, null, null);

    /** On the processor's page. */
    public static HowPaid held(boolean hold) {
        return new HowPaid(hold, null, null);
    }

    /** On the processor's page, and kept for later. @param keep null for not */
    public static HowPaid keeping(Agreed keep) {
        return new HowPaid(false, keep, null);
    }

    /** From what is kept. */
    public static HowPaid from(SavedMethod method) {
        return new HowPaid(false, null, method);
    }

    /** Whether an order is to be paid like this. */
    boolean isOf(Order order) {
        return order.means().holds() == hold
                && Objects.equals(order.means().keep(), keep)
                && Objects.equals(order.means().from(), from == null ? null : from.id());
    }
}
