package quill.server.clearing;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.server.cardorders.OrderViews;
import quill.server.common.Amount;
import quill.server.common.StoredWord;

/** Table REFUND_ORDER. Holds no rules; the caller opens the transaction. */
@Repository
class RefundRepository {
    private static final String SELECT = """
            SELECT id, refund_key, at_processor, order_id, movement_id, currency, amount_minor, state, why
              FROM refund_order\s""";

    private final JdbcClient jdbc;

    RefundRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @param why it was refused, or did not arrive; empty where neither */
    record Refund(
            long id,
            String key,
            long processor,
            String orderId,
            long movementId,
            Money amount,
            RefundState state,
            String why) {}

    long insert(String key, OrderViews.There where, long movementId, Money amount, Instant now) {
        GeneratedKeyHolder id = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO refund_order (refund_key, at_processor, order_id, movement_id, currency, amount_minor, state, made_at)
                VALUES (:key, :processor, :order, :movement, :currency, :amount, :state, :now)
                """)
                .param("key", key)
                .param("processor", where.processor())
                .param("order", where.number())
                .param("movement", movementId)
                .param("currency", amount.getCurrencyUnit().getCode())
                .param("amount", amount)
                .param("state", RefundState.WANTED.word())
                .param("now", now)
                .update(id, "id");
        return id.getKey().longValue();
    }

    Optional<Refund> find(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id")
                .param("id", id)
                .query(RefundRepository::refund)
                .optional();
    }

    Optional<Refund> byKey(String key) {
        return jdbc.sql(SELECT + "WHERE refund_key = :key")
                .param("key", key)
                .query(RefundRepository::refund)
                .optional();
    }

    List<Refund> wanted() {
        return jdbc.sql(SELECT + "WHERE state = 'wanted' ORDER BY id LIMIT 200")
                .query(RefundRepository::refund)
                .list();
    }

    List<Refund> notArrived() {
        return jdbc.sql(SELECT + "WHERE state IN ('refused', 'failed') AND NOT noted ORDER BY id LIMIT 50")
                .query(RefundRepository::refund)
                .list();
    }

    List<Refund> ofPayment(Collection<Long> movements) {
        return movements.isEmpty()
                ? List.of()
                : jdbc.sql(SELECT + "WHERE movement_id IN (:ids) ORDER BY id")
                        .param("ids", movements)
                        .query(RefundRepository::refund)
                        .list();
    }

    void noted(long id) {
        jdbc.sql("UPDATE refund_order SET noted = TRUE WHERE id = :id")
                .param("id", id)
                .update();
    }

    /** @return rows changed: none where it was in another state */
    int move(long id, RefundState from, RefundState to, String why) {
        return jdbc.sql("UPDATE refund_order SET state = :to, why = :why WHERE id = :id AND state = :from")
                .param("to", to.word())
                .param("why", why)
                .param("id", id)
                .param("from", from.word())
                .update();
    }

    private static Refund refund(ResultSet rs, int row) throws SQLException {
        return new Refund(
                rs.getLong("id"),
                rs.getString("refund_key"),
                rs.getLong("at_processor"),
                rs.getString("order_id"),
                rs.getLong("movement_id"),
                Amount.ofMinor(rs.getString("currency"), rs.getLong("amount_minor"))
                        .money(),
                StoredWord.of(RefundState.class, rs.getString("state")),
                rs.getString("why"));
    }
}
