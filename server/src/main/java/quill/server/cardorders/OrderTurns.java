package quill.server.cardorders;

import java.util.concurrent.locks.ReentrantLock;
import java.util.stream.Stream;

/**
 * One asks about an order at a time. Its event and the processor's account tell of the same payment at the same moment:
 * whoever comes second waits until the first has booked it, and has nothing left to ask. The row's lock decides; this only
 * saves asking twice.
 */
final class OrderTurns {
    private static final int AT_ONCE = 64;
    private final ReentrantLock[] locks =
            Stream.generate(ReentrantLock::new).limit(AT_ONCE).toArray(ReentrantLock[]::new);

    /** What is done in turn. */
    interface Asking {
        /** @param waited whether somebody else asked meanwhile: what was read before may have changed */
        void ask(boolean waited);
    }

    void inTurn(long orderId, Asking asking) {
        ReentrantLock mine = locks[Math.floorMod(orderId, AT_ONCE)];
        boolean waited = !mine.tryLock();
        if (waited) {
            mine.lock();
        }
        try {
            asking.ask(waited);
        } finally {
            mine.unlock();
        }
    }
}
