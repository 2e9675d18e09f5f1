package quill.server.cardorders;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import org.joda.money.Money;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.OnTop;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.documents.Document;
import quill.server.payments.Payer;
import quill.server.processor.CardProcessor;
import quill.server.processor.CardProcessor.Answer;
import quill.server.processor.Processors;
import quill.server.savedmethods.SavedMethod;
import quill.server.savedmethods.SavedMethods;

/**
 * Orders at the card processor. A row is written first, under a key of ours; then the processor is asked. Its events
 * and our own poll only make us ask again: what it answers is booked once.
 */
@Service
public class CardOrders {
    private static final Logger LOG = LoggerFactory.getLogger(CardOrders.class);
    /** From then on an order is asked about before anybody is sent to it again. */
    private static final int MINUTES_FRESH = 25;

    private static final int BATCH = 100;
    private final OrderRepository repository;
    private final Processors processors;
    private final OrderPages pages;
    private final TransactionTemplate transaction;
    private final Wanting wanting;
    private final Taking taking;
    private final Holds holds;
    private final SavedMethods methods;
    private final OrderTurns turns = new OrderTurns();

    CardOrders(
            OrderRepository repository,
            Processors processors,
            OrderPages pages,
            TransactionTemplate transaction,
            Wanting wanting,
            Taking taking,
            Holds holds,
            SavedMethods methods) {
        this.methods = methods;
        this.holds = holds;
        this.repository = repository;
        this.processors = processors;
        this.pages = pages;
        this.transaction = transaction;
        this.wanting = wanting;
        this.taking = taking;
    }

    /**
     * An order for these installments of an invoice; the same one for everybody who asks for the same.
     *
     * @param installments none for another amount than theirs
     * @param shown the amount that the payer saw
     * @param payer whoever pays, where that is somebody else than the client
     * @return the address of the processor's pay page
     * @throws ConflictException if what is open is not what the payer saw
     */
    public String payAt(Document invoice, Set<Long> installments, Money shown, Payer payer) {
        return payAt(invoice, installments, shown, payer, wanting.asItsPage(invoice));
    }

    /** The same. @param how whether it is held, or what pays it is kept */
    public String payAt(Document invoice, Set<Long> installments, Money shown, Payer payer, HowPaid how) {
        Order order = transaction.execute(status -> wanted(invoice, installments, shown, payer, how));
        if (order.payAt() != null && repository.isOlder(order.id(), MINUTES_FRESH)) {
            settleQuietly(order);
            order = transaction.execute(status -> wanted(invoice, installments, shown, payer, how));
        }
        if (order.payAt() != null) {
            return order.payAt();
        }
        return opened(order, wanting.about(invoice, pages.of(order) + "?back=1"));
    }

    private String opened(Order order, CardProcessor.About about) {
        try {
            return open(order, about);
        } catch (CardProcessor.NoAnswer e) {
            LOG.warn("order {} has no answer yet: {}", order.id(), e.getMessage());
            throw new ConflictException("The card company does not answer just now. Nothing was taken; try again.");
        }
    }

    /** The same of what was begun on the page of a payment link. @param title what is paid */
    String payAt(Order order, String title) {
        Payer payer = repository.payerOf(order.id());
        return order.payAt() != null
                ? order.payAt()
                : opened(
                        order,
                        new CardProcessor.About(title, pages.of(order) + "?back=1", payer.name(), payer.email()));
    }

    /** Withdraws orders now. @throws ConflictException where one of them is being paid, or nobody answers */
    void withdrawNow(Collection<Long> ids) {
        transaction.executeWithoutResult(
                s -> ids.forEach(id -> repository.move(id, OrderState.WITHDRAWING, OrderState.LIVE)));
        for (long id : ids) {
            settleQuietly(repository.find(id).orElseThrow());
            if (repository.find(id).orElseThrow().state() != OrderState.WITHDRAWN) {
                throw new ConflictException(
                        "Somebody else began to pay this, and the card company does not say yet what came of it."
                                + " Nothing was taken; try again in a minute.");
            }
        }
    }

    /** The same, paid by the client itself. */
    public String payAt(Document invoice, Set<Long> installments, Money shown) {
        return payAt(invoice, installments, shown, Payer.NONE);
    }

    private Order wanted(Document invoice, Set<Long> installments, Money shown, Payer payer, HowPaid how) {
        Order order = wanting.order(invoice, installments, shown, how);
        repository.payer(order.id(), payer);
        return order;
    }

