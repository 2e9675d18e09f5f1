package quill.server.cardorders;

import java.time.LocalDate;
import java.util.Set;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.RefusedException;
import quill.core.money.Amounts;
import quill.core.pay.PaymentWay;
import quill.server.audit.Happenings;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.News;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.payments.PaymentsService;
import quill.server.payments.TestPayments;
import quill.server.processor.CardProcessor.Answer;

/** Takes in what the processor says of an order: money, a refusal, an end. */
@Component
class Taking {
    private final OrderRepository repository;
    private final PaymentsService payments;
    private final TestPayments tests;
    private final ClientsService clients;
    private final Happenings happenings;
    private final TransactionTemplate transaction;
    private final ApplicationEventPublisher publisher;
    private final BusinessClock clock;

    Taking(
            OrderRepository repository,
            PaymentsService payments,
            TestPayments tests,
            ClientsService clients,
            Happenings happenings,
            TransactionTemplate transaction,
            ApplicationEventPublisher publisher,
            BusinessClock clock) {
        this.repository = repository;
        this.payments = payments;
        this.tests = tests;
        this.clients = clients;
        this.happenings = happenings;
        this.transaction = transaction;
        this.publisher = publisher;
        this.clock = clock;
    }

    void take(long orderId, Answer answer) {
        // The client paid, or its card was declined: whoever asks the processor about it did neither.
        Client payer = clients.client(repository.find(orderId).orElseThrow().clientId());
        Happenings.asClient(
                payer.name(),
                () -> transaction.executeWithoutResult(status -> {
                    // The client first, then what is the client's: everybody locks in this order.
                    clients.lock(payer.id());
                    Order order = repository.lock(orderId).orElseThrow();
                    repository.asked(orderId, clock.instant());
                    if (answer.wasPaid()) {
                        // Told twice, by the event and by whoever asked meanwhile, it is booked once.
                        if (order.state() != OrderState.PAID) {
                            book(order, answer);
                        }
                    } else if ("withdrawn".equals(answer.state())) {
                        repository.move(orderId, OrderState.WITHDRAWN, OrderState.UNENDED);
                    } else if (answer.isUnderway() || answer.isHeld()) {
                        coming(order, answer);
                    } else if (answer.isLetGo()) {
                        letGo(order, answer);
                    } else {
                        if ("refused".equals(answer.state())) {
                            repository.move(orderId, OrderState.WITHDRAWN, OrderState.UNENDED);
                        }
                        answer.declined()
                                .filter(d -> !d.equals(order.declined()))
                                .ifPresent(reason -> {
                                    repository.declined(orderId, reason);
                                    declined(order, payer, answer, reason);
                                });
                    }
                }));
    }

    /** A bank debit brings it, or it is held: nothing is booked before it is certain, and nobody is reminded of it meanwhile. */
    private void coming(Order order, Answer answer) {
        boolean held = answer.isHeld();
        OrderState to = held ? OrderState.HELD : OrderState.UNDERWAY;
        Set<OrderState> from = Set.of(OrderState.OPEN, OrderState.WITHDRAWING, OrderState.WANTED);
        if (repository.move(order.id(), to, from) == 1) {
            LocalDate until = held ? answer.lapsesOn() : answer.certainOn();
            repository.coming(order.id(), answer.with().words(), until);
            happenings.tell(
                    order.invoiceId(),
                    order.clientId(),
                    (order.at().test() ? "On trial: " : "")
                            + Shown.money(answer.money())
                            + (held ? " held on a card until " : " begun by bank debit, certain on ")
                            + Texts.day(until));
        }
    }

    private void letGo(Order order, Answer answer) {
        boolean lapsed = "lapsed".equals(answer.state());
        if (repository.move(order.id(), OrderState.WITHDRAWN, OrderState.UNENDED) == 1 && lapsed) {
            happenings.tell(
                    order.invoiceId(),
                    order.clientId(),
                    "What was held lapsed, " + Amounts.grouped(order.amount()) + ": nothing was taken");
        }
    }

    private void declined(Order order, Client payer, Answer answer, String reason) {
        boolean debit = answer.with() != null && answer.with().isDebit() && "refused".equals(answer.state());
        String what = debit ? "bank debit" : "card";
        publisher.publishEvent(new News(
                News.Kind.DECLINED,
                (order.at().test() ? "On trial: a " : "A ") + what + " of " + payer.name() + " was "
                        + (debit ? "refused" : "declined") + " for " + Shown.money(order.amount()) + ": " + reason
                        + ".",
                Amount.of(order.amount()),
                order.clientId(),
                order.invoiceId()));
        happenings.tell(
                order.invoiceId(),
                order.clientId(),
                (debit ? "Bank debit refused" : "Card declined") + (order.at().test() ? " on trial: " : ": ") + reason
                        + " (" + Amounts.grouped(order.amount()) + ")");
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
        repository.trouble(order.id(), null);
        String card = answer.with().words();
        PaymentWay way = answer.with().isDebit() ? PaymentWay.BANK_DEBIT : PaymentWay.CARD;
        if (answer.test()) {
            tests.note(new TestPayments.TestPayment(
                    order.key(),
                    order.at().processor(),
                    order.clientId(),
                    order.invoiceId(),
                    Amount.of(answer.money()),
                    answer.paid().on(),
                    card));
            happenings.tell(
                    order.invoiceId(),
                    order.clientId(),
                    "Test payment of " + Shown.money(answer.money()) + " " + way.words()
                            + ": nothing was taken, nothing is settled");
            return;
        }
        publisher.publishEvent(new News(
                News.Kind.PAID,
                clients.client(order.clientId()).name() + " paid " + Shown.money(answer.money()) + " " + way.words()
                        + ".",
                Amount.of(answer.money()),
                order.clientId(),
                order.invoiceId()));
        payments.bookProcessors(new PaymentsService.ByProcessor(
                order.key(),
                way,
                order.clientId(),
                order.invoiceId(),
                order.parts().keySet(),
                answer.money(),
                answer.feeMoney(),
                answer.paid().on(),
                card,
                answer.paid().payment(),
                repository.payerOf(order.id())));
    }
}
