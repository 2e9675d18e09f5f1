package quill.server.common;

import jakarta.annotation.PostConstruct;
import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Reads back that the database writes each commit at once: without WRITE_DELAY=0 a kill loses what was answered. */
@Component
class DurabilityCheck {
    private final JdbcClient jdbc;

    DurabilityCheck(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @PostConstruct
    void check() {
        List<String> delays = jdbc.sql(
                        "SELECT setting_value FROM information_schema.settings WHERE setting_name = 'WRITE_DELAY'")
                .query(String.class)
                .list();
        if (delays.isEmpty() || !delays.stream().allMatch("0"::equals)) {
            throw new IllegalStateException("The database's WRITE_DELAY is " + delays
                    + ", must be 0: put WRITE_DELAY=0 into spring.datasource.url, or commits may be lost");
        }
    }
}
