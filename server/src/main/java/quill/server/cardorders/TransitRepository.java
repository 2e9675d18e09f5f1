package quill.server.cardorders;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.server.common.Ids;

/** Table PROCESSOR_ORDER: what may come of it. Holds no rules. */
@Repository
class TransitRepository {
    /** In which nobody knows whether anything comes. */
    private static final Set<String> LOOSE = Set.of("wanted", "open", "withdrawing");

    private final JdbcClient jdbc;

    TransitRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** An order of which no end is known: whether something brings it for certain, since when it is open, when the processor told of it, and what it would bring. */
    record Unended(boolean certain, Instant openedAt, Instant toldAt, Map<Long, Money> parts) {}

    /** All of these clients that are no trial. */
    List<Unended> unended(Collection<ClientId> clientIds) {
        String given =
                " JOIN UNNEST(CAST(:clients AS BIGINT ARRAY)) AS given (one) ON one = client_id WHERE NOT test AND ";
        return jdbc.sql(OrderRepository.SELECT + given + OrderRepository.UNENDED)
                .param("clients", Ids.array(clientIds))
                .query((rs, n) -> new Unended(
                        !LOOSE.contains(rs.getString("state")),
                        rs.getObject("opened_at", Instant.class),
                        rs.getObject("asked_at", Instant.class),
                        OrderRows.parts(rs)))
                .list();
    }
}
