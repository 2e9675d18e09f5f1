package quill.server.chasing;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.context.annotation.Bean;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.acts.ActKey;
import quill.core.acts.ActKind;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.ClientRows;
import quill.server.common.Ids;
import quill.server.common.PageKey;
import quill.server.common.Rows;
import quill.server.common.Texts;
import quill.server.debts.Debts;

/** Tables CLIENT_CHASING, MUTED_INVOICE, USED_STEP, LAST_LETTER and KEPT_BACK_ACT. Holds no rules; the caller opens transactions. */
@Repository
class ChasingRepository {
    /** Before every day: the client's books changed, and nobody has looked since. */
    private static final LocalDate AT_ONCE = LocalDate.of(2000, 1, 1);

    private final JdbcClient jdbc;

    ChasingRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A client's row. @param changeNo counts the changes of its books */
    record Row(ClientId clientId, LocalDate mutedUntil, LocalDate keptBackUntil, LocalDate remindedOn, long changeNo) {}

    /** An act that a person keeps back. */
    public record KeptBack(ActKey key, ClientId clientId, String what, String who, LocalDate on) {}

    void lookAt(ClientId clientId) {
        int rows = jdbc.sql("""
                UPDATE client_chasing SET look_on = :at, change_no = change_no + 1 WHERE client_id = :client
                """).param("at", AT_ONCE).param("client", clientId).update();
        if (rows == 0) {
            jdbc.sql("INSERT INTO client_chasing (client_id, look_on) VALUES (:client, :at)")
                    .param("client", clientId)
                    .param("at", AT_ONCE)
                    .update();
        }
    }

    void lookAtAll() {
        jdbc.sql("UPDATE client_chasing SET look_on = :at, change_no = change_no + 1")
                .param("at", AT_ONCE)
                .update();
    }

    /** Sets when to look again, unless the books changed since they were read. */
    void lookAgain(ClientId clientId, LocalDate on, long changeNo) {
        jdbc.sql("UPDATE client_chasing SET look_on = :on WHERE client_id = :client AND change_no = :changeNo")
                .param("on", on)
                .param("client", clientId)
                .param("changeNo", changeNo)
                .update();
    }

    /** Clients for whom anything may come up by a day, the soonest first, from after a key: the day, and the client. */
    List<PageKey> clientsToLookAt(LocalDate until, PageKey after, int most) {
        return jdbc.sql("""
                SELECT look_on, client_id FROM client_chasing
                 WHERE look_on <= :until AND (look_on > :afterOn OR (look_on = :afterOn AND client_id > :afterClient))
                 ORDER BY look_on, client_id LIMIT :most
                """)
                .param("until", until)
                .param("afterOn", after.on())
                .param("afterClient", after.id())
                .param("most", most)
                .query((rs, n) -> new PageKey(rs.getDate("look_on").toLocalDate(), rs.getLong("client_id")))
                .list();
    }

    /** Clients for whom anything may come up by a day. */
    List<ClientId> clientsToLookAt(LocalDate until) {
        return jdbc.sql("SELECT client_id FROM client_chasing WHERE look_on <= :until ORDER BY client_id")
                .param("until", until)
                .query((rs, n) -> new ClientId(rs.getLong(1)))
                .list();
    }

    /** Clients whose books changed, and whom nobody has looked at since. */
    List<ClientId> changedClients() {
        return clientsToLookAt(AT_ONCE);
    }

    Map<ClientId, Row> rows(Collection<ClientId> clientIds) {
        Map<ClientId, Row> rows = new HashMap<>();
        jdbc.sql("""
                SELECT client_id, muted_until, kept_back_until, reminded_on, change_no FROM client_chasing
                  JOIN UNNEST(CAST(:clients AS BIGINT ARRAY)) AS given (one) ON one = client_id
                """).param("clients", Ids.array(clientIds)).query(rs -> {
            rows.put(
                    new ClientId(rs.getLong("client_id")),
                    new Row(
                            new ClientId(rs.getLong("client_id")),
                            Rows.date(rs, "muted_until"),
                            Rows.date(rs, "kept_back_until"),
                            Rows.date(rs, "reminded_on"),
                            rs.getLong("change_no")));
        });
        return rows;
    }

    void mute(ClientId clientId, LocalDate until) {
        jdbc.sql("UPDATE client_chasing SET muted_until = :until WHERE client_id = :client")
                .param("until", until)
                .param("client", clientId)
                .update();
    }

    void keepBack(ClientId clientId, LocalDate until) {
        jdbc.sql("UPDATE client_chasing SET kept_back_until = :until WHERE client_id = :client")
                .param("until", until)
                .param("client", clientId)
                .update();
    }

