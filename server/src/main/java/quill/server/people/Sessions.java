package quill.server.people;

import jakarta.servlet.http.HttpSession;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import quill.server.common.LiveUpdates;
import quill.server.common.SystemTime;

/**
 * Who is signed in, from where, in which browser. A session ends after twelve hours without activity and after fourteen
 * days in all, and its event streams with it. OWASP ASVS 5, 7.3.1 and 7.3.2 ask for both limits; their sizes are ours.
 */
@Component
class Sessions {
    static final Duration IDLE = Duration.ofHours(12);
    static final Duration LONGEST = Duration.ofDays(14);
    private static final Duration PROOF = Duration.ofMinutes(5);
    private static final int MOST = 30;

    private final Map<String, Open> open = new ConcurrentHashMap<>();
    private final LiveUpdates live;
    private final SystemTime time;

    Sessions(LiveUpdates live, SystemTime time) {
        this.live = live;
        this.time = time;
    }

    /** A session as its owner sees it. @param own whether it is the one that asks */
    record SessionView(String key, Instant began, Instant active, String from, String browser, boolean own) {}

    private static final class Open {
        private final String key = UUID.randomUUID().toString();
        private final HttpSession session;
        private final Instant began;
        private final String from;
        private final String browser;
        private volatile Instant active;
        private volatile Instant proved = Instant.EPOCH;

        private Open(HttpSession session, Instant now, String from, String browser) {
            this.session = session;
            this.began = now;
            this.active = now;
            this.from = from;
            this.browser = browser;
        }
    }

    /** A person signed in. Beyond thirty sessions the one that rested longest ends. */
    void began(HttpSession session, String from, String browser) {
        of(session).ifPresent(before -> open.remove(before.key));
        Open now = new Open(session, time.now(), from, browser);
        open.put(now.key, now);
        session.setAttribute(LiveUpdates.OWNER, now.key);
        while (open.size() > MOST) {
            open.values().stream()
                    .filter(o -> o != now)
                    .min(Comparator.comparing(o -> o.active))
                    .ifPresent(this::end);
        }
    }

    /** Whether it still holds; one that does not is ended. @param activity whether a person did something */
    boolean holds(HttpSession session, boolean activity) {
        Open one = of(session).orElse(null);
        if (one == null) {
            return false;
        }
        Instant now = time.now();
        if (one.active.plus(IDLE).isBefore(now) || one.began.plus(LONGEST).isBefore(now)) {
            end(one);
            return false;
        }
        if (activity) {
            one.active = now;
        }
        return true;
    }

    List<SessionView> all(HttpSession own) {
        String key = of(own).map(o -> o.key).orElse("");
        Instant now = time.now();
        open.values().stream()
                .filter(o -> o.active.plus(IDLE).isBefore(now)
                        || o.began.plus(LONGEST).isBefore(now))
                .forEach(this::end);
        return open.values().stream()
                .sorted(Comparator.comparing((Open o) -> o.active).reversed().thenComparing(o -> o.key))
                .map(o -> new SessionView(o.key, o.began, o.active, o.from, o.browser, o.key.equals(key)))
                .toList();
    }

    /** Ends one. @return whether there was one of that key */
    boolean end(String key) {
        Open one = open.get(key);
        if (one != null) {
            end(one);
        }
        return one != null;
    }

    void end(HttpSession session) {
        of(session).ifPresent(this::end);
    }

    void endOthers(HttpSession own) {
        String key = of(own).map(o -> o.key).orElse("");
        open.values().stream().filter(o -> !o.key.equals(key)).forEach(this::end);
    }

    void proved(HttpSession session) {
        of(session).ifPresent(o -> o.proved = time.now());
    }

    /** Uses a proof up. @return whether there was one of the last minutes */
    boolean useProof(HttpSession session) {
        Open one = of(session).orElse(null);
        boolean good = one != null && one.proved.plus(PROOF).isAfter(time.now());
        if (one != null) {
            one.proved = Instant.EPOCH;
        }
        return good;
    }

    private Optional<Open> of(HttpSession session) {
        try {
            Object key = session == null ? null : session.getAttribute(LiveUpdates.OWNER);
            return key == null ? Optional.empty() : Optional.ofNullable(open.get((String) key));
        } catch (IllegalStateException e) {
            return Optional.empty(); // It was ended meanwhile.
        }
    }

    private void end(Open one) {
        open.remove(one.key);
        live.end(one.key);
        try {
            one.session.invalidate();
        } catch (IllegalStateException e) {
            // It had ended already.
        }
    }
}
