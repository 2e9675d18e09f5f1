package quill.server.debts;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.DocumentId;
import quill.core.schedule.Due;
import quill.server.common.Ids;
import quill.server.common.Rows;

/** Table MILESTONE, and which debts wait for which. Holds no rules. */
@Repository
class MilestoneRepository {
    private final JdbcClient jdbc;

    MilestoneRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A named point of the work. @param reachedOn null until it is reached */
    record Row(long id, DocumentId documentId, String name, LocalDate reachedOn) {}

    /** A debt that waits for one, or waited. @param settled whether anything was ever paid or credited on it, or charged */
    record Waiting(long debtId, int days, boolean touched) {}

    /** The milestone that a debt agreed so waits for, made where a document has none of that name yet; else null. */
    DebtRepository.Awaited awaited(DocumentId documentId, Due due) {
        if (!(due instanceof Due.AtMilestone at)) {
            return null;
        }
        long id = of(documentId).stream()
                .filter(m -> m.name().equals(at.name()))
                .map(Row::id)
                .findFirst()
                .orElseGet(() -> insert(documentId, at.name()));
        return new DebtRepository.Awaited(id, at.days());
    }

    private long insert(DocumentId documentId, String name) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO milestone (document_id, name) VALUES (:document, :name)")
                .param("document", documentId)
                .param("name", name)
                .update(key, "id");
        return key.getKey().longValue();
    }

    /** A document's, in the order in which they were named. */
    List<Row> of(DocumentId documentId) {
        return jdbc.sql("""
                SELECT id, document_id, name, reached_on FROM milestone WHERE document_id = :document ORDER BY id
                """)
                .param("document", documentId)
                .query(MilestoneRepository::row)
                .list();
    }

    Optional<Row> find(long id) {
        return jdbc.sql("SELECT id, document_id, name, reached_on FROM milestone WHERE id = :id")
                .param("id", id)
                .query(MilestoneRepository::row)
                .optional();
    }

    private static Row row(ResultSet rs, int n) throws SQLException {
        return new Row(
                rs.getLong("id"), Ids.document(rs, "document_id"), rs.getString("name"), Rows.date(rs, "reached_on"));
    }

    /** Debts that wait for it, in their order. */
    List<Waiting> waiting(long milestoneId) {
        return jdbc.sql("""
                SELECT d.id, d.milestone_days,
                       EXISTS (SELECT 1 FROM settlement s WHERE s.debt_id = d.id)
                         OR EXISTS (SELECT 1 FROM debt f WHERE f.on_debt_id = d.id) AS touched
                  FROM debt d
                 WHERE d.milestone_id = :milestone AND d.replaced_on IS NULL
                 ORDER BY d.place
                """)
                .param("milestone", milestoneId)
                .query((rs, n) -> new Waiting(rs.getLong(1), rs.getInt(2), rs.getBoolean(3)))
                .list();
    }

    /** For what the debts of a document wait that have no day; those that have one are not in it. */
    Map<Long, Due> waitsOf(DocumentId documentId) {
        Map<Long, Due> waits = new HashMap<>();
        jdbc.sql("""
                SELECT d.id, m.name, d.milestone_days FROM debt d LEFT JOIN milestone m ON m.id = d.milestone_id
                 WHERE d.document_id = :document AND d.due_on IS NULL
                """).param("document", documentId).query(rs -> {
            String name = rs.getString("name");
            waits.put(
                    rs.getLong("id"),
                    name == null ? new Due.NoDateYet() : new Due.AtMilestone(name, rs.getInt("milestone_days")));
        });
        return waits;
    }

    /** @return whether it stood as the caller saw it */
    boolean reach(long id, LocalDate on) {
        return jdbc.sql("UPDATE milestone SET reached_on = :on WHERE id = :id AND reached_on IS NULL")
                        .param("on", on)
                        .param("id", id)
                        .update()
                == 1;
    }

    /** @return whether it stood as the caller saw it */
    boolean unreach(long id) {
        return jdbc.sql("UPDATE milestone SET reached_on = NULL WHERE id = :id AND reached_on IS NOT NULL")
                        .param("id", id)
                        .update()
                == 1;
    }

    /** None of a document's is reached any more: its debts are gone. */
    void forget(DocumentId documentId) {
        jdbc.sql("UPDATE milestone SET reached_on = NULL WHERE document_id = :document")
                .param("document", documentId)
                .update();
    }

    /** The next one of each document of which nothing with a day is open any more: the work goes on to it. */
    List<Row> next() {
        return jdbc.sql("""
                SELECT m.id, m.document_id, m.name, m.reached_on FROM milestone m
                  JOIN (SELECT d.document_id, MIN(d.milestone_id) AS next FROM debt d JOIN milestone w ON w.id = d.milestone_id
                         WHERE w.reached_on IS NULL AND d.owed_by > 0
                           AND NOT EXISTS (SELECT 1 FROM debt o WHERE o.document_id = d.document_id AND o.owed_by > 0
                                              AND o.due_on IS NOT NULL)
                         GROUP BY d.document_id) n ON n.next = m.id
                 ORDER BY m.id
                """).query(MilestoneRepository::row).list();
    }
}
