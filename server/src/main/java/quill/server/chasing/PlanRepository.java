package quill.server.chasing;

import java.time.LocalDate;
import java.util.Optional;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.reminder.ReminderPlan.TypedPlan;
import quill.server.common.Json;
import quill.server.common.Rows;

/** Table REMINDER_PLAN. Holds no rules; the caller opens the transaction. */
@Repository
class PlanRepository {
    private final JdbcClient jdbc;
    private final Json json;

    PlanRepository(JdbcClient jdbc, Json json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /** The plan as stored. @param since steps that fell before this day lapse */
    record Stored(TypedPlan plan, LocalDate since, LocalDate allKeptUntil, int version) {}

    Optional<Stored> find() {
        return jdbc.sql("SELECT plan, since_on, all_kept_until, version FROM reminder_plan WHERE id = 1")
                .query((rs, n) -> new Stored(
                        json.read(rs.getString("plan"), TypedPlan.class),
                        Rows.date(rs, "since_on"),
                        Rows.date(rs, "all_kept_until"),
                        rs.getInt("version")))
                .optional();
    }

    /** @return whether there was none yet */
    boolean insert(TypedPlan plan, LocalDate since) {
        try {
            return jdbc.sql("INSERT INTO reminder_plan (id, plan, since_on) VALUES (1, :plan, :since)")
                            .param("plan", json.write(plan))
                            .param("since", since)
                            .update()
                    == 1;
        } catch (DuplicateKeyException e) {
            return false;
        }
    }

    int update(TypedPlan plan, LocalDate since, int version) {
        return jdbc.sql("""
                UPDATE reminder_plan SET plan = :plan, since_on = :since, version = version + 1
                 WHERE id = 1 AND version = :version
                """)
                .param("plan", json.write(plan))
                .param("since", since)
                .param("version", version)
                .update();
    }

    /** @param until null to keep nothing back */
    void keepAllBack(LocalDate until) {
        jdbc.sql("UPDATE reminder_plan SET all_kept_until = :until WHERE id = 1")
                .param("until", until)
                .update();
    }
}