    private String open(Order order, CardProcessor.About about) {
        Answer answer = at(order).open(order.key(), order.amount(), about, wish(order));
        transaction.executeWithoutResult(s -> repository.opened(order.id(), answer.id(), answer.payAt()));
        return answer.payAt();
    }

    private CardProcessor.Wish wish(Order order) {
        Long from = order.means().from();
        return new CardProcessor.Wish(
                CardProcessor.Taking.of(order.means().takes()),
                order.means().holds(),
                order.means().keep() != null,
                from == null ? null : methods.find(from).token());
    }

    /** What came of taking something from what is kept. */
    public enum Taken {
        PAID,
        /** A bank debit brings it. */
        ON_ITS_WAY
    }

    /** What is kept was refused: nothing was taken, and asking again would not change it. */
    public static final class NotTaken extends ConflictException {
        private static final long serialVersionUID = 1;
        private final String why;

        NotTaken(String from, String why) {
            super(from + " was refused: " + why + ". Nothing was taken.");
            this.why = why;
        }

        /** In the processor's words. */
        public String why() {
            return why;
        }
    }

    /**
     * Takes these installments of an invoice from what is kept of its client; pressed twice, it is taken once. Whatever else could
     * still be paid of the invoice is withdrawn before.
     *
     * @param shown the sum that whoever asked for it saw, without what is on top
     * @param onTop a tip, and what is asked for paying by card; null for nothing
     * @throws NotTaken if it was refused
     * @throws ConflictException if what is open is not what was seen, if somebody is paying it just now, or where
     *     nobody answers: then it is asked for again by itself
     */
    public Taken takeFrom(Document invoice, Set<Long> installments, Money shown, SavedMethod from, OnTop onTop) {
        withdrawNow(repository.liveOf(invoice.id()).stream()
                .filter(o -> !Objects.equals(o.means().from(), from.id()))
                .map(Order::id)
                .toList());
        Order order =
                transaction.execute(s -> wanted(invoice, installments, shown, Payer.NONE, HowPaid.from(from, onTop)));
        if (order.orderId() == null) {
            opened(order, wanting.about(invoice, pages.of(order)));
            order = repository.find(order.id()).orElseThrow();
        }
        charge(order);
        Order after = repository.find(order.id()).orElseThrow();
        return switch (after.state()) {
            case PAID -> Taken.PAID;
            case UNDERWAY -> Taken.ON_ITS_WAY;
            default -> {
                if (after.declined() == null || after.declined().isEmpty()) {
                    throw new ConflictException("It was withdrawn meanwhile. Nothing was taken.");
                }
                throw new NotTaken(from.with().words(), after.declined());
            }
        };
    }

    private void charge(Order order) {
        try {
            taking.take(order.id(), at(order).charge(order.orderId()));
        } catch (CardProcessor.Refused e) {
            at(order).ask(order.orderId()).ifPresent(a -> taking.take(order.id(), a));
        } catch (CardProcessor.NoAnswer e) {
            LOG.warn("order {} was to be taken, and there is no answer yet: {}", order.id(), e.getMessage());
            throw new ConflictException(
                    "The card company does not say whether it was taken. It is asked again by itself: look again in a minute.");
        }
    }

    /** An event arrived: it is only a hint. @return whether it is about an order whose end was not known */
    public boolean hook(Processors.Heard heard) {
        Optional<Order> order = repository.find(heard.processor(), heard.event().order());
        order.ifPresent(o -> turns.inTurn(o.id(), waited -> settle(waited ? again(o) : o)));
        return order.filter(o -> OrderState.UNENDED.contains(o.state())).isPresent();
    }

    private Order again(Order order) {
        return repository.find(order.id()).orElseThrow();
    }

    private CardProcessor at(Order order) {
        return processors.connect(order.at().processor(), order.at().test());
    }

    /** What came of it, for somebody who comes back from paying. */
    public enum Outcome {
        /** No order was open, or it is paid: what came stands among the payments. */
        NOTHING_OPEN,
        /** The processor says that it was not paid. */
        NOT_PAID,
        /** The processor does not answer. */
        UNKNOWN
    }