    void reminded(ClientId clientId, LocalDate on) {
        jdbc.sql("UPDATE client_chasing SET reminded_on = :on WHERE client_id = :client")
                .param("on", on)
                .param("client", clientId)
                .update();
    }

    Map<DocumentId, LocalDate> mutedInvoices(Collection<DocumentId> invoiceIds) {
        Map<DocumentId, LocalDate> muted = new HashMap<>();
        jdbc.sql("""
                SELECT invoice_id, muted_until FROM muted_invoice
                  JOIN UNNEST(CAST(:invoices AS BIGINT ARRAY)) AS given (one) ON one = invoice_id
                """).param("invoices", Ids.array(invoiceIds)).query(rs -> {
            muted.put(new DocumentId(rs.getLong("invoice_id")), Rows.date(rs, "muted_until"));
        });
        return muted;
    }

    /** @param until null takes the mute away */
    void muteInvoice(DocumentId invoiceId, LocalDate until) {
        jdbc.sql("DELETE FROM muted_invoice WHERE invoice_id = :invoice")
                .param("invoice", invoiceId)
                .update();
        if (until != null) {
            jdbc.sql("INSERT INTO muted_invoice (invoice_id, muted_until) VALUES (:invoice, :until)")
                    .param("invoice", invoiceId)
                    .param("until", until)
                    .update();
        }
    }

    Map<Long, Integer> usedSteps(Collection<Long> debtIds) {
        Map<Long, Integer> used = new HashMap<>();
        jdbc.sql("""
                SELECT debt_id, used_through FROM used_step
                  JOIN UNNEST(CAST(:debts AS BIGINT ARRAY)) AS given (one) ON one = debt_id
                """).param("debts", Ids.array(debtIds)).query(rs -> {
            used.put(rs.getLong("debt_id"), rs.getInt("used_through"));
        });
        return used;
    }

    /** Which of these debts have used their steps up. */
    Set<Long> usedUp(int days, Collection<Long> debtIds) {
        return new HashSet<>(jdbc.sql("""
                        SELECT u.debt_id FROM UNNEST(CAST(:debts AS BIGINT ARRAY)) AS d (id)
                          JOIN used_step u ON u.debt_id = d.id AND u.used_through >= :days
                        """)
                .param("debts", Ids.array(debtIds))
                .param("days", days)
                .query(Long.class)
                .list());
    }

    void useStep(long debtId, int days) {
        int rows = jdbc.sql("UPDATE used_step SET used_through = :days WHERE debt_id = :debt")
                .param("days", days)
                .param("debt", debtId)
                .update();
        if (rows == 0) {
            jdbc.sql("INSERT INTO used_step (debt_id, used_through) VALUES (:debt, :days)")
                    .param("days", days)
                    .param("debt", debtId)
                    .update();
        }
    }

    /** A step that was used up by a letter that never left waits again. */
    void useStepAgain(long debtId, int days) {
        jdbc.sql("UPDATE used_step SET used_through = :before WHERE debt_id = :debt AND used_through = :days")
                .param("before", days - 1)
                .param("debt", debtId)
                .param("days", days)
                .update();
    }

    void notReminded(ClientId clientId, LocalDate on) {
        jdbc.sql("UPDATE client_chasing SET reminded_on = NULL WHERE client_id = :client AND reminded_on = :on")
                .param("client", clientId)
                .param("on", on)
                .update();
    }

    Map<ClientId, Set<ActKey>> keptBackKeys(Collection<ClientId> clientIds) {
        Map<ClientId, Set<ActKey>> keys = new HashMap<>();
        jdbc.sql("""
                SELECT client_id, act_key FROM kept_back_act
                  JOIN UNNEST(CAST(:clients AS BIGINT ARRAY)) AS given (one) ON one = client_id
                 WHERE passed_on IS NULL
                """).param("clients", Ids.array(clientIds)).query(rs -> {
            keys.computeIfAbsent(new ClientId(rs.getLong("client_id")), k -> new HashSet<>())
                    .add(key(rs));
        });
        return keys;
    }

    void keepBackAct(KeptBack kept) {
        jdbc.sql("""
                INSERT INTO kept_back_act (act_key, client_id, what, who, kept_on)
                VALUES (:key, :client, :what, :who, :on)
                """)
                .param("key", kept.key())
                .param("client", kept.clientId())
                .param("what", Texts.fit(kept.what(), 1000))
                .param("who", kept.who())
                .param("on", kept.on())
                .update();
    }

    int letActGo(ActKey key) {
        return jdbc.sql("DELETE FROM kept_back_act WHERE act_key = :key")
                .param("key", key)
                .update();
    }

