package quill.server.running;

import com.zaxxer.hikari.HikariDataSource;
import java.time.Duration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import quill.server.common.Changes;

/**
 * Whether the books can be written: a row is written and read every ten seconds, by a task of its own. Whoever asks is
 * told what the last try came to; asking writes nothing.
 */
@Component
public class BooksHealth {
    static final Duration EVERY = Duration.ofSeconds(10);
    private static final Logger LOG = LoggerFactory.getLogger(BooksHealth.class);

    private final JdbcClient jdbc;
    private final HikariDataSource pool;
    private final DiskSpace disk;
    private final Changes changes;
    private volatile State state = State.UP;

    BooksHealth(JdbcClient jdbc, HikariDataSource pool, DiskSpace disk, Changes changes) {
        this.jdbc = jdbc;
        this.pool = pool;
        this.disk = disk;
        this.changes = changes;
    }

    /** How it stands. */
    public enum State {
        /** Reading and writing. */
        UP("up", ""),
        /** Reading only. */
        FULL("disk full", "The disk is nearly full. Nothing can be saved until there is room."),
        /** Neither. */
        DOWN("down", "The books cannot be written just now. Nothing is saved.");

        private final String word;
        private final String why;

        State(String word, String why) {
            this.word = word;
            this.why = why;
        }

        /** As it travels. */
        public String word() {
            return word;
        }

        /** A sentence for a person; empty where all is well. */
        public String why() {
            return why;
        }
    }

    /** What the last try came to, or that there is no room at this moment. */
    public State state() {
        return disk.isEnough() ? state : State.FULL;
    }

    /** Writes a row and reads it back. */
    void probe() {
        State before = state;
        State now = !disk.isEnough() ? State.FULL : canWrite() || reopened() ? State.UP : State.DOWN;
        state = now == State.FULL ? before : now;
        if (now != before) {
            changes.say(null, null);
        }
    }

    /** Leaves every connection that is open: the first new one opens a database that closed itself. */
    private boolean reopened() {
        pool.getHikariPoolMXBean().softEvictConnections();
        return canWrite();
    }

    private boolean canWrite() {
        try {
            long beat = System.nanoTime();
            jdbc.sql("MERGE INTO probe (id, beat) KEY (id) VALUES (1, :beat)")
                    .param("beat", beat)
                    .update();
            return jdbc.sql("SELECT beat FROM probe WHERE id = 1")
                            .query(Long.class)
                            .single()
                    == beat;
        } catch (RuntimeException e) {
            LOG.error("the books cannot be written", e);
            return false;
        }
    }
}
