package quill.server.dailyrun;

import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Looks a few times a minute whether the business's hour has come. */
@Component
class RunTimer {
    private final DailyRun run;
    private volatile boolean ready;

    RunTimer(DailyRun run) {
        this.run = run;
    }

    /** Last of all that happens at the start: the demo has played its year by then. */
    @EventListener(ApplicationReadyEvent.class)
    @Order(100)
    void start() {
        ready = true;
    }

    @Scheduled(fixedDelayString = "${quill.run-every}")
    void look() {
        if (ready) {
            run.tick();
        }
    }
}
