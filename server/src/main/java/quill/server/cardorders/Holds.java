package quill.server.cardorders;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.joda.money.Money;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;
import quill.server.audit.Happenings;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.processor.CardProcessor;
import quill.server.processor.Processors;

/** What is held on cards: taken when the work is done, whole or in part, or let go. Kept first, then the processor is asked. */
@Service
public class Holds {
    private static final Logger LOG = LoggerFactory.getLogger(Holds.class);
    private final OrderRepository repository;
    private final HeldRepository rows;
    private final Processors processors;
    private final Taking taking;
    private final Happenings happenings;
    private final Changes changes;
    private final TransactionTemplate transaction;

    Holds(
            OrderRepository repository,
            HeldRepository rows,
            Processors processors,
            Taking taking,
            Happenings happenings,
            Changes changes,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.rows = rows;
        this.processors = processors;
        this.taking = taking;
        this.happenings = happenings;
        this.changes = changes;
        this.transaction = transaction;
    }

    /**
     * Takes what is held, or less of it; the rest is let go.
     *
     * @throws RefusedException naming {@code amount}, with what is held
     * @throws ConflictException where nothing is held any more, or the processor does not answer
     */
    public void take(long id, String typed) {
        Order order = held(id);
        List<Problem> problems = new ArrayList<>();
        Money amount = TypedNumber.amount("amount", typed, order.amount().getCurrencyUnit(), problems);
        if (amount != null && (!amount.isPositive() || amount.isGreaterThan(order.amount()))) {
            problems.add(new Problem(
                    "amount",
                    typed,
                    "must be above zero and at most " + Amounts.grouped(order.amount()) + ", what is held"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        transaction.executeWithoutResult(s -> {
            if (rows.takeHeld(id, amount) != 1) {
                throw over();
            }
        });
        finish(repository.find(id).orElseThrow());
    }

    /** Lets go what is held. @throws ConflictException where nothing is held any more, or the processor does not answer */
    public void release(long id) {
        Order order = held(id);
        transaction.executeWithoutResult(s -> {
            if (repository.move(id, OrderState.RELEASING, Set.of(OrderState.HELD)) != 1) {
                throw over();
            }
            happenings.tell(
                    order.invoiceId(), order.clientId(), "What was held is let go, " + Amounts.grouped(order.amount()));
            changes.say(order.invoiceId(), order.clientId());
        });
        finish(repository.find(id).orElseThrow());
    }

    private Order held(long id) {
        Order order = repository.find(id).orElseThrow(() -> new NotFoundException("There is no order " + id + "."));
        if (order.state() != OrderState.HELD) {
            throw over();
        }
        return order;
    }

    private static ConflictException over() {
        return new ConflictException("Nothing is held any more: it was taken, let go or has lapsed.");
    }

    private void finish(Order order) {
        try {
            settle(order);
        } catch (CardProcessor.NoAnswer e) {
            LOG.debug("order {} has no answer yet", order.id(), e);
            throw new ConflictException("The card company does not answer just now. It is asked again by itself.");
        }
    }

    /** Asks the processor for what was decided, until it has answered. */
    void settle(Order order) {
        CardProcessor at = processors.connect(order.at().processor(), order.at().test());
        try {
            taking.take(
                    order.id(),
                    order.state() == OrderState.TAKING
                            ? at.take(order.orderId(), rows.wantedOf(order))
                            : at.release(order.orderId()));
        } catch (CardProcessor.Refused e) {
            // It lapsed meanwhile, or was taken before: what it says of it is the truth.
            at.ask(order.orderId()).ifPresent(a -> taking.take(order.id(), a));
        }
    }
}
