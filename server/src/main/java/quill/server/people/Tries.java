package quill.server.people;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.time.Instant;
import org.springframework.stereotype.Component;
import quill.core.RefusedException;
import quill.server.common.Hashes;
import quill.server.common.SystemTime;

/**
 * Failed tries to sign in. Five are free; each further one waits longer, from half a minute to a quarter of an hour, and
 * then may be right: nobody is locked out for good. A try counts when it begins, so that many at once count as many.
 * What is remembered has a fixed size, and keys of a fixed length.
 */
@Component
class Tries {
    private static final int FREE = 5;
    private static final int FIRST_WAIT_SECONDS = 30;
    private static final int LONGEST_WAIT_SECONDS = 900;
    private static final int MOST_DOUBLINGS = 5;
    private static final int REMEMBERED = 10_000;

    private final Cache<String, Failures> failures = Caffeine.newBuilder()
            .maximumSize(REMEMBERED)
            .expireAfterWrite(Duration.ofHours(24))
            .build();
    private final SystemTime time;

    Tries(SystemTime time) {
        this.time = time;
    }

    private record Failures(int count, Instant last) {
        Instant nextAllowed() {
            if (count < FREE) {
                return Instant.EPOCH;
            }
            int wait = FIRST_WAIT_SECONDS << Math.min(count - FREE, MOST_DOUBLINGS);
            return last.plusSeconds(Math.min(wait, LONGEST_WAIT_SECONDS));
        }
    }

    /** Begins a try. @throws RefusedException while it has to wait */
    void begin(String who) {
        Instant now = time.now();
        failures.asMap().compute(Hashes.of(who), (k, before) -> {
            if (before == null) {
                return new Failures(1, now);
            }
            if (now.isBefore(before.nextAllowed())) {
                long seconds = Duration.between(now, before.nextAllowed()).toSeconds() + 1;
                throw new RefusedException(
                        "passphrase", "", "too many tries; wait " + seconds + " seconds and try again");
            }
            return new Failures(before.count() + 1, now);
        });
    }

    /** It was right: nothing is remembered of those before. */
    void succeeded(String who) {
        failures.invalidate(Hashes.of(who));
    }

    /** It was never made: the place for it was taken. */
    void notMade(String who) {
        failures.asMap()
                .computeIfPresent(
                        Hashes.of(who),
                        (k, before) -> before.count() <= 1 ? null : new Failures(before.count() - 1, before.last()));
    }
}