    /** The day of a reminder that is kept back has come: it stays in sight, and its steps are used up. */
    void passed(ActKey key, LocalDate on, Map<Long, Integer> steps) {
        jdbc.sql("UPDATE kept_back_act SET passed_on = :on, steps = :steps WHERE act_key = :key")
                .param("on", on)
                .param(
                        "steps",
                        steps.entrySet().stream()
                                .limit(120)
                                .map(e -> e.getKey() + ":" + e.getValue())
                                .collect(Collectors.joining(" ")))
                .param("key", key)
                .update();
    }

    /** All that were kept back until their day had passed, latest first. */
    List<KeptReminder> passed(int most) {
        return jdbc.sql(PASSED + " WHERE passed_on IS NOT NULL ORDER BY passed_on DESC, act_key LIMIT :most")
                .param("most", most)
                .query(ChasingRepository::passed)
                .list();
    }

    Optional<KeptReminder> passed(ActKey key) {
        return jdbc.sql(PASSED + " WHERE passed_on IS NOT NULL AND act_key = :key")
                .param("key", key)
                .query(ChasingRepository::passed)
                .optional();
    }

    /** A later letter went, which says what is open: what was kept back before it is done with. */
    void forgetPassed(ClientId clientId) {
        jdbc.sql("DELETE FROM kept_back_act WHERE client_id = :client AND passed_on IS NOT NULL")
                .param("client", clientId)
                .update();
    }

    private static final String PASSED = "SELECT act_key, client_id, what, passed_on, steps FROM kept_back_act";

    private static ActKey key(ResultSet rs) throws SQLException {
        return ActKey.read(rs.getString("act_key")).orElseThrow();
    }

    private static KeptReminder passed(ResultSet rs, int row) throws SQLException {
        Map<Long, Integer> steps = new LinkedHashMap<>();
        for (String each : rs.getString("steps").split(" ")) {
            if (!each.isEmpty()) {
                String[] pair = each.split(":");
                steps.put(Long.valueOf(pair[0]), Integer.valueOf(pair[1]));
            }
        }
        return new KeptReminder(
                key(rs),
                new ClientId(rs.getLong("client_id")),
                rs.getString("what"),
                rs.getDate("passed_on").toLocalDate(),
                steps);
    }

    /** The steps used for installments that are about to go: their invoice is a draft again, or void. */
    @EventListener
    void debtsLeave(Debts.DebtsLeaving leaving) {
        forgetSteps(leaving.debtIds());
    }

    void forgetSteps(List<Long> debtIds) {
        jdbc.sql("DELETE FROM used_step WHERE debt_id IN (:debts)")
                .param("debts", debtIds.isEmpty() ? List.of(0L) : debtIds)
                .update();
    }

    /** Nobody is chased sooner or harder than before: what was muted or kept back for either stays so for both. */
    @Bean
    ClientRows chasingOfClients() {
        return (from, into, name) -> {
            lookAt(into);
            Map<ClientId, Row> rows = rows(List.of(from, into));
            join(rows.getOrDefault(from, rows.get(into)), rows.get(into));
            jdbc.sql("DELETE FROM client_chasing WHERE client_id = :from")
                    .param("from", from)
                    .update();
            jdbc.sql("""
                    DELETE FROM kept_back_act
                     WHERE client_id = :from AND REPLACE(act_key, :before, :after) IN (SELECT act_key FROM kept_back_act)
                       AND act_key LIKE :before || '%'
                    """)
                    .param("from", from)
                    .param("before", ActKey.beginning(ActKind.REMINDER, from.value()))
                    .param("after", ActKey.beginning(ActKind.REMINDER, into.value()))
                    .update();
            jdbc.sql("""
                    UPDATE kept_back_act SET client_id = :into, act_key = REPLACE(act_key, :before, :after)
                     WHERE client_id = :from
                    """)
                    .param("from", from)
                    .param("into", into)
                    .param("before", ActKey.beginning(ActKind.REMINDER, from.value()))
                    .param("after", ActKey.beginning(ActKind.REMINDER, into.value()))
                    .update();
        };
    }

    private void join(Row from, Row into) {
        jdbc.sql("""
                UPDATE client_chasing SET muted_until = :muted, kept_back_until = :keptBack, reminded_on = :reminded
                 WHERE client_id = :client
                """)
                .param("muted", later(from.mutedUntil(), into.mutedUntil()))
                .param("keptBack", later(from.keptBackUntil(), into.keptBackUntil()))
                .param("reminded", later(from.remindedOn(), into.remindedOn()))
                .param("client", into.clientId())
                .update();
    }

    private static LocalDate later(LocalDate a, LocalDate b) {
        return a == null || (b != null && b.isAfter(a)) ? b : a;
    }
}
