package quill.server.clearing;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.server.cardorders.CardOrders;
import quill.server.debts.Settling;

/**
 * Money that may come for debts that are open: what an order or a bank debit brings, and what is contested and not decided,
 * since whoever wins that has paid. Neither is reminded of, nor fined.
 */
@Service
@Transactional(readOnly = true)
public class OnTheWay {
    private final CardOrders orders;
    private final DisputeRepository disputes;
    private final Settling settling;

    OnTheWay(CardOrders orders, DisputeRepository disputes, Settling settling) {
        this.orders = orders;
        this.disputes = disputes;
        this.settling = settling;
    }

    /** What may be on its way to each debt at this moment; debts to which nothing is are not in it. */
    public Map<Long, Money> inTransit(Collection<ClientId> clientIds) {
        Map<Long, Money> sums = new HashMap<>(orders.inTransit(clientIds));
        if (!clientIds.isEmpty()) {
            for (Dispute d : disputes.undecided()) {
                if (clientIds.contains(d.clientId())) {
                    settling.chargedBack(d.paymentId()).forEach((debt, sum) -> sums.merge(debt, sum, Money::plus));
                }
            }
        }
        return sums;
    }
}
