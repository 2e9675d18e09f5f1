package quill.server.common;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Predicate;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** Server-sent events: open pages hear that something changed, and ask again. No figure travels this way. */
@Component
public class LiveUpdates {
    private static final int MOST = 200;
    private static final long HOURS_4 = 4 * 3_600_000L;

    private final List<Listener> listeners = new CopyOnWriteArrayList<>();

    private record Listener(SseEmitter emitter, Predicate<Changes.Change> interest) {}

    /** A stream of the changes that this page cares for. The oldest stream ends where there are too many. */
    public SseEmitter open(Predicate<Changes.Change> interest) {
        SseEmitter emitter = new SseEmitter(HOURS_4);
        Listener listener = new Listener(emitter, interest);
        emitter.onCompletion(() -> listeners.remove(listener));
        emitter.onTimeout(emitter::complete);
        emitter.onError(e -> listeners.remove(listener));
        listeners.add(listener);
        if (listeners.size() > MOST) {
            Listener oldest = listeners.remove(0);
            oldest.emitter().complete();
        }
        send(listener, "ready");
        return emitter;
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT, fallbackExecution = true)
    void changed(Changes.Change change) {
        listeners.stream().filter(l -> l.interest().test(change)).forEach(l -> send(l, "changed"));
    }

    /** Keeps quiet lines open through proxies, and finds those whose page has gone. */
    @Scheduled(fixedDelay = 20_000)
    void beat() {
        listeners.forEach(l -> send(l, "beat"));
    }

    private void send(Listener listener, String name) {
        try {
            listener.emitter().send(SseEmitter.event().name(name).data("1"));
        } catch (IOException | IllegalStateException e) {
            listeners.remove(listener);
        }
    }
}
