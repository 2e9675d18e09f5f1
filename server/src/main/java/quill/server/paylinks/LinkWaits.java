package quill.server.paylinks;

import java.util.List;
import java.util.Optional;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.server.cardorders.LinkOrders;
import quill.server.cardorders.OrderState;
import quill.server.cardorders.OrderViews;
import quill.server.payments.Payment;
import quill.server.payments.Payments;

/** What came through payment links and waits for a person: taxes are booked with its invoice, not before. */
@Service
@Transactional(readOnly = true)
public class LinkWaits {
    private static final int MOST = 20;
    private final LinkPaymentRepository begun;
    private final LinkOrders orders;
    private final Payments payments;

    LinkWaits(LinkPaymentRepository begun, LinkOrders orders, Payments payments) {
        this.begun = begun;
        this.orders = orders;
        this.payments = payments;
    }

    /** A payment with taxes inside that has no invoice. @param amount what of it is still here */
    public record Untaxed(long paymentId, ClientId clientId, String title, Money amount) {}

    /** The latest of them. */
    public List<Untaxed> untaxed() {
        return begun.withoutInvoice().stream()
                .flatMap(b -> orders.of(List.of(b.id())).stream()
                        .filter(o -> o.state() == OrderState.PAID && !o.there().test())
                        .map(OrderViews.Seen::key)
                        .map(payments::byKey)
                        .flatMap(Optional::stream)
                        .filter(p -> p.undone() == null && left(p).isPositive())
                        .map(p -> new Untaxed(p.id(), p.clientId(), b.title(), left(p))))
                .limit(MOST)
                .toList();
    }

    private static Money left(Payment p) {
        return p.amount().money().minus(p.back().amount().money());
    }
}
