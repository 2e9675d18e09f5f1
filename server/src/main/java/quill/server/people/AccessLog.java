package quill.server.people;

import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.server.common.SystemTime;
import quill.server.common.Texts;
import quill.server.running.DiskSpace;

/**
 * Table ACCESS_LOG: who signed in, who tried to, and what of importance was changed, by the system's clock in UTC.
 * Failures of one address within an hour are one row with a count; the latest five thousand rows are kept.
 */
@Repository
class AccessLog {
    private static final Logger LOG = LoggerFactory.getLogger(AccessLog.class);
    private static final int KEPT = 5000;
    private static final int SHOWN = 200;
    private static final Duration TOGETHER = Duration.ofHours(1);
    private final JdbcClient jdbc;
    private final SystemTime time;
    private final DiskSpace disk;

    AccessLog(JdbcClient jdbc, SystemTime time, DiskSpace disk) {
        this.jdbc = jdbc;
        this.time = time;
        this.disk = disk;
    }

    /** A row. @param times how often, where it is a failure */
    record AccessLine(long id, Instant at, String what, String who, String from, String browser, int times) {}

    /** Notes it, within the running transaction where there is one. With no room on the disk it is only logged. */
    void note(String what, String who, String from, String browser) {
        if (!disk.isEnough()) {
            LOG.info("{}: {} from {}; not noted, since the disk is nearly full", what, who, from);
            return;
        }
        long id = jdbc.sql("""
                SELECT NEXT VALUE FOR access_log_id
                """).query(Long.class).single();
        jdbc.sql("""
                INSERT INTO access_log (id, at, what, who, from_address, browser, times)
                VALUES (:id, :at, :what, :who, :from, :browser, 1)
                """)
                .param("id", id)
                .param("at", time.now().atOffset(ZoneOffset.UTC))
                .param("what", Texts.fit(what, 100))
                .param("who", Texts.fit(who, 200))
                .param("from", Texts.fit(from, 60))
                .param("browser", Texts.fit(browser, 200))
                .update();
        jdbc.sql("DELETE FROM access_log WHERE id <= :old")
                .param("old", id - KEPT)
                .update();
    }

    /** Notes a failure, or counts it to the one of this address within the last hour. */
    void failed(String who, String from, String browser) {
        if (!disk.isEnough()) {
            return;
        }
        int rows = jdbc.sql("""
                UPDATE access_log SET times = times + 1, at = :now
                 WHERE what = 'Sign-in failed' AND from_address = :from AND who = :who AND at > :since
                """)
                .param("now", time.now().atOffset(ZoneOffset.UTC))
                .param("from", Texts.fit(from, 60))
                .param("who", Texts.fit(who, 200))
                .param("since", time.now().minus(TOGETHER).atOffset(ZoneOffset.UTC))
                .update();
        if (rows == 0) {
            note("Sign-in failed", who, from, browser);
        }
    }

    /** The latest, newest first. */
    List<AccessLine> latest() {
        return jdbc.sql("""
                SELECT id, at, what, who, from_address, browser, times FROM access_log ORDER BY id DESC LIMIT :most
                """)
                .param("most", SHOWN)
                .query((rs, n) -> new AccessLine(
                        rs.getLong("id"),
                        rs.getObject("at", OffsetDateTime.class).toInstant(),
                        rs.getString("what"),
                        rs.getString("who"),
                        rs.getString("from_address"),
                        rs.getString("browser"),
                        rs.getInt("times")))
                .list();
    }
}
