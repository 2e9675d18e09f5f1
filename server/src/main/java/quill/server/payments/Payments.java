package quill.server.payments;

import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.OnTop;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Findable;
import quill.server.common.NotFoundException;
import quill.server.debts.Debts;

/** Money that came, as it is kept. */
@Service
public class Payments {
    private final PaymentRepository repository;
    private final TopRepository onTops;
    private final Debts debts;
    private final Changes changes;
    private final BusinessClock clock;

    Payments(PaymentRepository repository, TopRepository onTops, Debts debts, Changes changes, BusinessClock clock) {
        this.onTops = onTops;
        this.repository = repository;
        this.debts = debts;
        this.changes = changes;
        this.clock = clock;
    }

    /** A person has seen money that came unexpectedly; it stays client credit. */
    @Transactional
    public void noted(long id) {
        Payment payment = find(id);
        if (repository.noted(id) != 1) {
            throw new ConflictException("That was noted already.");
        }
        changed(payment);
    }

    /** Clients of whom money came with a reference that has this text; none for an empty one. */
    public Set<ClientId> clientsOfReference(String text) {
        String plain = text == null ? "" : text.strip().toLowerCase(Locale.ROOT);
        return plain.isEmpty() ? Set.of() : repository.clientsOfReference(plain);
    }

    /** Payments of a client, newest first. */
    public List<Payment> ofClient(ClientId clientId) {
        return repository.ofClient(clientId);
    }

    /** Payments that were for an invoice or settle any of it, newest first. */
    public List<Payment> ofInvoice(DocumentId invoiceId) {
        return repository.ofInvoice(invoiceId, debts.payersOf(invoiceId));
    }

    /** What was held as a deposit for an accepted quote, less what was given back; zero where nothing is. */
    public Money heldFor(DocumentId quoteId, CurrencyUnit currency) {
        return repository.ofInvoice(quoteId, List.of()).stream()
                .filter(p -> p.held() && p.undone() == null)
                .map(p -> p.amount().money())
                .reduce(Money.zero(currency), Money::plus)
                .minus(repository.refundedFor(quoteId, currency));
    }

    /** Money that came for what was no longer open. */
    public List<Payment> unexpected() {
        return repository.unexpected();
    }

    /** One payment. @throws NotFoundException if there is none of that id */
    public Payment find(long id) {
        return repository.find(id).orElseThrow(() -> new NotFoundException("There is no payment " + id + "."));
    }

    /** A payment, or the one because of which a movement is; empty for a payout. */
    public Optional<Payment> behind(long movementId) {
        return repository
                .find(repository.ofMovement(movementId).orElse(movementId))
                .filter(p -> p.clientId() != null);
    }

    /** The same of many, by their movements. */
    public Map<Long, Payment> behind(Collection<Long> movementIds) {
        Map<Long, Long> of = movementIds.isEmpty() ? Map.of() : repository.ofMovements(movementIds);
        Map<Long, Payment> found = repository.some(Set.copyOf(of.values())).stream()
                .filter(p -> p.clientId() != null)
                .collect(Collectors.toMap(Payment::id, p -> p));
        return of.entrySet().stream()
                .filter(e -> found.containsKey(e.getValue()))
                .collect(Collectors.toMap(Map.Entry::getKey, e -> found.get(e.getValue())));
    }

    /** The payment that a movement gives back. */
    public Payment ofRefund(long movementId) {
        return find(repository.ofMovement(movementId).orElseThrow());
    }

    /**
     * Something that went, or came again, because of a payment.
     *
     * @param amount with what came or went on top
     * @param kind REFUND, REFUND_BACK (it did not arrive), RETURN (a bank debit or a cheque), CHARGEBACK or WON_BACK
     */
    public record Later(
            long movementId, String kind, String how, Amount amount, Amount cost, LocalDate on, String why) {}

    /** All of it, in its order. */
    public List<Later> later(long paymentId) {
        List<PaymentRepository.LaterRow> rows = repository.later(paymentId);
        if (rows.isEmpty()) {
            return List.of();
        }
        Map<Long, Money> besides =
                onTops.besides(paymentId, rows.get(0).amount().getCurrencyUnit());
        return rows.stream()
                .map(l -> new Later(
                        l.id(),
                        l.kind(),
                        l.way().words(),
                        Amount.of(besides.containsKey(l.id()) ? l.amount().plus(besides.get(l.id())) : l.amount()),
                        Amount.of(l.cost()),
                        l.on(),
                        l.reference()))
                .toList();
    }

    /** What came beside a payment, and is still here. */
    public OnTop onTop(Payment payment) {
        return onTops.left(payment.id(), payment.amount().money().getCurrencyUnit());
    }

    /** The latest that came, newest first. */
    public List<Payment> latest(int most) {
        return repository.latest(null, most);
    }

    /** The processor's own number of a payment; empty for what none took. */
    public String processorsNumber(long id) {
        return repository.processorsNumber(id).orElse("");
    }

    /** The key under which a movement was recorded: an order's, where a processor took it. */
    public String keyOf(long id) {
        return repository.keyOf(id);
    }

    /** Whether any movement has this key. */
    boolean isUsed(String key) {
        return repository.isUsed(key);
    }

    /** One that was recorded under a request's key. */
    public Optional<Payment> byKey(String key) {
        return repository.byKey(key);
    }

    /** Keeps who paid it. */
    @Transactional(propagation = Propagation.MANDATORY)
    void paidBy(Payment payment, Payer payer) {
        repository.payer(payment.id(), payer);
        changed(payment);
    }

    /** Puts one up for a person to look at: nobody expected it. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void unexpected(long id) {
        repository.unexpected(id);
    }

    /** Marks one as undone. @throws ConflictException where it was before */
    @Transactional(propagation = Propagation.MANDATORY)
    void markUndone(Payment payment, String reason) {
        if (repository.undo(payment.id(), clock.today(), reason) != 1) {
            throw new ConflictException("This payment was undone already.");
        }
        changed(payment);
    }

    private void changed(Payment payment) {
        changes.say(payment.invoiceId(), payment.clientId());
        changes.touch(Findable.PAYMENT, payment.id());
    }
}
