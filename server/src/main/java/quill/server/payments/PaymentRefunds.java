package quill.server.payments;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.ledger.Account;
import quill.core.ledger.OnTop;
import quill.core.ledger.Receipt;
import quill.core.ledger.Step;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;
import quill.core.pay.PaymentWay;
import quill.server.books.BooksService;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.common.Texts;
import quill.server.debts.Settling;

/**
 * Gives back a payment, whole or in part: out of client credit first. What it settled is owed again only where the person
 * says so.
 */
@Service
public class PaymentRefunds {
    private final PaymentRepository repository;
    private final OnTops onTops;
    private final RequestKeys keys;
    private final Settling settling;
    private final BooksService books;
    private final ClientsService clients;
    private final Telling telling;
    private final BusinessClock clock;

    PaymentRefunds(
            PaymentRepository repository,
            OnTops onTops,
            RequestKeys keys,
            Settling settling,
            BooksService books,
            ClientsService clients,
            Telling telling,
            BusinessClock clock) {
        this.repository = repository;
        this.onTops = onTops;
        this.keys = keys;
        this.settling = settling;
        this.books = books;
        this.clients = clients;
        this.telling = telling;
        this.clock = clock;
    }

    /**
     * A refund as a person asks for it.
     *
     * @param key the same twice is one refund
     * @param way how it goes: as the payment came where it is empty, else a way by hand
     * @param withTop whether the tip and surcharge that are left go back with it
     * @param owedAgain whether what the payment settled may be opened by it
     */
    public record Given(
            String key,
            long paymentId,
            String way,
            String amount,
            String paidOn,
            String reference,
            boolean owedAgain,
            boolean withTop) {}

    /** What was booked. @param amount with what was on top @param throughProcessor whether the processor is to be asked for it */
    public record Made(long movementId, Payment payment, Money amount, boolean throughProcessor) {}

    /** What could be given back of a payment. @param credit out of client credit, opening nothing @param most in all */
    public record Possible(Money credit, Money most) {}

    /** Says what could be given back. */
    public Possible possible(Payment payment) {
        Money left = payment.left();
        CurrencyUnit currency = left.getCurrencyUnit();
        var ledger = settling.ledger(payment.clientId(), currency);
        Money free = payment.held() ? ledger.deposits() : ledger.free();
        Money credit = Amounts.min(free, left);
        return new Possible(credit, payment.held() ? credit : left);
    }

    /**
     * Books it, once.
     *
     * @return empty where this key was booked before
     * @throws RefusedException naming the field, with the figure that would be allowed
     * @throws ConflictException where the payment does not count any more, or the key was used for something else
     */
    @Transactional
    public Optional<Made> give(Given g) {
        List<Problem> problems = new ArrayList<>();
        Texts.key(g.key(), "refund", problems);
        Payment payment = found(g.paymentId());
        CurrencyUnit currency = payment.amount().money().getCurrencyUnit();
        Money amount = TypedNumber.amount("amount", g.amount(), currency, problems);
        if (amount != null && !amount.isPositive()) {
            problems.add(new Problem("amount", g.amount(), "must be above zero"));
        }
        boolean same = g.way() == null || g.way().isBlank();
        boolean through = same && payment.means().way().account() == Account.PROCESSOR_CLEARING;
        PaymentWay way = same ? payment.means().way() : PaymentWay.recorded("way", g.way(), problems);
        LocalDate today = clock.today();
        LocalDate paidOn = through ? today : PaidOn.read(g.paidOn(), payment.valueOn(), today, problems);
        String reference = Texts.name("reference", g.reference(), 200, false, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        if (keys.take(g.key(), g).isPresent()) {
            return Optional.empty();
        }
        clients.lock(payment.clientId());
        if (repository.isUsed(g.key())) {
            throw new ConflictException("This request's key was used for another payment. Nothing was recorded.");
        }
        payment = found(g.paymentId());
        check(payment, amount, g);
        long id = repository.insert(
                new PaymentRepository.Later(
                        "REFUND",
                        payment.id(),
                        g.key(),
                        same ? null : way,
                        amount,
                        Money.zero(currency),
                        paidOn,
                        today,
                        reference),
                clock.instant());
        book(payment, new Receipt(id, way.account(), amount), way, g.owedAgain());
        OnTop top = g.withTop() ? onTops.left(payment) : OnTop.nothing(currency);
        onTops.goes(payment, id, top);
        repository.wentBack(payment.id(), amount, payment.back().stands());
        // Whoever gives it back has seen that it came.
        repository.noted(payment.id());
        keys.made(g.key(), id);
        telling.of(
                payment,
                Amounts.grouped(amount) + " given back " + way.words()
                        + (top.isAny() ? ", and " + OnTops.words(top) : ""));
        return Optional.of(new Made(id, payment, amount.plus(top.sum()), through));
    }

    private Payment found(long id) {
        return repository.find(id).orElseThrow(() -> new NotFoundException("There is no payment " + id + "."));
    }

    private static void check(Payment payment, Money amount, Given g) {
        if (payment.undone() != null) {
            throw new ConflictException("This payment was undone, so there is nothing to give back.");
        }
        if (!payment.isHere()) {
            throw new ConflictException("The payer’s bank took this payment back already.");
        }
        if (amount.isGreaterThan(payment.left())) {
            throw new RefusedException(
                    "amount", g.amount(), "at most " + Amounts.grouped(payment.left()) + " of this payment is left");
        }
    }

    private void book(Payment payment, Receipt out, PaymentWay way, boolean owedAgain) {
        if (payment.held()) {
            settling.refundDeposit(
                    payment.clientId(), out, Set.of(payment.id()), step -> entry(step, payment, out, way));
            return;
        }
        if (!owedAgain) {
            Money credit = possible(payment).credit();
            if (out.amount().isGreaterThan(credit)) {
                throw new RefusedException(
                        "amount",
                        Amounts.plain(out.amount()),
                        "at most " + Amounts.grouped(credit)
                                + " is client credit; to give back more, say that what this payment settled is owed again");
            }
        }
        settling.refund(payment.clientId(), out, payment.id(), owedAgain, step -> entry(step, payment, out, way));
    }

    private long entry(Step step, Payment payment, Receipt out, PaymentWay way) {
        return books.book(
                step.entry(),
                "Given back " + way.words() + " · of the payment of " + Texts.day(payment.valueOn()),
                new BooksService.About(payment.clientId(), payment.invoiceId(), out.movement()),
                null);
    }
}
