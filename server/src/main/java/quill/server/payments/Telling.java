package quill.server.payments;

import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import quill.core.id.DocumentId;
import quill.server.audit.Happenings;
import quill.server.common.Changes;
import quill.server.common.Findable;
import quill.server.debts.Debts;

/** Says on whatever a payment is about what became of it. */
@Component
class Telling {
    private final Debts debts;
    private final Happenings happenings;
    private final Changes changes;

    Telling(Debts debts, Happenings happenings, Changes changes) {
        this.debts = debts;
        this.happenings = happenings;
        this.changes = changes;
    }

    void of(Payment payment, String what) {
        of(
                payment,
                what,
                debts.settledBy(payment.id()).stream()
                        .map(p -> p.debt().document())
                        .collect(Collectors.toSet()));
    }

    /** @param settled documents that it settled before */
    void of(Payment payment, String what, Set<DocumentId> settled) {
        Happenings.About about = Happenings.About.payment(payment.id());
        if (payment.invoiceId() == null && settled.isEmpty()) {
            happenings.note(null, payment.clientId(), what, about);
        }
        if (payment.invoiceId() != null && !settled.contains(payment.invoiceId())) {
            happenings.note(payment.invoiceId(), payment.clientId(), what, about);
        }
        settled.forEach(d -> happenings.note(d, payment.clientId(), what, about));
        changes.say(payment.invoiceId(), payment.clientId());
        changes.touch(Findable.PAYMENT, payment.id());
    }
}
