package quill.server.payments;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.core.ledger.Appropriation;
import quill.core.ledger.OpenDebt;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;
import quill.core.pay.PaymentWay;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.debts.Settling;
import quill.server.dispatch.MoneyLetters;

/** What a person changes of a payment afterwards: what it settles, or that its cheque came back. */
@Service
public class ByHand {
    private final Payments payments;
    private final RequestKeys keys;
    private final ProcessorMoney money;
    private final Settling settling;
    private final Debts debts;
    private final ClientsService clients;
    private final MoneyLetters letters;
    private final BusinessClock clock;
    private final Telling telling;

    ByHand(
            Payments payments,
            RequestKeys keys,
            ProcessorMoney money,
            Settling settling,
            Debts debts,
            ClientsService clients,
            MoneyLetters letters,
            AtHand atHand) {
        this.payments = payments;
        this.keys = keys;
        this.money = money;
        this.settling = settling;
        this.debts = debts;
        this.clients = clients;
        this.letters = letters;
        this.clock = atHand.clock();
        this.telling = atHand.telling();
    }

    /** Where a payment could be moved to: what is open of the same client, in the same currency. */
    public List<OpenDebt> targets(Payment payment) {
        List<Long> own =
                debts.settledBy(payment.id()).stream().map(p -> p.debt().id()).toList();
        return own.isEmpty()
                ? List.of()
                : debts.open(payment.clientId(), payment.amount().money().getCurrencyUnit()).stream()
                        .filter(d -> d.open().isPositive() && !(own.size() == 1 && own.contains(d.id())))
                        .sorted(debts.order())
                        .toList();
    }

    /**
     * Moves what a payment settles of one debt to another one: the first is open again by as much.
     *
     * @param key the same twice is one moving
     * @throws RefusedException naming the field, with the figure that would be allowed
     */
    @Transactional
    public void move(String key, long paymentId, long from, long to, String typed) {
        List<Problem> problems = new ArrayList<>();
        Texts.key(key, "move", problems);
        Payment payment = payments.find(paymentId);
        CurrencyUnit currency = payment.amount().money().getCurrencyUnit();
        Money amount = TypedNumber.amount("amount", typed, currency, problems);
        if (amount != null && !amount.isPositive()) {
            problems.add(new Problem("amount", typed, "must be above zero"));
        }
        if (from == to) {
            problems.add(new Problem("to", String.valueOf(to), "must be another debt than it is moved from"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        if (keys.take(key, List.of("move", paymentId, from, to, amount)).isPresent()) {
            return;
        }
        clients.lock(payment.clientId());
        Map<Long, Appropriation.Part> settled = debts.settledBy(paymentId).stream()
                .collect(Collectors.toMap(p -> p.debt().id(), p -> p));
        Appropriation.Part of = Optional.ofNullable(settled.get(from))
                .orElseThrow(() ->
                        new RefusedException("from", String.valueOf(from), "must be a debt that this payment settles"));
        if (amount.isGreaterThan(of.amount())) {
            throw new RefusedException(
                    "amount", typed, "at most " + Amounts.grouped(of.amount()) + " of it settles that debt");
        }
        OpenDebt target = debts.open(payment.clientId(), currency).stream()
                .filter(d -> d.id() == to && d.open().isPositive())
                .findFirst()
                .orElseThrow(() -> new RefusedException(
                        "to", String.valueOf(to), "must be an open debt of the same client, in the same currency"));
        settling.move(payment.clientId(), paymentId, from, amount, to);
        keys.made(key, paymentId);
        telling.of(
                payment,
                Amounts.grouped(amount) + " of the payment of " + Texts.day(payment.valueOn()) + " moved from "
                        + of.debt().number() + " to " + target.number());
    }

    /**
     * A cheque came back: what it had settled is open again, with what the bank keeps for it, and the client is told.
     *
     * @throws ConflictException where the payment is no cheque, or went back already
     */
    @Transactional
    public void chequeCameBack(String key, long paymentId, String typedDay, String typedCost, String why) {
        List<Problem> problems = new ArrayList<>();
        Texts.key(key, "return", problems);
        Payment payment = payments.find(paymentId);
        CurrencyUnit currency = payment.amount().money().getCurrencyUnit();
        LocalDate on = PaidOn.read(typedDay, payment.valueOn(), clock.today(), problems);
        Money cost = typedCost == null || typedCost.isBlank()
                ? Money.zero(currency)
                : TypedNumber.amount("cost", typedCost, currency, problems);
        if (cost != null && cost.isNegative()) {
            problems.add(new Problem("cost", typedCost, "must not be below zero"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        String reason = Texts.reason("why", why);
        if (keys.take(key, List.of("returned", paymentId, on, cost, reason)).isPresent()) {
            return;
        }
        clients.lock(payment.clientId());
        payment = payments.find(paymentId);
        if (payment.means().way() != PaymentWay.CHEQUE) {
            throw new ConflictException("Only a cheque comes back like this; undo what was recorded wrongly.");
        }
        if (payment.undone() != null || !payment.left().isPositive()) {
            throw new ConflictException("Nothing of this payment is left that could come back.");
        }
        ProcessorMoney.Gone gone = money.wentBack(
                new ProcessorMoney.WentBack(paymentId, "returned-" + key, false, payment.left(), cost, on, reason));
        keys.made(key, gone.movementId());
        DocumentId about = gone.about();
        if (about != null) {
            letters.cameBack("payment-" + paymentId, paymentId, about, payment.left(), reason);
        }
    }
}
