package quill.server.chasing;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.context.annotation.Bean;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.id.Id;
import quill.core.reminder.ReminderPlan.TypedStep;
import quill.server.common.ClientRows;
import quill.server.common.Ids;
import quill.server.common.Json;
import quill.server.common.Rows;

/** Tables NAMED_PLAN, CLIENT_PLAN and DOCUMENT_PLAN. Holds no rules; the caller opens the transaction. */
@Repository
class NamedPlanRepository {
    private final JdbcClient jdbc;
    private final Json json;

    NamedPlanRepository(JdbcClient jdbc, Json json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /** A plan as stored. @param since steps that fell before this day lapse */
    record Named(long id, String name, List<TypedStep> steps, LocalDate since, int version) {}

    /** A choice as stored. @param plan null for none at all */
    record Chosen(Long plan, LocalDate since) {}

    List<Named> all() {
        return jdbc.sql("SELECT * FROM named_plan ORDER BY LOWER(name)")
                .query(this::named)
                .list();
    }

    Optional<Named> find(long id) {
        return jdbc.sql("SELECT * FROM named_plan WHERE id = :id")
                .param("id", id)
                .query(this::named)
                .optional();
    }

    private Named named(ResultSet rs, int row) throws SQLException {
        return new Named(
                rs.getLong("id"),
                rs.getString("name"),
                List.of(json.read(rs.getString("steps"), TypedStep[].class)),
                Rows.date(rs, "since_on"),
                rs.getInt("version"));
    }

    /** @return its id; empty where the name is taken */
    Optional<Long> insert(String name, List<TypedStep> steps, LocalDate since) {
        try {
            jdbc.sql("INSERT INTO named_plan (name, steps, since_on) VALUES (:name, :steps, :since)")
                    .param("name", name)
                    .param("steps", json.write(steps))
                    .param("since", since)
                    .update();
        } catch (DuplicateKeyException e) {
            return Optional.empty();
        }
        return jdbc.sql("SELECT id FROM named_plan WHERE name = :name")
                .param("name", name)
                .query(Long.class)
                .optional();
    }

    /** @return rows changed, 0 where another window was first; empty where the name is taken */
    Optional<Integer> update(Named plan) {
        try {
            return Optional.of(jdbc.sql("""
                    UPDATE named_plan SET name = :name, steps = :steps, since_on = :since, version = version + 1
                     WHERE id = :id AND version = :version
                    """)
                    .param("name", plan.name())
                    .param("steps", json.write(plan.steps()))
                    .param("since", plan.since())
                    .param("id", plan.id())
                    .param("version", plan.version())
                    .update());
        } catch (DuplicateKeyException e) {
            return Optional.empty();
        }
    }

    int delete(long id, int version) {
        return jdbc.sql("DELETE FROM named_plan WHERE id = :id AND version = :version")
                .param("id", id)
                .param("version", version)
                .update();
    }

    /** How many clients and documents use each plan. */
    Map<Long, Integer> uses() {
        Map<Long, Integer> uses = new HashMap<>();
        jdbc.sql("""
                SELECT plan_id, COUNT(*) how_many FROM (
                  SELECT plan_id FROM client_plan UNION ALL SELECT plan_id FROM document_plan) u
                 WHERE plan_id IS NOT NULL GROUP BY plan_id
                """).query(rs -> {
            uses.put(rs.getLong("plan_id"), rs.getInt("how_many"));
        });
        return uses;
    }

    void chooseForClient(ClientId client, PlanChoice choice, LocalDate since) {
        choose(
                "DELETE FROM client_plan WHERE client_id = :whose",
                "INSERT INTO client_plan (client_id, plan_id, since_on) VALUES (:whose, :plan, :since)",
                client,
                choice,
                since);
    }

    void chooseForDocument(DocumentId document, PlanChoice choice, LocalDate since) {
        choose(
                "DELETE FROM document_plan WHERE document_id = :whose",
                "INSERT INTO document_plan (document_id, plan_id, since_on) VALUES (:whose, :plan, :since)",
                document,
                choice,
                since);
    }

    private void choose(String forget, String note, Id<?> whose, PlanChoice choice, LocalDate since) {
        jdbc.sql(forget).param("whose", whose).update();
        if (choice.use() != PlanChoice.Use.USUAL) {
            jdbc.sql(note)
                    .param("whose", whose)
                    .param("plan", choice.plan())
                    .param("since", since)
                    .update();
        }
    }

    Map<ClientId, Chosen> ofClients(Collection<ClientId> clients) {
        Map<ClientId, Chosen> chosen = new HashMap<>();
        if (!clients.isEmpty()) {
            jdbc.sql("""
                    SELECT client_id, plan_id, since_on FROM client_plan
                      JOIN UNNEST(CAST(:clients AS BIGINT ARRAY)) AS given (one) ON one = client_id
                    """).param("clients", Ids.array(clients)).query(rs -> {
                chosen.put(new ClientId(rs.getLong("client_id")), chosen(rs));
            });
        }
        return chosen;
    }

    Map<DocumentId, Chosen> ofDocuments(Collection<DocumentId> documents) {
        Map<DocumentId, Chosen> chosen = new HashMap<>();
        if (!documents.isEmpty()) {
            jdbc.sql("""
                    SELECT document_id, plan_id, since_on FROM document_plan
                      JOIN UNNEST(CAST(:documents AS BIGINT ARRAY)) AS given (one) ON one = document_id
                    """).param("documents", Ids.array(documents)).query(rs -> {
                chosen.put(new DocumentId(rs.getLong("document_id")), chosen(rs));
            });
        }
        return chosen;
    }

    private static Chosen chosen(ResultSet rs) throws SQLException {
        return new Chosen(rs.getObject("plan_id", Long.class), Rows.date(rs, "since_on"));
    }

    /** The plan of the one that stays holds; only where it has none of its own, the other's. */
    @Bean
    ClientRows plansOfClients() {
        return ClientRows.single(jdbc, "client_plan");
    }
}
