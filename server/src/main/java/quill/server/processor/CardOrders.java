package quill.server.processor;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.client.RestClientException;
import quill.core.RefusedException;
import quill.core.money.Amounts;
import quill.server.QuillSettings;
import quill.server.audit.Happenings;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.debts.Debts.StoredInstallment;
import quill.server.invoices.Invoice;
import quill.server.links.Links;
import quill.server.payments.PaymentsService;
import quill.server.processor.OrderRepository.Order;
import quill.server.processor.ProcessorClient.Answer;

/**
 * Orders at the card processor. A row is written first, under a key of ours; then the processor is asked. Its events
 * and our own poll only make us ask again: what it answers is booked once.
 */
@Service
public class CardOrders {
    private static final Logger LOG = LoggerFactory.getLogger(CardOrders.class);
    /** As at the processor: an order that nobody finishes ends after half an hour. */
    private static final int MINUTES_TO_PAY = 30;
    /** From then on an order is asked about before anybody is sent to it again. */
    private static final int MINUTES_FRESH = 25;

    private static final int MOST_LIVE = 5;
    private static final int MOST_UNENDED = 15;
    private static final int BATCH = 100;
    private static final int MINUTES_TO_TELL = 60;
    private final OrderRepository repository;
    private final BusinessClock clock;
    private final ProcessorClient processor;
    private final PaymentsService payments;
    private final ClientsService clients;
    private final Debts debts;
    private final Happenings happenings;
    private final Changes changes;
    private final QuillSettings settings;
    private final Links links;
    private final TransactionTemplate transaction;

    CardOrders(
            OrderRepository repository,
            ProcessorClient processor,
            PaymentsService payments,
            ClientsService clients,
            Debts debts,
            Happenings happenings,
            Changes changes,
            QuillSettings settings,
            Links links,
            TransactionTemplate transaction,
            BusinessClock clock) {
        this.repository = repository;
        this.clock = clock;
        this.processor = processor;
        this.payments = payments;
        this.clients = clients;
        this.debts = debts;
        this.happenings = happenings;
        this.changes = changes;
        this.settings = settings;
        this.links = links;
        this.transaction = transaction;
    }

    /**
     * An order for these installments of an invoice; the same one for everybody who asks for the same.
     *
     * @param shown the amount that the payer saw
     * @return the address of the processor's pay page
     * @throws ConflictException if what is open is not what the payer saw
     */
    public String payAt(Invoice invoice, Set<Long> installments, Money shown) {
        if (!settings.processor().isSet()) {
            throw new RefusedException("way", "card", "cards are not taken here; pay by bank transfer");
        }
        Order order = transaction.execute(status -> want(invoice, installments, shown));
        if (order.payAt() != null && repository.isOlder(order.id(), MINUTES_FRESH)) {
            settleQuietly(order);
            order = transaction.execute(status -> want(invoice, installments, shown));
        }
        if (order.payAt() != null) {
            return order.payAt();
        }
        try {
            return open(order, invoice);
        } catch (RestClientException e) {
            LOG.warn("order {} has no answer yet: {}", order.id(), e.getMessage());
            throw new ConflictException("The card company does not answer just now. Nothing was taken; try again.");
        }
    }

    private Order want(Invoice invoice, Set<Long> installments, Money shown) {
        clients.lock(invoice.clientId());
        List<StoredInstallment> asked = debts.of(invoice.id()).stream()
                .filter(i -> installments.contains(i.id()) && i.open().isPositive())
                .toList();
        if (asked.isEmpty()) {
            throw new ConflictException("That is paid already. Nothing more was taken.");
        }
        Money open = Amounts.sum(
                shown.getCurrencyUnit(),
                asked.stream().map(StoredInstallment::open).toList());
        if (!open.isEqual(shown)) {
            throw new ConflictException("What is open has changed: it is " + Amounts.grouped(open) + " now, not "
                    + Amounts.grouped(shown) + ". Nothing was taken. Look again before you pay.");
        }
        Set<Long> ids = asked.stream().map(StoredInstallment::id).collect(Collectors.toSet());
        List<Order> live = repository.liveOf(invoice.id());
        for (Order one : live) {
            if (one.installments().equals(ids) && one.amount().isEqual(open)) {
                return one;
            }
        }
        makeRoom(invoice.id(), live);
        long id = repository.insert(
                "quill-" + UUID.randomUUID(), invoice.id(), invoice.clientId(), ids, open, clock.instant());
        return repository.find(id).orElseThrow();
    }

    /** At most five can be paid at once through one link: the oldest makes room, unless too many are on their way out. */
    private void makeRoom(long invoiceId, List<Order> latestFirst) {
        if (repository.countUnended(invoiceId) >= MOST_UNENDED) {
            throw new ConflictException(
                    "Too many payments were begun on this page. Nothing was taken; try again in some minutes.");
        }
        for (int i = MOST_LIVE - 1; i < latestFirst.size(); i++) {
            repository.move(latestFirst.get(i).id(), OrderState.WITHDRAWING, OrderState.LIVE);
        }
    }

    private String open(Order order, Invoice invoice) {
        Answer answer = processor.open(
                order.key(), order.amount(), "Invoice " + invoice.number(), links.pageOf(invoice.id()) + "?back=1");
        transaction.executeWithoutResult(s -> repository.opened(order.id(), answer.id(), answer.payAt()));
        return answer.payAt();
    }

