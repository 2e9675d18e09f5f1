package quill.server.clearing;

import java.util.EnumSet;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.BooleanSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import quill.server.audit.Happenings;
import quill.server.cardorders.CardOrders;
import quill.server.processor.CardProcessor;
import quill.server.processor.CardProcessor.Booked;
import quill.server.processor.Processors;

/**
 * Reads on in the accounts that processors keep for the business, and books each entry once, in their order. Events are only
 * hints to read on: one that is lost, doubled, late or out of order changes nothing.
 */
@Service
public class AccountReading {
    private static final Logger LOG = LoggerFactory.getLogger(AccountReading.class);
    /** What an order has to be asked about before its entry can be compared. */
    private static final Set<Booked> OF_ORDERS = EnumSet.of(Booked.TAKEN, Booked.REFUSED);

    private final EntryRepository repository;
    private final HookRepository hooks;
    private final EntryBooking booking;
    private final CardOrders orders;
    private final RefundOrders refunds;
    private final Disputes disputes;
    private final Processors processors;
    private final TransactionTemplate transaction;
    private final Map<Long, Turn> reading = new ConcurrentHashMap<>();

    /** One reads an account at a time. Whoever waited for a reading that began after its own event has nothing left to read. */
    private static final class Turn {
        private final ReentrantLock one = new ReentrantLock();
        private final AtomicLong heard = new AtomicLong();
        /** The last event that was heard before a reading that has ended began; guarded by the lock. */
        private long covered;
    }

    AccountReading(
            EntryRepository repository,
            HookRepository hooks,
            EntryBooking booking,
            CardOrders orders,
            RefundOrders refunds,
            Disputes disputes,
            Processors processors,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.hooks = hooks;
        this.booking = booking;
        this.orders = orders;
        this.refunds = refunds;
        this.disputes = disputes;
        this.processors = processors;
        this.transaction = transaction;
    }

    /** Asks about all that is not over, tells what is to be told, and reads every account to its end. */
    public void askAboutAll(BooleanSupplier stop) {
        orders.askAboutAll(stop);
        refunds.askForAll(stop);
        disputes.sendAll(stop);
        for (long processor : processors.ids()) {
            if (stop.getAsBoolean()) {
                return;
            }
            read(processor);
        }
    }

    /** An event arrived: what it is about is asked for. */
    void heard(Processors.Heard heard) {
        // An event's number is its processor's own.
        String number = heard.processor() + ":" + heard.event().id();
        if (!hooks.wasSeen(number)) {
            orders.hook(heard);
            readOn(heard.processor());
            // Noted last: if we stop before, the event comes again and finds the same books.
            transaction.executeWithoutResult(s -> hooks.seeHook(number));
        }
    }

    /** Reads on after an event. What a large answer left, and what is in trouble, waits for the next round. */
    private void readOn(long processor) {
        Turn turn = reading.computeIfAbsent(processor, p -> new Turn());
        long mine = turn.heard.incrementAndGet();
        turn.one.lock();
        try {
            if (turn.covered < mine) {
                long before = turn.heard.get();
                processors
                        .connect(processor, false)
                        .entries(repository.last(processor))
                        .forEach(e -> take(processor, e));
                turn.covered = before;
            }
        } catch (CardProcessor.NoAnswer e) {
            LOG.debug("the account at processor {} cannot be read on just now", processor, e);
        } finally {
            turn.one.unlock();
        }
    }

    /** Reads an account to its end; one that does not answer is read another time. */
    void read(long processor) {
        ReentrantLock one = reading.computeIfAbsent(processor, p -> new Turn()).one;
        one.lock();
        try {
            CardProcessor at = processors.connect(processor, false);
            for (EntryRepository.Kept kept : repository.troubled()) {
                if (kept.processor() == processor && kept.entry().kind() != Booked.PAID_OUT) {
                    again(kept);
                }
            }
            var next = at.entries(repository.last(processor));
            while (!next.isEmpty()) {
                next.forEach(e -> take(processor, e));
                next = at.entries(repository.last(processor));
            }
        } catch (CardProcessor.NoAnswer e) {
            LOG.debug("the account at processor {} cannot be read just now", processor, e);
        } finally {
            one.unlock();
        }
    }

    private void take(long processor, CardProcessor.Entry e) {
        try {
            book(processor, e, () -> repository.insert(processor, e, null));
        } catch (CardProcessor.NoAnswer ex) {
            throw ex;
        } catch (RuntimeException ex) {
            String why = CardOrders.reasonOf(ex);
            LOG.error("entry {} of processor {} could not be booked: {}", e.number(), processor, why);
            LOG.debug("the reason", ex);
            transaction.executeWithoutResult(s -> repository.insert(processor, e, why));
        }
    }

    /** @param first what is kept of it in the same transaction, before it is booked */
    private void book(long processor, CardProcessor.Entry e, Runnable first) {
        if (OF_ORDERS.contains(e.kind())) {
            takeIn(e);
        }
        Happenings.byItself(() -> transaction.execute(s -> {
            first.run();
            repository.booked(processor, e.number(), booking.book(processor, e));
            return null;
        }));
    }

    private void takeIn(CardProcessor.Entry e) {
        try {
            orders.takeIn(e.key());
        } catch (CardProcessor.NoAnswer ex) {
            throw ex;
        } catch (RuntimeException ex) {
            LOG.error("the order of entry {} could not be taken in", e.number(), ex);
        }
    }

    private void again(EntryRepository.Kept kept) {
        try {
            book(kept.processor(), kept.entry(), () -> {});
        } catch (CardProcessor.NoAnswer e) {
            throw e;
        } catch (RuntimeException e) {
            LOG.debug("entry {} still cannot be booked", kept.entry().number(), e);
        }
    }
}
