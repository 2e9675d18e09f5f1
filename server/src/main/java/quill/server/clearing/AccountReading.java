package quill.server.clearing;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
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
    private final HeardEvents heard;
    private final EntryBooking booking;
    private final CardOrders orders;
    private final RefundOrders refunds;
    private final Disputes disputes;
    private final Processors processors;
    private final TransactionTemplate transaction;
    private final Map<Long, Turn> reading = new ConcurrentHashMap<>();
    private final Set<Long> soon = ConcurrentHashMap.newKeySet();

    /** One reads an account at a time. Whoever waited for a reading that began after its own event has nothing left to read. */
    private static final class Turn {
        private final ReentrantLock one = new ReentrantLock();
        private final AtomicLong heard = new AtomicLong();
        /** The last event that was heard before a reading that has ended began; guarded by the lock. */
        private long covered;
    }

    AccountReading(
            EntryRepository repository,
            HeardEvents heard,
            EntryBooking booking,
            CardOrders orders,
            RefundOrders refunds,
            Disputes disputes,
            Processors processors,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.heard = heard;
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
    void heard(Processors.Heard event) {
        if (!heard.has(event)) {
            // What an order brought it says itself; its account only proves it, for many payments at once.
            if (orders.hook(event)) {
                soon.add(event.processor());
            } else {
                readOn(event.processor());
            }
            heard.add(event);
        }
    }

    /** Reads the accounts in which payments were booked since the last time. What is not read now is read with all the others. */
    public void readSoon(BooleanSupplier stop) {
        for (long processor : Set.copyOf(soon)) {
            if (!stop.getAsBoolean() && soon.remove(processor)) {
                try {
                    readOn(processor);
                } catch (CardProcessor.NoAnswer e) {
                    LOG.debug("the account at processor {} cannot be read just now", processor, e);
                }
            }
        }
    }

    /**
     * Reads on after an event. What a large answer left, and what is in trouble, waits for the next round.
     *
     * @throws CardProcessor.NoAnswer the event is not taken in then, and is to come again
     */
    private void readOn(long processor) {
        Turn turn = reading.computeIfAbsent(processor, p -> new Turn());
        long mine = turn.heard.incrementAndGet();
        turn.one.lock();
        try {
            if (turn.covered < mine) {
                long before = turn.heard.get();
                takeAll(processor, processors.connect(processor, false).entries(repository.last(processor)));
                turn.covered = before;
            }
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
                takeAll(processor, next);
                next = at.entries(repository.last(processor));
            }
        } catch (CardProcessor.NoAnswer e) {
            LOG.debug("the account at processor {} cannot be read just now", processor, e);
        } finally {
            one.unlock();
        }
    }

    /** Payments that follow each other are only compared: together, where none of them is in trouble. */
    private void takeAll(long processor, List<CardProcessor.Entry> entries) {
        List<CardProcessor.Entry> taken = new ArrayList<>();
        for (CardProcessor.Entry e : entries) {
            if (e.kind() == Booked.TAKEN) {
                taken.add(e);
            } else {
                takeTogether(processor, taken);
                taken.clear();
                take(processor, e);
            }
        }
        takeTogether(processor, taken);
    }

    private void takeTogether(long processor, List<CardProcessor.Entry> taken) {
        if (taken.size() > 1) {
            try {
                taken.forEach(this::takeIn);
                atOnce(() -> taken.forEach(e -> keep(processor, e)));
                return;
            } catch (CardProcessor.NoAnswer e) {
                throw e;
            } catch (RuntimeException e) {
                LOG.debug("of {} entries at least one is in trouble: each by itself", taken.size(), e);
            }
        }
        taken.forEach(e -> take(processor, e));
    }

    private void keep(long processor, CardProcessor.Entry e) {
        if (e.kind() == Booked.TAKEN) {
            repository.insert(processor, e, booking.book(processor, e), null);
        } else {
            repository.insert(processor, e, null, null);
            bookKept(processor, e);
        }
    }

    private void bookKept(long processor, CardProcessor.Entry e) {
        repository.booked(processor, e.number(), booking.book(processor, e));
    }

    private void take(long processor, CardProcessor.Entry e) {
        try {
            book(e, () -> keep(processor, e));
        } catch (CardProcessor.NoAnswer ex) {
            throw ex;
        } catch (RuntimeException ex) {
            String why = CardOrders.reasonOf(ex);
            LOG.error("entry {} of processor {} could not be booked: {}", e.number(), processor, why);
            LOG.debug("the reason", ex);
            transaction.executeWithoutResult(s -> repository.insert(processor, e, null, why));
        }
    }

    private void book(CardProcessor.Entry e, Runnable inTransaction) {
        if (OF_ORDERS.contains(e.kind())) {
            takeIn(e);
        }
        atOnce(inTransaction);
    }

    private void atOnce(Runnable inTransaction) {
        Happenings.byItself(() -> transaction.execute(s -> {
            inTransaction.run();
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
            book(kept.entry(), () -> bookKept(kept.processor(), kept.entry()));
        } catch (CardProcessor.NoAnswer e) {
            throw e;
        } catch (RuntimeException e) {
            LOG.debug("entry {} still cannot be booked", kept.entry().number(), e);
        }
    }
}
