package quill.server.common;

import java.time.Duration;
import java.time.Instant;
import org.springframework.stereotype.Component;

/** The system's own clock, for sessions, tries and rates: the demo's clock does not move it. */
@Component
public class SystemTime {
    private volatile Duration ahead = Duration.ZERO;

    /** Now. */
    public Instant now() {
        return Instant.now().plus(ahead);
    }

    /** For tests: as if so much time had gone by. */
    public void suppose(Duration later) {
        ahead = later;
    }
}
