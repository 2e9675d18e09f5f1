package quill.server.cardorders;

import org.springframework.stereotype.Component;
import quill.core.id.ClientId;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.payments.Payment;
import quill.server.processor.CardProcessor.Answer;
import quill.server.savedmethods.SavedMethods;

/** What follows when somebody paid an order, or is about to: its link hears of it, and what was to be kept is kept. */
@Component
class Afterwards {
    private final LinkOrderRepository linked;
    private final ForLinks links;
    private final SavedMethods methods;

    Afterwards(LinkOrderRepository linked, ForLinks links, SavedMethods methods) {
        this.linked = linked;
        this.links = links;
        this.methods = methods;
    }

    /** Whoever pays through a link, as typed. */
    String nameOf(long linkPayment) {
        return links.nameOf(linkPayment);
    }

    /** Whoever pays through a link becomes a client with the money, not before it. */
    ClientId becomes(Order order) {
        ClientId known = links.clientOf(order.linkPayment());
        linked.paidBy(order.id(), known);
        return known;
    }

    /** Keeps what paid it, or is about to, where that was agreed. */
    void keep(Order order, Answer answer) {
        if (order.means().keep() != null && order.clientId() != null && !answer.test()) {
            answer.with()
                    .kept()
                    .ifPresent(k -> methods.keep(
                            order.clientId(),
                            order.at().processor(),
                            k,
                            order.means().keep()));
        }
    }

    /** Its money is booked. */
    void arrived(Order order, Payment payment) {
        if (order.linkPayment() != null) {
            boolean again = linked.isPaidBesides(order.whose().link(), order.id());
            links.arrived(order.linkPayment(), payment, again);
        }
    }
}
