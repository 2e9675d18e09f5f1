package quill.server.payments;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Account;
import quill.core.ledger.Appropriation;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.ledger.OnTop;
import quill.core.ledger.Receipt;
import quill.core.money.Amounts;
import quill.server.books.BooksService;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.debts.Settling;

/**
 * What card processors book after a payment: what came back, what was contested and won, what did not arrive, and what they
 * paid out. Each is booked once, by its key; who calls has made sure of that.
 */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class ProcessorMoney {
    private final PaymentRepository repository;
    private final OnTops onTops;
    private final BooksService books;
    private final Settling settling;
    private final ClientsService clients;
    private final Telling telling;
    private final Changes changes;
    private final BusinessClock clock;

    ProcessorMoney(
            PaymentRepository repository,
            OnTops onTops,
            BooksService books,
            Settling settling,
            ClientsService clients,
            Telling telling,
            Changes changes,
            BusinessClock clock) {
        this.repository = repository;
        this.onTops = onTops;
        this.books = books;
        this.settling = settling;
        this.clients = clients;
        this.telling = telling;
        this.changes = changes;
        this.clock = clock;
    }

    /**
     * A payment, or what was left of it, that the payer's bank took back.
     *
     * @param key of the processor's entry
     * @param contested whether its holder contests it; else a bank debit came back
     * @param cost what the processor keeps for it
     */
    public record WentBack(
            long paymentId, String key, boolean contested, Money amount, Money cost, LocalDate on, String why) {}

    /**
     * Books that it went: exactly what it had settled is open again.
     *
     * @param opened debts that are open again by it, with how much
     */
    public record Gone(long movementId, Payment payment, List<Appropriation.Part> opened) {
        /** What it was for, or else the first that it had settled; null where neither. */
        public DocumentId about() {
            return payment.invoiceId() != null
                    ? payment.invoiceId()
                    : opened.stream().map(p -> p.debt().document()).findFirst().orElse(null);
        }
    }

    /** @throws RefusedException where it was a deposit that an invoice has deducted, so that nothing can be opened for it */
    public Gone wentBack(WentBack w) {
        Payment payment = lock(w.paymentId());
        LocalDate today = clock.today();
        // All that is left goes, and with it what was given on top.
        OnTop top = onTops.left(payment);
        Money own = w.amount().minus(top.sum());
        if (!own.isPositive()) {
            throw new RefusedException(
                    "amount", Amounts.plain(w.amount()), "only what was given on top of this payment was left to go");
        }
        long id = repository.insert(
                new PaymentRepository.Later(
                        w.contested() ? "CHARGEBACK" : "RETURN",
                        payment.id(),
                        w.key(),
                        null,
                        own,
                        w.cost(),
                        w.on(),
                        today,
                        w.why()),
                clock.instant());
        var about = new BooksService.About(payment.clientId(), payment.invoiceId(), id);
        String text = (w.contested() ? "Contested: " : "Returned: ") + payment.words() + " · " + w.why();
        Receipt money = new Receipt(payment.id(), payment.means().way().account(), own);
        onTops.goes(payment, id, top);
        List<Appropriation.Part> was = settling.settledBy(payment.id());
        if (payment.held()) {
            settling.undoDeposit(payment.clientId(), money, step -> books.book(step.entry(), text, about, null));
        } else if (w.contested()) {
            settling.chargeBack(payment.clientId(), money, step -> books.book(step.entry(), text, about, null));
        } else {
            settling.returned(payment.clientId(), money, step -> books.book(step.entry(), text, about, null));
        }
        cost(
                payment.means().way().account(),
                w.cost(),
                w.contested() ? "Cost of a contested payment" : "Cost of a payment that came back, " + payment.words(),
                about);
        repository.wentBack(payment.id(), own, w.contested() ? Payment.Stands.CONTESTED : Payment.Stands.RETURNED);
        telling.of(
                payment,
                Amounts.grouped(w.amount()) + " paid " + payment.words()
                        + (w.contested() ? " is contested: " : " came back: ") + w.why(),
                was.stream().map(p -> p.debt().document()).collect(Collectors.toSet()));
        return new Gone(id, payment, was);
    }

    /** A contest was won: the money is here again, and settles what its going had opened. */
    public void won(long paymentId, String key, Money amount, LocalDate on) {
        Payment payment = lock(paymentId);
        OnTop top = onTops.wentWithLatest(payment, "CHARGEBACK");
        Money own = amount.minus(top.sum());
        comesAgain(payment, new Again("WON_BACK", key, own, on, Entry.Event.CHARGEBACK_WON), top);
        repository.wentBack(paymentId, own.negated(), Payment.Stands.WON);
        telling.of(payment, Amounts.grouped(amount) + " that was contested is won back");
    }

    /** A contest was lost: what went stays gone. */
    public void lost(long paymentId) {
        Payment payment = lock(paymentId);
        repository.wentBack(paymentId, Money.zero(payment.amount().money().getCurrencyUnit()), Payment.Stands.LOST);
        settling.reviewed(payment.clientId(), settling.openedByGoing(paymentId));
        telling.of(payment, "The contested payment " + payment.words() + " is lost: what it had settled stays open");
    }

    /** What was given back did not arrive, or was refused: it is here again, and settles what its going had opened. @param refundId the movement by which it went */
    public void notRefunded(long refundId, String key, Money amount, LocalDate on, String why) {
        Payment payment = lock(repository.ofMovement(refundId).orElseThrow());
        OnTop top = onTops.wentWith(refundId, amount);
        Money own = amount.minus(top.sum());
        comesAgain(payment, new Again("REFUND_BACK", key, own, on, Entry.Event.REFUND_FAILED), top);
        repository.wentBack(payment.id(), own.negated(), payment.back().stands());
        telling.of(payment, Amounts.grouped(amount) + " could not be given back: " + why);
    }

    private record Again(String kind, String key, Money amount, LocalDate on, Entry.Event event) {}

    private void comesAgain(Payment payment, Again again, OnTop top) {
        Money amount = again.amount();
        LocalDate on = again.on();
        Entry.Event event = again.event();
        long id = repository.insert(
                new PaymentRepository.Later(
                        again.kind(),
                        payment.id(),
                        again.key(),
                        null,
                        amount,
                        Money.zero(amount.getCurrencyUnit()),
                        on,
                        clock.today(),
                        ""),
                clock.instant());
        onTops.comesAgain(payment, id, top);
        var about = new BooksService.About(payment.clientId(), payment.invoiceId(), id);
        Receipt money = new Receipt(id, payment.means().way().account(), amount);
        var ledger = settling.ledger(payment.clientId(), amount.getCurrencyUnit());
        var decision = payment.held()
                ? ledger.hold(money)
                : ledger.receiveAgain(money, settling.openedByGoing(payment.id()), event);
        settling.keep(
                payment.clientId(),
                decision,
                on,
                step -> books.book(step.entry(), event.words() + ": " + payment.words(), about, null));
        if (!payment.held()) {
            settling.useCredit(payment.clientId(), amount.getCurrencyUnit());
        }
    }

    /** A bank debit was not paid, which cost something; nothing had been booked of it. */
    public void costOnly(ClientId clientId, DocumentId invoiceId, Money cost) {
        clients.lock(clientId);
        cost(
                Account.PROCESSOR_CLEARING,
                cost,
                "Cost of a refused bank debit",
                new BooksService.About(clientId, invoiceId, null));
    }

    private void cost(Account from, Money cost, String text, BooksService.About about) {
        if (cost.isPositive()) {
            books.book(Bookings.cost(from, cost), text, about, null);
        }
    }

    /**
     * A sum reached the bank account.
     *
     * @param key of the processor's entry
     * @param of the movements that it is made of
     * @return the payout
     */
    public long paidOut(String key, Money amount, LocalDate on, Set<Long> of) {
        long id = repository.insertPayout(key, amount, on, clock.today(), clock.instant());
        books.book(
                Bookings.paidOut(amount),
                "Payout of " + Amounts.grouped(amount) + " to the bank",
                new BooksService.About(null, null, id),
                null);
        repository.paidOut(of, id);
        changes.say(null, null);
        return id;
    }

    private Payment lock(long id) {
        Optional<Payment> found = repository.find(id);
        clients.lock(found.orElseThrow().clientId());
        return repository.find(id).orElseThrow();
    }
}
