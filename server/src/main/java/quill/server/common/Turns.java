package quill.server.common;

import java.time.Duration;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;

/**
 * Turns at something that takes the machine a while: so many are at it at once, so many wait for theirs, none longer
 * than so long. Whoever comes when all places to wait are taken is sent away at once.
 */
public final class Turns {
    private final Semaphore working;
    private final Semaphore waiting;
    private final Duration patience;

    /** For so many at once, so many that wait, each at most so long. */
    public Turns(int atOnce, int mostWaiting, Duration patience) {
        this.working = new Semaphore(atOnce, true);
        this.waiting = new Semaphore(mostWaiting);
        this.patience = patience;
    }

    /**
     * Waits for a turn.
     *
     * @return whether it came; then it must be given back. False where too many wait, or it did not come in time
     */
    public boolean take() {
        if (!waiting.tryAcquire()) {
            return false;
        }
        try {
            return working.tryAcquire(patience.toMillis(), TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        } finally {
            waiting.release();
        }
    }

    /** Ends a turn that was taken. */
    public void giveBack() {
        working.release();
    }
}
