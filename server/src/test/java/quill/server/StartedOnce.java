package quill.server;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Supplier;
import javax.sql.DataSource;
import org.springframework.context.ApplicationListener;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.event.ApplicationEventMulticaster;

/** An application in memory that tests use one after the other: whoever takes it finds its books and its memory as at its start. */
final class StartedOnce {
    private static final Map<Object, Deque<StartedOnce>> RESTING = new HashMap<>();

    final ConfigurableApplicationContext context;
    private final Object settings;
    private final BooksAtStart books;
    private final MemoryAtStart memory;
    private final Deque<ApplicationListener<?>> listeners = new ArrayDeque<>();

    private StartedOnce(Object settings, ConfigurableApplicationContext context) {
        this.settings = settings;
        this.context = context;
        this.books = new BooksAtStart(context.getBean(DataSource.class));
        this.memory = new MemoryAtStart(context);
    }

    /** @param settings all that it was started with, but for what is its own */
    static StartedOnce with(Object settings, Supplier<ConfigurableApplicationContext> start) {
        StartedOnce resting;
        synchronized (RESTING) {
            resting = RESTING.computeIfAbsent(settings, s -> new ArrayDeque<>()).pollFirst();
        }
        if (resting == null) {
            return new StartedOnce(settings, start.get());
        }
        resting.books.putBack();
        resting.memory.putBack();
        return resting;
    }

    void listen(ApplicationListener<?> listener) {
        context.addApplicationListener(listener);
        listeners.add(listener);
    }

    /** Free for the next. */
    void rest() {
        ApplicationEventMulticaster events = context.getBean(ApplicationEventMulticaster.class);
        listeners.forEach(events::removeApplicationListener);
        listeners.clear();
        synchronized (RESTING) {
            RESTING.get(settings).addFirst(this);
        }
    }
}
