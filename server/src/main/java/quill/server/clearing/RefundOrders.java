package quill.server.clearing;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import org.joda.money.Money;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.RefusedException;
import quill.server.cardorders.OrderViews;
import quill.server.common.BusinessClock;
import quill.server.common.Texts;
import quill.server.payments.Payment;
import quill.server.payments.PaymentRefunds;
import quill.server.payments.Payments;
import quill.server.payments.ProcessorMoney;
import quill.server.processor.CardProcessor;
import quill.server.processor.Processors;

/**
 * Money that goes back through a processor. It is booked when a person gives it back, so that nothing else uses it; then the
 * processor is asked, under a key of ours, until it has answered. Where it will not, or the money does not arrive, it is put
 * back.
 */
@Service
public class RefundOrders {
    private static final Logger LOG = LoggerFactory.getLogger(RefundOrders.class);
    private final RefundRepository repository;
    private final PaymentRefunds refunds;
    private final Payments payments;
    private final OrderViews orders;
    private final ProcessorMoney money;
    private final Processors processors;
    private final TransactionTemplate transaction;
    private final BusinessClock clock;

    RefundOrders(
            RefundRepository repository,
            PaymentRefunds refunds,
            Payments payments,
            OrderViews orders,
            ProcessorMoney money,
            Processors processors,
            TransactionTemplate transaction,
            BusinessClock clock) {
        this.repository = repository;
        this.refunds = refunds;
        this.payments = payments;
        this.orders = orders;
        this.money = money;
        this.processors = processors;
        this.transaction = transaction;
        this.clock = clock;
    }

    /**
     * Gives back a payment, or a part of it, as a person says.
     *
     * @throws RefusedException naming the field, with the figure that would be allowed
     */
    public void give(PaymentRefunds.Given g) {
        Optional<RefundRepository.Refund> asked = transaction.execute(s ->
                refunds.give(g).filter(PaymentRefunds.Made::throughProcessor).map(made -> order(g.key(), made)));
        if (asked != null && asked.isPresent()) {
            askQuietly(asked.get());
        }
    }

    private RefundRepository.Refund order(String key, PaymentRefunds.Made made) {
        OrderViews.Seen where = orders.ofKey(payments.keyOf(made.payment().id()))
                .orElseThrow(() -> new RefusedException(
                        "way", "", "the card processor does not know this payment; give it back in another way"));
        long id = repository.insert("refund-" + key, where.there(), made.movementId(), made.amount(), Instant.now());
        return repository.find(id).orElseThrow();
    }

    /** Asks for all that no processor has answered yet. */
    void askForAll(BooleanSupplier stop) {
        for (RefundRepository.Refund r : repository.wanted()) {
            if (stop.getAsBoolean()) {
                return;
            }
            askQuietly(r);
        }
    }

    private void askQuietly(RefundRepository.Refund r) {
        try {
            processors.connect(r.processor(), false).refund(r.key(), r.orderId(), r.amount());
            transaction.executeWithoutResult(s -> repository.move(r.id(), RefundState.WANTED, RefundState.ASKED, ""));
        } catch (CardProcessor.Refused e) {
            LOG.warn("refund {} was refused: {}", r.key(), e.getMessage());
            transaction.executeWithoutResult(s -> refused(r, Texts.fit(e.getMessage(), 300)));
        } catch (CardProcessor.NoAnswer e) {
            LOG.debug("refund {} has no answer yet", r.key(), e);
        }
    }

    private void refused(RefundRepository.Refund r, String why) {
        if (repository.move(r.id(), RefundState.WANTED, RefundState.REFUSED, why) == 1) {
            money.notRefunded(r.movementId(), r.key() + "-refused", r.amount(), clock.today(), why);
        }
    }

    /** The processor booked one. @return its movement */
    @Transactional(propagation = Propagation.MANDATORY)
    Long gone(String key) {
        RefundRepository.Refund r = known(key);
        repository.move(r.id(), RefundState.WANTED, RefundState.GONE, "");
        repository.move(r.id(), RefundState.ASKED, RefundState.GONE, "");
        return r.movementId();
    }

    /** What the processor sent did not arrive. @return its movement */
    @Transactional(propagation = Propagation.MANDATORY)
    Long failed(String key, String entryKey, CardProcessor.Entry e) {
        RefundRepository.Refund r = known(key);
        repository.move(r.id(), RefundState.GONE, RefundState.FAILED, e.reason());
        money.notRefunded(r.movementId(), entryKey, e.amount(), e.on(), e.reason());
        return r.movementId();
    }

    private RefundRepository.Refund known(String key) {
        return repository
                .byKey(key == null ? "" : key)
                .orElseThrow(() -> new RefusedException(
                        "refund", String.valueOf(key), "the card processor gave back what nobody asked for here"));
    }

    /** One that did not arrive. */
    public record NotArrived(long id, Payment payment, Money amount, String why) {}

    /** All of which nobody has said that it was seen. */
    public List<NotArrived> notArrived() {
        return repository.notArrived().stream()
                .map(r -> new NotArrived(r.id(), payments.ofRefund(r.movementId()), r.amount(), r.why()))
                .toList();
    }

    /** A person has seen that one did not arrive. */
    @Transactional
    public void noted(long id) {
        repository.noted(id);
    }

    /** What of a payment went back through its processor, or is to. */
    public List<GoingBack> of(long paymentId) {
        return repository
                .ofPayment(payments.later(paymentId).stream()
                        .map(Payments.Later::movementId)
                        .toList())
                .stream()
                .map(r -> new GoingBack(r.movementId(), r.state(), r.why()))
                .toList();
    }

    /** How one stands. */
    public record GoingBack(long movementId, RefundState state, String why) {}
}
