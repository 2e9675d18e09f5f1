package quill.standins.countinghouse;

import java.math.BigDecimal;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.server.ResponseStatusException;

/** What was held of cards: taken whole or in part, or let go. Asked for again, what was done stands. */
@Component
@Transactional
class Holds {
    private final OrderBook orders;

    Holds(OrderBook orders) {
        this.orders = orders;
    }

    /** @throws ResponseStatusException (409) where nothing is held any more; (422) for more than is held */
    CardOrder take(String id, BigDecimal amount) {
        CardOrder order = held(id);
        if ("paid".equals(order.state()) && order.taken().amount().compareTo(amount) == 0) {
            return order;
        }
        checkHeld(order);
        if (amount.signum() <= 0 || amount.compareTo(order.amount()) > 0) {
            throw new ResponseStatusException(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "at most " + Sums.plain(order.amount(), order.currency()) + " can be taken");
        }
        orders.take(id, amount);
        return orders.find(id).orElseThrow();
    }

    CardOrder release(String id) {
        CardOrder order = held(id);
        if ("released".equals(order.state())) {
            return order;
        }
        checkHeld(order);
        orders.end(id, "released", "");
        return orders.find(id).orElseThrow();
    }

    private CardOrder held(String id) {
        return orders.lock(id).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
    }

    private static void checkHeld(CardOrder order) {
        if (!"held".equals(order.state())) {
            throw new ResponseStatusException(HttpStatus.CONFLICT, "nothing is held: the order is " + order.state());
        }
    }
}
