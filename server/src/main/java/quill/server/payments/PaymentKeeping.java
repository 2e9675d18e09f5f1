package quill.server.payments;

import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.Findable;

/** Keeps a payment that is about to be booked. */
@Component
@Transactional(propagation = Propagation.MANDATORY)
class PaymentKeeping {
    private final PaymentRepository repository;
    private final PaymentNames names;
    private final Changes changes;
    private final BusinessClock clock;

    PaymentKeeping(PaymentRepository repository, PaymentNames names, Changes changes, BusinessClock clock) {
        this.repository = repository;
        this.names = names;
        this.changes = changes;
        this.clock = clock;
    }

    /** It can be found from now on. */
    Payment keep(PaymentRepository.New p) {
        long id = repository.insert(p, names.of(p.clientId(), p.invoiceId()), clock.instant());
        changes.touch(Findable.PAYMENT, id);
        return repository.find(id).orElseThrow();
    }
}
