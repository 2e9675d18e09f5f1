package quill.server.processor;

import java.util.Set;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.money.Amounts;
import quill.server.audit.Happenings;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.News;
import quill.server.common.Shown;
import quill.server.payments.PaymentsService;
import quill.server.processor.CardProcessor.Answer;
import quill.server.processor.OrderRepository.Order;

/** Takes in what the processor says of an order: money, a refusal, an end. */
@Component
class Taking {
    private final OrderRepository repository;
    private final PaymentsService payments;
    private final ClientsService clients;
    private final Happenings happenings;
    private final TransactionTemplate transaction;
    private final ApplicationEventPublisher publisher;
    private final BusinessClock clock;

    Taking(
            OrderRepository repository,
            PaymentsService payments,
            ClientsService clients,
            Happenings happenings,
            TransactionTemplate transaction,
            ApplicationEventPublisher publisher,
            BusinessClock clock) {
        this.repository = repository;
        this.payments = payments;
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
                    if (answer.isPaid() && order.state() != OrderState.PAID) {
                        book(order, answer);
                    } else if ("withdrawn".equals(answer.state())) {
                        repository.move(orderId, OrderState.WITHDRAWN, OrderState.UNENDED);
                    } else {
                        answer.declined()
                                .filter(d -> !d.equals(order.declined()))
                                .ifPresent(reason -> {
                                    repository.declined(orderId, reason);
                                    publisher.publishEvent(new News(
                                            News.Kind.DECLINED,
                                            "A card of " + payer.name() + " was declined: " + reason + ".",
                                            Amount.of(order.amount()),
                                            order.clientId(),
                                            order.invoiceId()));
                                    happenings.tell(
                                            order.invoiceId(),
                                            order.clientId(),
                                            "Card declined: " + reason + " (" + Amounts.grouped(order.amount()) + ")");
                                });
                    }
                }));
    }

    private void book(Order order, Answer answer) {
        repository.move(order.id(), OrderState.PAID, Set.of(order.state()));
        repository.trouble(order.id(), null);
        publisher.publishEvent(new News(
                News.Kind.PAID,
                clients.client(order.clientId()).name() + " paid " + Shown.money(answer.money()) + " by card.",
                Amount.of(answer.money()),
                order.clientId(),
                order.invoiceId()));
        payments.bookCard(new PaymentsService.ByCard(
                order.key(),
                order.clientId(),
                order.invoiceId(),
                order.installments(),
                answer.money(),
                answer.feeMoney(),
                answer.paidOn(),
                answer.cardName() + " ending " + answer.lastFour(),
                answer.paymentId()));
    }
}
