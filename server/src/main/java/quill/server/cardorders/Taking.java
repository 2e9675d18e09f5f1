package quill.server.cardorders;

import java.time.LocalDate;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.RefusedException;
import quill.core.ledger.OnTop;
import quill.core.pay.PaymentWay;
import quill.server.audit.Happenings;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.payments.Payment;
import quill.server.payments.PaymentsService;
import quill.server.processor.CardProcessor.Answer;

/** Takes in what the processor says of an order: money, a refusal, an end. */
@Component
class Taking {
    private final OrderRepository repository;
    private final PaymentsService payments;
    private final ClientsService clients;
    private final OrderTelling telling;
    private final TransactionTemplate transaction;
    private final BusinessClock clock;
    private final Afterwards afterwards;

    Taking(
            OrderRepository repository,
            PaymentsService payments,
            ClientsService clients,
            OrderTelling telling,
            TransactionTemplate transaction,
            BusinessClock clock,
            Afterwards afterwards) {
        this.repository = repository;
        this.payments = payments;
        this.clients = clients;
        this.telling = telling;
        this.transaction = transaction;
        this.clock = clock;
        this.afterwards = afterwards;
    }

    void take(long orderId, Answer answer) {
        transaction.executeWithoutResult(status -> {
            Order before = repository.find(orderId).orElseThrow();
            // The client first, then what is the client's: everybody locks in this order.
            String payer = before.clientId() == null
                    ? afterwards.nameOf(before.linkPayment())
                    : clients.lock(before.clientId()).name();
            // The client paid, or its card was declined: whoever asks the processor about it did neither.
            Happenings.asClient(payer, () -> {
                if (before.clientId() == null) {
                    lockNewClient(before, answer);
                }
                take(repository.lock(orderId).orElseThrow(), payer, answer);
            });
        });
    }

    private void take(Order order, String payer, Answer answer) {
        if (answer.wasPaid()) {
            // Told twice, by the event and by whoever asked meanwhile, it is booked once.
            if (order.state() != OrderState.PAID) {
                book(order, answer);
            }
            return;
        }
        repository.asked(order.id(), clock.instant());
        if ("withdrawn".equals(answer.state())) {
            repository.move(order.id(), OrderState.WITHDRAWN, OrderState.UNENDED);
        } else if (answer.isUnderway() || answer.isHeld()) {
            coming(order, answer);
        } else if (answer.isLetGo()) {
            letGo(order, answer);
        } else {
            if ("refused".equals(answer.state())) {
                repository.move(order.id(), OrderState.WITHDRAWN, OrderState.UNENDED);
            }
            answer.declined().filter(d -> !d.equals(order.declined())).ifPresent(reason -> {
                repository.declined(order.id(), reason);
                telling.declined(order, payer, answer, reason);
            });
        }
    }

    /** Whoever pays through a link becomes a client with the money, not before it. */
    private void lockNewClient(Order order, Answer answer) {
        boolean brings = answer.wasPaid() || answer.isUnderway() || answer.isHeld();
        if (brings && !answer.test()) {
            clients.lock(afterwards.becomes(order));
        }
    }

    /** A bank debit brings it, or it is held: nothing is booked before it is certain, and nobody is reminded of it meanwhile. */
    private void coming(Order order, Answer answer) {
        OrderState to = answer.isHeld() ? OrderState.HELD : OrderState.UNDERWAY;
        Set<OrderState> from = Set.of(OrderState.OPEN, OrderState.WITHDRAWING, OrderState.WANTED);
        if (repository.move(order.id(), to, from) == 1) {
            LocalDate until = answer.isHeld() ? answer.lapsesOn() : answer.certainOn();
            repository.coming(order.id(), answer.with().words(), until);
            afterwards.keep(order, answer);
            telling.coming(order, answer, until);
        }
    }

    private void letGo(Order order, Answer answer) {
        boolean lapsed = "lapsed".equals(answer.state());
        if (repository.move(order.id(), OrderState.WITHDRAWN, OrderState.UNENDED) == 1 && lapsed) {
            telling.lapsed(order);
        }
    }

    private void book(Order order, Answer answer) {
        if (answer.test() != order.at().test()) {
            throw new RefusedException(
                    "test",
                    String.valueOf(answer.test()),
                    order.at().test()
                            ? "the card processor says that it took real money for an order on trial"
                            : "the card processor says that it only tried an order for money");
        }
        repository.move(order.id(), OrderState.PAID, Set.of(order.state()));
        if (order.trouble().unbooked() != null) {
            repository.trouble(order.id(), null);
        }
        String card = answer.with().words();
        PaymentWay way = answer.with().by();
        if (answer.test()) {
            telling.tried(order, answer, way, card);
            return;
        }
        telling.paid(order, clients.client(order.clientId()).name(), answer, way);
        OnTop top = order.means().onTop();
        Payment payment = payments.bookProcessors(new PaymentsService.ByProcessor(
                order.key(),
                way,
                order.clientId(),
                order.invoiceId(),
                order.parts().keySet(),
                answer.money().minus(top.sum()),
                answer.feeMoney(),
                answer.paid().on(),
                card,
                answer.paid().payment(),
                repository.payerOf(order.id()),
                top));
        afterwards.keep(order, answer);
        afterwards.arrived(order, payment);
    }
}
