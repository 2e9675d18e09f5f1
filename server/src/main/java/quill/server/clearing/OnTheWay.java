package quill.server.clearing;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.server.cardorders.OrdersInTransit;
import quill.server.collections.PlannedPayments;
import quill.server.debts.Settling;

/**
 * Money that may come for debts that are open: what an order or a bank debit brings, what its client has planned for a day,
 * and what is contested and not decided, since whoever wins that has paid. None of it is reminded of, nor fined.
 */
@Service
@Transactional(readOnly = true)
public class OnTheWay {
    private final OrdersInTransit orders;
    private final DisputeRepository disputes;
    private final Settling settling;
    private final PlannedPayments planned;

    OnTheWay(OrdersInTransit orders, DisputeRepository disputes, Settling settling, PlannedPayments planned) {
        this.planned = planned;
        this.orders = orders;
        this.disputes = disputes;
        this.settling = settling;
    }

    /** What may be on its way to each debt at this moment; debts to which nothing is are not in it. */
    public Map<Long, Money> inTransit(Collection<ClientId> clientIds) {
        Map<Long, Money> sums = new HashMap<>(orders.inTransit(clientIds));
        if (!clientIds.isEmpty()) {
            planned.inTransit(clientIds).forEach((debt, sum) -> sums.merge(debt, sum, Money::plus));
            for (Dispute d : disputes.undecided()) {
                if (clientIds.contains(d.clientId())) {
                    settling.chargedBack(d.paymentId()).forEach((debt, sum) -> sums.merge(debt, sum, Money::plus));
                }
            }
        }
        return sums;
    }
}
