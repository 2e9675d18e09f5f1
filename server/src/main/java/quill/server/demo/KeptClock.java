package quill.server.demo;

import java.time.Duration;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import quill.server.common.BusinessClock;

/** How far the demo's clock is ahead, table MOVED_CLOCK. */
@Component
class KeptClock {
    private final JdbcClient jdbc;
    private final BusinessClock clock;

    KeptClock(JdbcClient jdbc, BusinessClock clock) {
        this.jdbc = jdbc;
        this.clock = clock;
    }

    /** Puts the clock where it was left. @return whether it was moved ever */
    boolean resume() {
        Optional<Long> ahead = jdbc.sql("SELECT ahead_seconds FROM moved_clock WHERE id = 1")
                .query(Long.class)
                .optional();
        ahead.ifPresent(seconds -> clock.setAhead(Duration.ofSeconds(seconds)));
        return ahead.isPresent();
    }

    void keep(Duration ahead) {
        jdbc.sql("MERGE INTO moved_clock (id, ahead_seconds) KEY (id) VALUES (1, :ahead)")
                .param("ahead", ahead.toSeconds())
                .update();
    }
}
