package quill.server.running;

import java.time.Duration;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;

/**
 * Everything timed, each on a thread of its own, so that a slow mail server holds up nothing else. They start last of
 * all: the zone and the demo's clock are set by then.
 */
@Component
class Rounds {
    private static final Logger LOG = LoggerFactory.getLogger(Rounds.class);
    private static final Duration PATIENCE = Duration.ofSeconds(30);
    private final List<Round> rounds;
    private final DiskSpace disk;
    private final AtomicBoolean stopping = new AtomicBoolean();
    private final List<ScheduledExecutorService> threads = new java.util.concurrent.CopyOnWriteArrayList<>();

    Rounds(List<Round> rounds, BooksHealth health, DiskSpace disk) {
        this.rounds = new java.util.ArrayList<>(rounds);
        this.rounds.add(new Round("probe", BooksHealth.EVERY, false, over -> health.probe()));
        this.disk = disk;
    }

    @EventListener(ApplicationReadyEvent.class)
    @Order(100)
    void start() {
        for (Round round : rounds) {
            ScheduledExecutorService thread = Executors.newSingleThreadScheduledExecutor(named(round.name()));
            thread.scheduleWithFixedDelay(
                    () -> run(round), round.every().toMillis(), round.every().toMillis(), TimeUnit.MILLISECONDS);
            threads.add(thread);
        }
    }

    private void run(Round round) {
        if (round.writes() && !disk.isEnough()) {
            return;
        }
        try {
            round.work().run(Round.Deadline.in(Round.LONGEST).or(stopping::get));
        } catch (RuntimeException e) {
            LOG.error("a round of {} failed; the next one tries again", round.name(), e);
        }
    }

    /**
     * Tells each to leave the rest, and waits for what is under way: the books close after this. None is interrupted: a
     * letter that left would not be noted. A mail server that says nothing is given up by itself, after ten seconds.
     */
    @EventListener(ContextClosedEvent.class)
    void stop() throws InterruptedException {
        stopping.set(true);
        threads.forEach(ScheduledExecutorService::shutdown);
        Round.Deadline patience = Round.Deadline.in(PATIENCE);
        for (ScheduledExecutorService thread : threads) {
            thread.awaitTermination(patience.left(), TimeUnit.NANOSECONDS);
        }
    }

    private static ThreadFactory named(String name) {
        return work -> {
            Thread thread = new Thread(work, name);
            thread.setDaemon(true);
            return thread;
        };
    }
}
