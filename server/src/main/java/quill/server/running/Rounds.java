package quill.server.running;

import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.TimeUnit;
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
    private final List<Round> rounds;
    private final DiskSpace disk;
    private final List<ScheduledExecutorService> threads = new java.util.concurrent.CopyOnWriteArrayList<>();

    Rounds(List<Round> rounds, BooksHealth health, DiskSpace disk) {
        this.rounds = new java.util.ArrayList<>(rounds);
        this.rounds.add(new Round("probe", BooksHealth.EVERY, false, deadline -> health.probe()));
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
            round.work().run(Round.Deadline.in(Round.LONGEST));
        } catch (RuntimeException e) {
            LOG.error("a round of {} failed; the next one tries again", round.name(), e);
        }
    }

    @EventListener(ContextClosedEvent.class)
    void stop() throws InterruptedException {
        threads.forEach(ScheduledExecutorService::shutdown);
        for (ScheduledExecutorService thread : threads) {
            if (!thread.awaitTermination(3, TimeUnit.SECONDS)) {
                thread.shutdownNow();
            }
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
