package quill.server.invoices;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.Map;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.debts.Debts;
import quill.server.documents.Shelves;

/** Keeps beside an invoice what is open of it, whenever its debts change. */
@Component
class InvoiceDues {
    private final Shelves shelves;
    private final Debts debts;
    private final Changes changes;
    private final BusinessClock clock;

    InvoiceDues(Shelves shelves, Debts debts, Changes changes, BusinessClock clock) {
        this.shelves = shelves;
        this.debts = debts;
        this.changes = changes;
        this.clock = clock;
    }

    /** What is open of an invoice stands beside it, for lists that show many. */
    @EventListener
    void debtsChanged(Debts.DebtsChanged change) {
        Map<LocalDate, Long> openByDay = new HashMap<>();
        debts.of(change.invoiceId()).stream()
                .filter(i -> i.open().isPositive())
                .forEach(i -> openByDay.merge(i.dueOn(), i.open().getAmountMinorLong(), Math::addExact));
        shelves.owed(change.invoiceId(), openByDay, clock.today());
        changes.say(change.invoiceId(), null);
    }

    @EventListener
    void debtsLeave(Debts.DebtsLeaving leaving) {
        shelves.owedNoMore(leaving.invoiceId());
    }
}
