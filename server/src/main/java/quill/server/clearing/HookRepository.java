package quill.server.clearing;

import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Table HOOK_SEEN: events that were dealt with. */
@Repository
class HookRepository {
    private final JdbcClient jdbc;

    HookRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @return whether this event is seen for the first time */
    boolean seeHook(String hookId) {
        try {
            jdbc.sql("INSERT INTO hook_seen (id, seen_at) VALUES (:id, CURRENT_TIMESTAMP)")
                    .param("id", hookId)
                    .update();
            return true;
        } catch (DuplicateKeyException e) {
            return false;
        }
    }

    boolean wasSeen(String hookId) {
        return jdbc.sql("SELECT COUNT(*) FROM hook_seen WHERE id = :id")
                        .param("id", hookId)
                        .query(Long.class)
                        .single()
                > 0;
    }
}
