package quill.server.common;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.concurrent.atomic.AtomicReference;
import org.springframework.stereotype.Component;

/**
 * The date and time of the business, in its zone. The demo can move it forward; sessions, signatures and rate limits
 * use the system's clock instead.
 */
@Component
public class BusinessClock extends Clock {
    private final AtomicReference<Duration> ahead = new AtomicReference<>(Duration.ZERO);
    private final AtomicReference<ZoneId> zone = new AtomicReference<>(ZoneId.systemDefault());

    @Override
    public ZoneId getZone() {
        return zone.get();
    }

    @Override
    public Clock withZone(ZoneId other) {
        return Clock.offset(Clock.system(other), ahead.get());
    }

    @Override
    public Instant instant() {
        return Instant.now().plus(ahead.get());
    }

    /** Today, where the business is. */
    public LocalDate today() {
        return LocalDate.now(this);
    }

    /** The business's zone, once it is known. */
    public void setZone(ZoneId newZone) {
        zone.set(newZone);
    }

    /** Demo only: so far ahead of the system's clock. */
    public void setAhead(Duration duration) {
        ahead.set(duration);
    }

    /** Demo only: moves to this date and hour. */
    public Duration moveTo(ZonedDateTime moment) {
        Duration duration = Duration.between(Instant.now(), moment.toInstant());
        ahead.set(duration);
        return duration;
    }
}
