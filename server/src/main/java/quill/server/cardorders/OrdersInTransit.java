package quill.server.cardorders;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import quill.core.id.ClientId;
import quill.core.pay.InTransit;
import quill.server.common.BusinessClock;

/** What orders may bring. */
@Service
public class OrdersInTransit {
    private final TransitRepository repository;
    private final BusinessClock clock;

    OrdersInTransit(TransitRepository repository, BusinessClock clock) {
        this.repository = repository;
        this.clock = clock;
    }

    /** What may be on its way to each debt at this moment; debts to which nothing is are not in it. */
    public Map<Long, Money> inTransit(Collection<ClientId> clientIds) {
        Map<Long, Money> sums = new HashMap<>();
        if (!clientIds.isEmpty()) {
            Instant now = clock.instant();
            repository.unended(clientIds).stream()
                    .filter(o -> o.certain() || InTransit.mayBring(o.openedAt(), o.toldAt(), now))
                    .forEach(o -> o.parts().forEach((debt, part) -> sums.merge(debt, part, Money::plus)));
        }
        return sums;
    }
}