    /** An event arrived: it is only a hint. @return whether it was new */
    public boolean hook(String hookId, String processorId) {
        Optional<Order> order = repository.byProcessorId(processorId);
        order.ifPresent(this::settle);
        // Seen is noted last: if we stop before, the event comes again and finds the same books.
        return Boolean.TRUE.equals(transaction.execute(s -> repository.seeHook(hookId)));
    }

    /** Whether an event of this id was dealt with before. */
    boolean wasSeen(String hookId) {
        return repository.wasSeen(hookId);
    }

    /** The payer came back from the pay page: ask about the invoice's orders now, without waiting for the event. */
    public void payerIsBack(long invoiceId) {
        repository.liveOf(invoiceId).forEach(this::settleQuietly);
    }

    /** The latest refusal of a card on an invoice's live order, or empty. */
    public Optional<String> declinedOn(long invoiceId) {
        return repository.liveOf(invoiceId).stream()
                .map(Order::declined)
                .filter(d -> d != null && !d.isEmpty())
                .findFirst();
    }

    /** Finds what an event should have told, withdraws what is to be withdrawn, and opens what was left half done. */
    public void askAboutAll(BooleanSupplier stop) {
        if (!settings.processor().isSet()) {
            return;
        }
        Instant began = Instant.now();
        List<Order> next;
        do {
            next = repository.unended(began, BATCH);
            for (Order order : next) {
                if (stop.getAsBoolean()) {
                    return;
                }
                repository.polled(order.id(), Instant.now());
                settleQuietly(order);
            }
        } while (!next.isEmpty());
    }

    private void settleQuietly(Order order) {
        try {
            settle(order);
        } catch (RestClientException e) {
            LOG.debug("the processor does not answer about order {}", order.id(), e);
        } catch (RuntimeException e) {
            LOG.error("order {} could not be settled; it is asked about again", order.id(), e);
            repository.trouble(order.id(), reasonOf(e));
        }
    }

    /** In words for a person: what the core refuses says it itself; nothing of the code is shown. */
    private static String reasonOf(RuntimeException e) {
        return e instanceof RefusedException || e instanceof ConflictException
                ? Texts.fit(e.getMessage(), 300)
                : "What the card processor says of it cannot be booked here.";
    }

    /** Money at the processor that could not be booked, with the reason. */
    public record Trouble(long orderId, long invoiceId, long clientId, Money amount, String why) {}

    /** All of it. */
    public List<Trouble> troubles() {
        return repository.troubled().stream()
                .map(o -> new Trouble(o.id(), o.invoiceId(), o.clientId(), o.amount(), o.trouble()))
                .toList();
    }

    private void settle(Order order) {
        switch (order.state()) {
            case WANTED -> forget(order);
            case OPEN -> processor.ask(order.processorId()).ifPresent(a -> take(order.id(), a));
            case WITHDRAWING -> withdraw(order);
            default -> LOG.debug("order {} is {} already", order.id(), order.state());
        }
    }

    /**
     * An order that nobody was sent to, since the answer was lost: the same key finds it at the processor, if it ever
     * arrived there, and it is withdrawn. A payer who asks again meanwhile opens it under the same key.
     */
    private void forget(Order order) {
        if (repository.isYoung(order.id())) {
            return;
        }
        transaction.executeWithoutResult(
                s -> repository.move(order.id(), OrderState.WITHDRAWING, Set.of(OrderState.WANTED)));
    }

    private void withdraw(Order order) {
        String processorId = order.processorId();
        if (processorId == null) {
            Answer found = processor.open(order.key(), order.amount(), "Withdrawn", settings.publicUrl());
            transaction.executeWithoutResult(s -> repository.opened(order.id(), found.id(), found.payAt()));
            processorId = found.id();
        }
        take(order.id(), processor.withdraw(processorId));
    }

    private void take(long orderId, Answer answer) {
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
                                    happenings.note(
                                            order.invoiceId(),
                                            order.clientId(),
                                            "Card declined: " + reason + " (" + Amounts.grouped(order.amount()) + ")");
                                    changes.say(order.invoiceId(), order.clientId());
                                });
                    }
                }));
    }

    private void book(Order order, Answer answer) {
        repository.move(order.id(), OrderState.PAID, Set.of(order.state()));
        repository.trouble(order.id(), null);
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

    /**
     * Debts for which card money may be on its way: the payer was sent to the pay page within the last half hour, or
     * the processor has not told us within the last hour that nothing was paid.
     */
    public Set<Long> inTransit(Collection<Long> clientIds) {
        if (clientIds.isEmpty()) {
            return Set.of();
        }
        Instant now = clock.instant();
        return repository
                .inTransit(
                        clientIds,
                        now.minus(MINUTES_TO_PAY, ChronoUnit.MINUTES),
                        now.minus(MINUTES_TO_TELL, ChronoUnit.MINUTES))
                .stream()
                .flatMap(o -> o.installments().stream())
                .collect(Collectors.toSet());
    }

    /** What is open on an invoice changed: an order for another sum must not be paid any more. */
    @EventListener
    void debtsChanged(Debts.DebtsChanged change) {
        for (Order live : repository.liveOf(change.invoiceId())) {
            Money open = Amounts.sum(
                    live.amount().getCurrencyUnit(),
                    debts.of(change.invoiceId()).stream()
                            .filter(i -> live.installments().contains(i.id()))
                            .map(StoredInstallment::open)
                            .toList());
            if (!open.isEqual(live.amount())) {
                repository.move(live.id(), OrderState.WITHDRAWING, OrderState.LIVE);
            }
        }
    }
}
