package quill.standins.countinghouse;

import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.server.ResponseStatusException;

/** Takes orders from kept cards and accounts, without their holder. Asked for again, what was done stands. */
@Component
@Transactional
class Charging {
    private final OrderBook orders;
    private final KeptMethods methods;
    private final Day day;

    Charging(OrderBook orders, KeptMethods methods, Day day) {
        this.orders = orders;
        this.methods = methods;
        this.day = day;
    }

    /** @throws ResponseStatusException (409) for an order that names no kept method */
    CardOrder charge(String id) {
        CardOrder order = orders.lock(id).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
        if (order.wish().method() == null) {
            throw new ResponseStatusException(HttpStatus.CONFLICT, "the order names no kept card or account");
        }
        if (order.isOpen()) {
            KeptMethod from = methods.find(order.wish().method()).orElseThrow();
            String refusal = refusal(from);
            if (!refusal.isEmpty()) {
                orders.refuse(order, from, refusal);
            } else if (from.isDebit()) {
                orders.debit(order, from.account());
            } else {
                orders.pay(order, from.card(), from.expiry());
            }
        }
        return orders.find(id).orElseThrow();
    }

    /** Why nothing is taken from it; empty where it pays, or where its bank says so later. */
    private String refusal(KeptMethod from) {
        if (from.removed()) {
            return "it is not kept any more";
        }
        if (from.isDebit()) {
            return "";
        }
        if (TypedCard.wrongExpiry(from.expiry(), day.today()) != null) {
            return "the card has expired";
        }
        return from.card().pays() || from.card() == TestCard.ASKS_CODE
                ? ""
                : from.card().later();
    }
}
