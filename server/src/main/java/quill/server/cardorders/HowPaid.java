package quill.server.cardorders;

import java.util.Objects;
import org.joda.money.CurrencyUnit;
import quill.core.ledger.OnTop;
import quill.core.pay.WayToPay;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.savedmethods.Agreed;
import quill.server.savedmethods.SavedMethod;

/**
 * How an order is to be paid.
 *
 * @param hold whether a card's money is only held until the business takes it
 * @param keep what was agreed, where the card or account that pays it is kept for later; else null
 * @param from what is kept, where it is taken from that; else null
 * @param only in this way alone; null for each that is offered
 * @param onTop a tip, and what is asked for paying by card; null for nothing
 */
public record HowPaid(boolean hold, Agreed keep, SavedMethod from, WayToPay only, OnTop onTop) {
    /** On the processor's page, at once. */
    public static final HowPaid PLAIN = new HowPaid(false, null, null, null, null);

    /** On the processor's page. */
    public static HowPaid held(boolean hold) {
        return new HowPaid(hold, null, null, null, null);
    }

    /** On the processor's page, held or not, and kept for later. */
    public static HowPaid keeping(boolean hold, Agreed keep) {
        return new HowPaid(hold, keep, null, null, null);
    }

    /** From what is kept. */
    public static HowPaid from(SavedMethod method, OnTop onTop) {
        return new HowPaid(false, null, method, null, onTop);
    }

    /** The same with something on top. @param way in this way alone; null for each that is offered */
    public HowPaid with(WayToPay way, OnTop top) {
        return new HowPaid(hold, keep, from, way, top);
    }

    /** What is on top of a sum in a currency. */
    OnTop onTop(CurrencyUnit currency) {
        return onTop == null ? OnTop.nothing(currency) : onTop;
    }

    /** Whether an order is to be paid like this. */
    boolean isOf(Order order) {
        return order.means().holds() == hold
                && Objects.equals(order.means().keep(), keep)
                && Objects.equals(order.means().from(), from == null ? null : from.id())
                && order.means().onTop().equals(onTop(order.amount().getCurrencyUnit()));
    }
}
