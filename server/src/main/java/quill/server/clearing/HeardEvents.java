package quill.server.clearing;

import java.util.LinkedHashSet;
import java.util.Set;
import org.springframework.stereotype.Component;
import quill.server.processor.Processors;

/**
 * The latest events that were dealt with, so that one that is sent twice is not asked about twice. Not kept: one that comes again
 * later, or after a restart, is asked about once more and finds the same books.
 */
@Component
class HeardEvents {
    private static final int MOST = 10_000;
    private final Set<String> latest = new LinkedHashSet<>();

    synchronized boolean has(Processors.Heard event) {
        return latest.contains(number(event));
    }

    /** Only once all that it is about is read: an event that met trouble on its way is to be taken when it comes again. */
    synchronized void add(Processors.Heard event) {
        if (latest.add(number(event)) && latest.size() > MOST) {
            latest.remove(latest.iterator().next());
        }
    }

    /** An event's number is its processor's own. */
    private static String number(Processors.Heard event) {
        return event.processor() + ":" + event.event().id();
    }
}
