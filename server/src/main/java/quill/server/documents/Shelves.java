package quill.server.documents;

import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.Ids;
import quill.server.common.Texts;

/**
 * Documents that ask for money, by when it is due: written, open or settled; a void one is settled. What is open of each
 * stands beside it by day, table DOCUMENT_DUE.
 */
@Repository
public class Shelves {
    private static final String FILTER = """
             AND (LOWER(client_name) LIKE :filter ESCAPE '!' OR LOWER(COALESCE(number, '')) LIKE :filter ESCAPE '!'
              OR LOWER(subject) LIKE :filter ESCAPE '!')
            """;

    private final JdbcClient jdbc;

    Shelves(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Drafts, latest first, from before an id. */
    public List<Document> drafts(String filter, long beforeId, int most) {
        return jdbc.sql(DocumentRepository.SELECT + " WHERE shelf = 'draft' AND id < :beforeId" + fits(filter)
                        + " ORDER BY id DESC LIMIT :most")
                .param("beforeId", beforeId)
                .param("filter", like(filter))
                .param("most", most)
                .query(DocumentRepository::document)
                .list();
    }

    /** Open ones whose next due date lies in a range, soonest first, from after a key. */
    public List<Document> open(String filter, LocalDate from, LocalDate to, LocalDate afterOn, long afterId, int most) {
        return jdbc.sql(DocumentRepository.SELECT
                        + " WHERE shelf = 'open' AND next_due_on BETWEEN :from AND :to"
                        + " AND (next_due_on > :afterOn OR (next_due_on = :afterOn AND id > :afterId))"
                        + fits(filter) + " ORDER BY shelf, next_due_on, id LIMIT :most")
                .param("from", from)
                .param("to", to)
                .param("afterOn", afterOn)
                .param("afterId", afterId)
                .param("filter", like(filter))
                .param("most", most)
                .query(DocumentRepository::document)
                .list();
    }

    /** Open ones of which nothing has a day yet, from after an id. */
    public List<Document> undated(String filter, long afterId, int most) {
        return jdbc.sql(DocumentRepository.SELECT
                        + " WHERE shelf = 'open' AND next_due_on IS NULL AND id > :afterId" + fits(filter)
                        + " ORDER BY id LIMIT :most")
                .param("afterId", afterId)
                .param("filter", like(filter))
                .param("most", most)
                .query(DocumentRepository::document)
                .list();
    }

    /** Settled ones, latest first, from before a key. */
    public List<Document> settled(String filter, LocalDate beforeOn, long beforeId, int most) {
        return jdbc.sql(DocumentRepository.SELECT
                        + " WHERE shelf = 'settled' AND (settled_on < :beforeOn OR (settled_on = :beforeOn AND id <"
                        + " :beforeId))" + fits(filter)
                        + " ORDER BY shelf, settled_on DESC, id DESC LIMIT :most")
                .param("beforeOn", beforeOn)
                .param("beforeId", beforeId)
                .param("filter", like(filter))
                .param("most", most)
                .query(DocumentRepository::document)
                .list();
    }

    /** Open ones of the latest that were not given to their client otherwise than by mail from here, latest first. */
    public List<DocumentId> latestOpenNotGiven() {
        return jdbc.sql("""
                SELECT id FROM document
                 WHERE id > (SELECT MAX(id) FROM document) - 2000 AND shelf = 'open' AND given_on IS NULL
                 ORDER BY id DESC
                """).query((rs, n) -> new DocumentId(rs.getLong(1))).list();
    }

    /** Open ones of some clients. */
    public List<Document> openOf(Collection<ClientId> clientIds) {
        return jdbc.sql(DocumentRepository.SELECT
                        + " WHERE client_id IN (:clients) AND shelf = 'open' ORDER BY next_due_on NULLS LAST, id")
                .param("clients", clientIds)
                .query(DocumentRepository::document)
                .list();
    }

    /** What some clients settled since a day, latest first. */
    public List<Document> settledOf(Collection<ClientId> clientIds, LocalDate since, int most) {
        // A join, since an IN list would read all that these clients ever settled.
        return jdbc.sql(DocumentRepository.SELECT + """
                  JOIN UNNEST(CAST(:clients AS BIGINT ARRAY)) AS c (of_client) ON client_id = c.of_client
                 WHERE shelf = 'settled' AND settled_on >= :since
                 ORDER BY settled_on DESC, id DESC LIMIT :most
                """)
                .param("clients", Ids.array(clientIds))
                .param("since", since)
                .param("most", most)
                .query(DocumentRepository::document)
                .list();
    }

    /** Clients who owe nothing and settled something since a day, latest first. */
    public List<ClientId> settledClients(LocalDate since) {
        return jdbc.sql("""
                SELECT v.client_id
                  FROM (SELECT client_id, MAX(settled_on) AS latest FROM document
                         WHERE shelf = 'settled' AND settled_on >= :since GROUP BY client_id) v
                 WHERE NOT EXISTS (SELECT 1 FROM document o WHERE o.client_id = v.client_id AND o.shelf = 'open')
                 ORDER BY v.latest DESC, v.client_id
                """)
                .param("since", since)
                .query((rs, n) -> new ClientId(rs.getLong("client_id")))
                .list();
    }

    /** All of one client, newest first. */
    public List<Document> ofClient(ClientId clientId) {
        return jdbc.sql(DocumentRepository.SELECT
                        + " WHERE client_id = :client AND shelf IS NOT NULL ORDER BY id DESC LIMIT 1000")
                .param("client", clientId)
                .query(DocumentRepository::document)
                .list();
    }

    /** When one was settled. */
    public LocalDate settledOn(DocumentId id) {
        return jdbc.sql("SELECT settled_on FROM document WHERE id = :id")
                .param("id", id)
                .query((rs, n) -> rs.getDate(1).toLocalDate())
                .single();
    }

    /** Keeps what is open of one by the days on which it is due (null for no date yet), and when it was settled. */
    public void owed(DocumentId id, Map<LocalDate, Long> openByDay, LocalDate today) {
        due(id, openByDay);
        long open = openByDay.values().stream().mapToLong(Long::longValue).sum();
        LocalDate nextDue = openByDay.keySet().stream()
                .filter(Objects::nonNull)
                .min(LocalDate::compareTo)
                .orElse(null);
        jdbc.sql("""
                UPDATE document
                   SET open_minor = :open, next_due_on = :nextDue,
                       state = CASE WHEN state = 'void' THEN state WHEN :open > 0 THEN 'open' ELSE 'settled' END,
                       settled_on = CASE WHEN :open > 0 THEN NULL ELSE :today END
                 WHERE id = :id AND state <> 'draft'
                """)
                .param("open", open)
                .param("nextDue", nextDue)
                .param("today", today)
                .param("id", id)
                .update();
    }

    /** Nothing is owed of it, since it is about to be a draft, or void. */
    public void owedNoMore(DocumentId id) {
        due(id, Map.of());
    }

    private void due(DocumentId id, Map<LocalDate, Long> openByDay) {
        jdbc.sql("DELETE FROM document_due WHERE document_id = :id")
                .param("id", id)
                .update();
        Map<LocalDate, Long> dated = new TreeMap<>();
        openByDay.forEach((day, open) -> {
            if (day != null) {
                dated.put(day, open);
            }
        });
        dated.forEach((day, open) -> jdbc.sql(
                        "INSERT INTO document_due (document_id, due_on, open_minor) VALUES (:id, :day, :open)")
                .param("id", id)
                .param("day", day)
                .param("open", open)
                .update());
    }

    /** A sum of one time and currency. @param when late, week, later, undated or draft */
    public record Sum(String when, String currency, int count, long minor) {}

    /** What the heads of the groups say, over all that fit the filter. */
    public List<Sum> sums(String filter, LocalDate today, LocalDate weekEnd) {
        String fits = fits(filter);
        // Of a late one what is late counts, of one that is due within the week what is due by then, else all of it.
        return jdbc.sql("""
                SELECT 'late', v.currency, COUNT(DISTINCT v.id), SUM(d.open_minor)
                  FROM document v JOIN document_due d ON d.document_id = v.id
                 WHERE v.shelf = 'open' AND v.next_due_on < :today AND d.due_on < :today
                """ + fits + """
                 GROUP BY v.currency
                UNION ALL
                SELECT 'week', v.currency, COUNT(DISTINCT v.id), SUM(d.open_minor)
                  FROM document v JOIN document_due d ON d.document_id = v.id
                 WHERE v.shelf = 'open' AND v.next_due_on BETWEEN :today AND :week
                   AND d.due_on <= :week
                """ + fits + """
                 GROUP BY v.currency
                UNION ALL
                SELECT 'later', v.currency, COUNT(*), SUM(v.open_minor) FROM document v
                 WHERE v.shelf = 'open' AND v.next_due_on > :week
                """ + fits + """
                 GROUP BY v.currency
                UNION ALL
                SELECT 'undated', v.currency, COUNT(*), SUM(v.open_minor) FROM document v
                 WHERE v.shelf = 'open' AND v.next_due_on IS NULL
                """ + fits + """
                 GROUP BY v.currency
                UNION ALL
                SELECT 'draft', v.currency, COUNT(*), SUM(COALESCE(v.total_minor, 0)) FROM document v
                 WHERE v.shelf = 'draft'
                """ + fits
                        + " GROUP BY v.currency ORDER BY 1, 2")
                .param("today", today)
                .param("week", weekEnd)
                .param("filter", like(filter))
                .query((rs, n) -> new Sum(rs.getString(1), rs.getString(2), rs.getInt(3), rs.getLong(4)))
                .list();
    }

    private static String fits(String filter) {
        return filter == null || filter.isBlank() ? "" : FILTER;
    }

    private static String like(String filter) {
        return filter == null ? "" : "%" + Texts.inLike(filter.strip().toLowerCase(Locale.ROOT)) + "%";
    }
}