    /** The payer came back from the pay page: ask about the invoice's orders now, without waiting for the event. */
    public Outcome payerIsBack(DocumentId invoiceId) {
        Outcome outcome = Outcome.NOTHING_OPEN;
        for (Order order : repository.liveOf(invoiceId)) {
            boolean answered = settleQuietly(order);
            boolean live = repository.liveOf(invoiceId).stream().anyMatch(o -> o.id() == order.id());
            if (!answered) {
                outcome = Outcome.UNKNOWN;
            } else if (live && outcome == Outcome.NOTHING_OPEN) {
                outcome = Outcome.NOT_PAID;
            }
        }
        // What was begun before, and left, says nothing of what was paid last.
        return outcome == Outcome.NOT_PAID && repository.broughtLast(invoiceId) ? Outcome.NOTHING_OPEN : outcome;
    }

    /** The latest refusal of a card on an invoice's live order, or empty. */
    public Optional<String> declinedOn(DocumentId invoiceId) {
        return repository.liveOf(invoiceId).stream()
                .map(Order::declined)
                .filter(d -> d != null && !d.isEmpty())
                .findFirst();
    }

    /** Finds what an event should have told, withdraws what is to be withdrawn, and opens what was left half done. */
    public void askAboutAll(BooleanSupplier stop) {
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

    /** @return whether the processor answered, and what it said could be booked */
    boolean settleQuietly(Order order) {
        try {
            settle(order);
            return true;
        } catch (CardProcessor.NoAnswer e) {
            LOG.debug("the processor does not answer about order {}", order.id(), e);
        } catch (RuntimeException e) {
            LOG.error("order {} could not be settled; it is asked about again", order.id(), e);
            repository.trouble(order.id(), reasonOf(e));
        }
        return false;
    }

    /** In words for a person: what the core refuses says it itself; nothing of the code is shown. */
    public static String reasonOf(RuntimeException e) {
        return e instanceof RefusedException || e instanceof ConflictException
                ? Texts.fit(e.getMessage(), 300)
                : "What the card processor says of it cannot be booked here.";
    }

    /** Money at the processor that could not be booked, with the reason. */
    public record Trouble(long orderId, DocumentId invoiceId, ClientId clientId, Money amount, String why) {}

    /** All of it. */
    public List<Trouble> troubles() {
        return repository.troubled().stream()
                .map(o -> new Trouble(
                        o.id(),
                        o.invoiceId(),
                        o.clientId(),
                        o.amount(),
                        o.trouble().unbooked()))
                .toList();
    }

    private void settle(Order order) {
        switch (order.state()) {
            case WANTED -> forget(order);
            case TAKING, RELEASING -> holds.settle(order);
            case OPEN -> ask(order);
            case UNDERWAY, HELD -> at(order).ask(order.orderId()).ifPresent(a -> taking.take(order.id(), a));
            case WITHDRAWING -> withdraw(order);
            default -> LOG.debug("order {} is {} already", order.id(), order.state());
        }
    }

    /** One that is taken from what is kept waits for nobody: left open, its taking was never heard, and is given up. */
    private void ask(Order order) {
        at(order).ask(order.orderId()).ifPresent(a -> {
            taking.take(order.id(), a);
            if (order.means().from() != null && "open".equals(a.state()) && !repository.isYoung(order.id())) {
                transaction.executeWithoutResult(
                        s -> repository.move(order.id(), OrderState.WITHDRAWING, OrderState.LIVE));
            }
        });
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
        String orderId = order.orderId();
        if (orderId == null) {
            Answer found = at(order)
                    .open(
                            order.key(),
                            order.amount(),
                            new CardProcessor.About("Withdrawn", pages.of(order), "", ""),
                            wish(order));
            transaction.executeWithoutResult(s -> repository.opened(order.id(), found.id(), found.payAt()));
            orderId = found.id();
        }
        taking.take(order.id(), at(order).withdraw(orderId));
    }

    /**
     * What the processor booked of an order is taken in, where it was not yet.
     *
     * @return the key of the order, under which its payment is booked; empty for one that is not ours
     */
    public Optional<String> takeIn(String key) {
        Optional<Order> order = repository.byKey(key);
        order.filter(o -> o.state() != OrderState.PAID)
                .ifPresent(o -> turns.inTurn(o.id(), waited -> takeIn(waited ? again(o) : o)));
        return order.map(Order::key);
    }

    private void takeIn(Order order) {
        // Whoever waited for its turn may find it paid.
        if (order.state() == OrderState.PAID) {
            return;
        }
        if (order.orderId() == null) {
            withdraw(order);
        } else {
            at(order).ask(order.orderId()).ifPresent(a -> taking.take(order.id(), a));
        }
    }
}
