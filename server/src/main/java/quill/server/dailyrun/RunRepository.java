package quill.server.dailyrun;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.joda.money.Money;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.acts.ActKey;
import quill.core.acts.ActKind;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.Sums;
import quill.server.chasing.Result;
import quill.server.common.Amount;
import quill.server.common.ClientRows;
import quill.server.common.Rows;
import quill.server.common.StoredWord;
import quill.server.common.Texts;

/** Tables RUN_DAY and RUN_ACT. Holds no rules. */
@Repository
class RunRepository {
    private static final String SELECT = """
            SELECT id, run_on, act_key, kind, client_id, invoice_id, announced, done, what, outcome, reason
              FROM run_act
            """;

    private final JdbcClient jdbc;

    RunRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    record NewAct(
            LocalDate on,
            ActKey key,
            ActKind kind,
            ClientId client,
            DocumentId invoice,
            List<Money> sums,
            String what,
            boolean known) {}

    /** The latest day whose run is finished. */
    Optional<LocalDate> lastFinished() {
        return jdbc.sql("SELECT MAX(run_on) AS last FROM run_day WHERE finished_at IS NOT NULL")
                .query((rs, n) -> Optional.ofNullable(Rows.date(rs, "last")))
                .single();
    }

    boolean hasDay(LocalDate day) {
        return jdbc.sql("SELECT COUNT(*) FROM run_day WHERE run_on = :day")
                        .param("day", day)
                        .query(Long.class)
                        .single()
                > 0;
    }

    void beginDay(LocalDate day, Instant at) {
        jdbc.sql("MERGE INTO run_day (run_on, planned_at) KEY (run_on) VALUES (:day, :at)")
                .param("day", day)
                .param("at", at)
                .update();
    }

    void finishDay(LocalDate day, Instant at) {
        jdbc.sql("UPDATE run_day SET finished_at = :at WHERE run_on = :day")
                .param("at", at)
                .param("day", day)
                .update();
    }

    /** Adds an act to a day's list, once. */
    void plan(NewAct a) {
        jdbc.sql("""
                INSERT INTO run_act (run_on, act_key, kind, client_id, invoice_id, announced, what, outcome)
                SELECT :on, :key, :kind, :client, :invoice, :announced, :what, 'planned'
                 WHERE NOT EXISTS (SELECT 1 FROM run_act WHERE run_on = :on AND act_key = :key)
                """)
                .param("on", a.on())
                .param("key", a.key())
                .param("kind", a.kind().word())
                .param("client", a.client())
                .param("invoice", a.invoice())
                .param("announced", a.known() ? Sums.written(a.sums()) : "")
                .param("what", Texts.fit(a.what(), 1000))
                .update();
    }

    /** Those of a day that are still to be done, kind by kind in the order of the run, by client. */
    List<LoggedAct> planned(LocalDate day) {
        return jdbc
                .sql(SELECT + "WHERE run_on = :day AND outcome = 'planned' ORDER BY id")
                .param("day", day)
                .query(RunRepository::act)
                .list()
                .stream()
                .sorted(Comparator.comparing(
                                (LoggedAct a) -> ActKind.of(a.kind()).orElseThrow())
                        .thenComparing(LoggedAct::clientId)
                        .thenComparing(LoggedAct::id))
                .toList();
    }

    void end(long id, List<Money> done, Result outcome, String reason) {
        jdbc.sql("""
                UPDATE run_act
                   SET done = :done, outcome = :outcome, reason = :reason
                 WHERE id = :id
                """)
                .param("done", Sums.written(done))
                .param("outcome", outcome)
                .param("reason", Texts.fit(reason, 1000))
                .param("id", id)
                .update();
    }

    /** The log, newest first, from before an id. */
    List<LoggedAct> log(long before, int most) {
        return jdbc.sql(SELECT + "WHERE id < :before AND outcome <> 'planned' ORDER BY id DESC LIMIT :most")
                .param("before", before)
                .param("most", most)
                .query(RunRepository::act)
                .list();
    }

    List<LoggedAct> failed(LocalDate since) {
        return jdbc.sql(SELECT + "WHERE outcome = 'failed' AND run_on >= :since ORDER BY id")
                .param("since", since)
                .query(RunRepository::act)
                .list();
    }

    private static LoggedAct act(ResultSet rs, int row) throws SQLException {
        return new LoggedAct(
                rs.getLong("id"),
                Rows.date(rs, "run_on"),
                rs.getString("act_key"),
                rs.getString("kind"),
                new ClientId(rs.getLong("client_id")),
                new DocumentId(rs.getLong("invoice_id")),
                sums(rs.getString("announced")),
                sums(rs.getString("done")),
                rs.getString("what"),
                StoredWord.of(Result.class, rs.getString("outcome")).word(),
                rs.getString("reason"));
    }

    private static List<Amount> sums(String written) {
        return Sums.read(written).stream().map(Amount::of).toList();
    }

    @Bean
    ClientRows actsOfClients() {
        return ClientRows.of(jdbc, "run_act");
    }
}
