package quill.server.common;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Server-sent events: open pages hear that something changed, and ask again. No figure travels this way. What changed is
 * gathered for a moment and sent by threads of its own, those for the business apart from those for clients: whoever
 * commits waits for no socket, and a client who reads nothing holds up nobody.
 */
@Component
public class LiveUpdates {
    /** The attribute of a session that says whose its streams are. */
    public static final String OWNER = "quill.session";

    private static final int MOST_OF_BUSINESS = 40;
    private static final int MOST_OF_CLIENTS = 150;
    private static final int MOST_OF_A_LINK = 4;
    private static final int GATHERED_MILLIS = 100;
    private static final int BEAT_SECONDS = 20;
    private static final long HOURS_4 = 4 * 3_600_000L;

    private final Group business = new Group("live-business");
    private final Group clients = new Group("live-clients");
    private final ScheduledExecutorService gathering =
            Executors.newSingleThreadScheduledExecutor(named("live-gathering"));
    private final List<Changes.Change> gathered = new ArrayList<>();

    LiveUpdates() {
        gathering.scheduleWithFixedDelay(this::tell, GATHERED_MILLIS, GATHERED_MILLIS, TimeUnit.MILLISECONDS);
        gathering.scheduleWithFixedDelay(this::beat, BEAT_SECONDS, BEAT_SECONDS, TimeUnit.SECONDS);
    }

    /** Whose stream it is: a session or a link; what is sent next, if it is not sent yet. */
    private record Listener(
            String owner, SseEmitter emitter, Predicate<Changes.Change> interest, AtomicReference<String> waiting) {}

    /** A stream of every change for a page of the business; the session's end ends it. */
    public SseEmitter openForBusiness(String session) {
        return business.open(session, MOST_OF_BUSINESS, MOST_OF_BUSINESS, change -> true);
    }

    /** A stream for a client's page. The oldest of the same link makes room, or else the oldest of any link. */
    public SseEmitter openForLink(String link, Predicate<Changes.Change> interest) {
        return clients.open(link, MOST_OF_A_LINK, MOST_OF_CLIENTS, interest);
    }

    /** Ends the streams of a session that has ended. */
    public void end(String session) {
        business.listeners.stream()
                .filter(l -> l.owner().equals(session))
                .forEach(l -> l.emitter().complete());
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT, fallbackExecution = true)
    void changed(Changes.Change change) {
        synchronized (gathered) {
            gathered.add(change);
        }
    }

    private void tell() {
        List<Changes.Change> all;
        synchronized (gathered) {
            all = List.copyOf(gathered);
            gathered.clear();
        }
        if (!all.isEmpty()) {
            business.send("changed", l -> all.stream().anyMatch(l.interest()));
            clients.send("changed", l -> all.stream().anyMatch(l.interest()));
        }
    }

    /** Keeps quiet lines open through proxies, and finds those whose page has gone. */
    private void beat() {
        business.send("beat", l -> true);
        clients.send("beat", l -> true);
    }

    @PreDestroy
    void stop() {
        gathering.shutdownNow();
        for (Group group : List.of(business, clients)) {
            group.sending.shutdownNow();
            group.listeners.forEach(l -> l.emitter().complete());
        }
    }

    private static ThreadFactory named(String name) {
        return work -> {
            Thread thread = new Thread(work, name);
            thread.setDaemon(true);
            return thread;
        };
    }

    private static final class Group {
        private final List<Listener> listeners = new CopyOnWriteArrayList<>();
        private final ExecutorService sending;

        private Group(String name) {
            sending = Executors.newFixedThreadPool(2, named(name));
        }

        private SseEmitter open(String owner, int mostOfOwner, int mostInAll, Predicate<Changes.Change> interest) {
            SseEmitter emitter = new SseEmitter(HOURS_4);
            Listener listener = new Listener(owner, emitter, interest, new AtomicReference<>());
            emitter.onCompletion(() -> listeners.remove(listener));
            emitter.onTimeout(emitter::complete);
            emitter.onError(e -> listeners.remove(listener));
            synchronized (this) {
                List<Listener> own =
                        listeners.stream().filter(l -> l.owner().equals(owner)).toList();
                if (own.size() >= mostOfOwner) {
                    end(own.get(0));
                } else if (listeners.size() >= mostInAll) {
                    end(listeners.get(0));
                }
                listeners.add(listener);
            }
            send(listener, "ready");
            return emitter;
        }

        private void end(Listener listener) {
            listeners.remove(listener);
            sending.execute(() -> listener.emitter().complete());
        }

        private void send(String name, Predicate<Listener> which) {
            listeners.stream().filter(which).forEach(l -> send(l, name));
        }

        /** At most one event of a listener waits: the later one says as much as both, and a change more than a beat. */
        private void send(Listener listener, String name) {
            String before = listener.waiting().getAndUpdate(w -> w == null || "beat".equals(w) ? name : w);
            if (before == null) {
                sending.execute(() -> write(listener));
            }
        }

        private void write(Listener listener) {
            try {
                String name = listener.waiting().getAndSet(null);
                listener.emitter().send(SseEmitter.event().name(name).data("1"));
            } catch (IOException | IllegalStateException e) {
                listeners.remove(listener);
            }
        }
    }
}
