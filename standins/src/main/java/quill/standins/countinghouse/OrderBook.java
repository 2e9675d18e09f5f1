package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import quill.standins.Dials;

/** What the counting house holds: orders, attempts, events to send, and the dials that make it misbehave. */
@Repository
@Transactional
class OrderBook {
    private static final String COLUMNS = """
            SELECT id, our_key, amount, currency, description, return_to, payer_name, payer_email, test, state, payment_id, paid_on, fee,
                   card_last_four, card_expiry, awaits_code
              FROM card_order
            """;

    private static final int MINUTES_OPEN = 30;
    private final JdbcClient jdbc;
    private final Dials dials;

    OrderBook(JdbcClient jdbc) {
        this.jdbc = jdbc;
        this.dials = new Dials(jdbc, "dial");
    }

    /** An attempt to pay, for the counting house's own page. */
    record Attempt(String orderId, LocalDateTime madeAt, String lastFour, String outcome) {}

    /** An event, waiting or gone. */
    record Event(String id, String orderId, String kind, int copies, int tries, String state) {}

    /** The order of this key: made now, or found as it was made before. */
    CardOrder open(String key, BigDecimal amount, String currency, CardOrder.About about) {
        Optional<CardOrder> before = byKey(key);
        if (before.isPresent()) {
            return find(before.get().id()).orElseThrow();
        }
        String id = "order-" + UUID.randomUUID();
        try {
            insert(id, key, amount, currency, about);
        } catch (DuplicateKeyException e) {
            // Another call with this key was faster.
            return byKey(key).orElseThrow();
        }
        return find(id).orElseThrow();
    }

    private void insert(String id, String key, BigDecimal amount, String currency, CardOrder.About about) {
        jdbc.sql("""
                INSERT INTO card_order (id, our_key, amount, currency, description, return_to, payer_name, payer_email, test,
                  state, made_at)
                VALUES (:id, :key, :amount, :currency, :description, :returnTo, :name, :email, :test, 'open',
                  LOCALTIMESTAMP)
                """)
                .param("id", id)
                .param("key", key)
                .param("amount", amount)
                .param("currency", currency)
                .param("description", about.description())
                .param("returnTo", about.returnTo())
                .param("name", about.payerName())
                .param("email", about.payerEmail())
                .param("test", about.test())
                .update();
    }

    Optional<CardOrder> byKey(String key) {
        return jdbc.sql(COLUMNS + "WHERE our_key = :key")
                .param("key", key)
                .query(OrderBook::order)
                .optional();
    }

    /** By the counting house's own clock an order that nobody finishes ends after half an hour. */
    private void endOld(String id) {
        jdbc.sql("""
                UPDATE card_order SET state = 'withdrawn', awaits_code = FALSE
                 WHERE id = :id AND state = 'open' AND made_at < DATEADD('MINUTE', -:minutes, LOCALTIMESTAMP)
                """).param("id", id).param("minutes", MINUTES_OPEN).update();
    }

    Optional<CardOrder> find(String id) {
        endOld(id);
        return jdbc.sql(COLUMNS + "WHERE id = :id")
                .param("id", id)
                .query(OrderBook::order)
                .optional();
    }

    List<CardOrder> latest() {
        return jdbc.sql(COLUMNS + "ORDER BY made_at DESC, id LIMIT 60")
                .query(OrderBook::order)
                .list();
    }

    /** Withdraws an open order; a paid one stays paid. */
    CardOrder withdraw(String id) {
        jdbc.sql("UPDATE card_order SET state = 'withdrawn', awaits_code = FALSE WHERE id = :id AND state = 'open'")
                .param("id", id)
                .update();
        return find(id).orElseThrow();
    }

    /** Takes the money, if nobody was faster. @return whether this call took it */
    boolean pay(CardOrder order, String lastFour, String expiry) {
        int rows = jdbc.sql("""
                UPDATE card_order
                   SET state = 'paid', payment_id = :payment, paid_on = :today, fee = :fee, card_last_four = :lastFour,
                       card_expiry = :expiry, awaits_code = FALSE
                 WHERE id = :id AND state = 'open' AND made_at >= DATEADD('MINUTE', -:minutes, LOCALTIMESTAMP)
                """)
                .param("minutes", MINUTES_OPEN)
                .param("payment", "payment-" + UUID.randomUUID())
                .param("today", today())
                .param("fee", Fee.of(order.amount(), order.currency()))
                .param("lastFour", lastFour)
                .param("expiry", expiry)
                .param("id", order.id())
                .update();
        if (rows == 1) {
            attempt(order.id(), lastFour, "approved");
            addEvent(order.id(), "order.paid");
        }
        return rows == 1;
    }

    void decline(String id, String lastFour, String reason) {
        jdbc.sql("UPDATE card_order SET awaits_code = FALSE WHERE id = :id")
                .param("id", id)
                .update();
        attempt(id, lastFour, reason);
        addEvent(id, "order.declined");
    }

    void awaitCode(String id, String lastFour, String expiry) {
        jdbc.sql("""
                UPDATE card_order SET awaits_code = TRUE, card_last_four = :lastFour, card_expiry = :expiry
                 WHERE id = :id AND state = 'open'
                """)
                .param("lastFour", lastFour)
                .param("expiry", expiry)
                .param("id", id)
                .update();
    }

    private void attempt(String id, String lastFour, String outcome) {
        jdbc.sql("""
                INSERT INTO attempt (order_id, made_at, last_four, outcome)
                VALUES (:id, LOCALTIMESTAMP, :lastFour, :outcome)
                """)
                .param("id", id)
                .param("lastFour", lastFour)
                .param("outcome", outcome)
                .update();
    }

    List<Attempt> attempts(String orderId) {
        return jdbc.sql("""
                SELECT order_id, made_at, last_four, outcome FROM attempt WHERE order_id = :id ORDER BY id
                """)
                .param("id", orderId)
                .query((rs, n) -> new Attempt(
                        rs.getString(1), rs.getTimestamp(2).toLocalDateTime(), rs.getString(3), rs.getString(4)))
                .list();
    }

    private void addEvent(String orderId, String kind) {
        Map<String, Integer> turned = dials.all();
        jdbc.sql("""
                INSERT INTO event (id, order_id, kind, due_at, copies, state)
                VALUES (:id, :order, :kind, DATEADD('SECOND', :delay, LOCALTIMESTAMP), :copies, :state)
                """)
                .param("id", "event-" + UUID.randomUUID())
                .param("order", orderId)
                .param("kind", kind)
                .param("delay", turned.get("delay"))
                .param("copies", turned.get("double") > 0 ? 2 : 1)
                .param("state", turned.get("lose") > 0 ? "lost" : "waiting")
                .update();
    }

    List<Event> dueEvents() {
        return events("WHERE state = 'waiting' AND due_at <= LOCALTIMESTAMP ORDER BY due_at, id LIMIT 50");
    }

    List<Event> latestEvents() {
        return events("ORDER BY due_at DESC, id LIMIT 40");
    }

    private List<Event> events(String which) {
        return jdbc.sql("SELECT id, order_id, kind, copies, tries, state FROM event " + which)
                .query((rs, n) -> new Event(
                        rs.getString(1), rs.getString(2), rs.getString(3), rs.getInt(4), rs.getInt(5), rs.getString(6)))
                .list();
    }

    void delivered(String id) {
        jdbc.sql("UPDATE event SET state = 'delivered', tries = tries + 1 WHERE id = :id")
                .param("id", id)
                .update();
    }

    /** Tries again after 1, 2, 4 … seconds, ten times in all. */
    void notDelivered(Event event) {
        jdbc.sql("""
                UPDATE event
                   SET tries = tries + 1, due_at = DATEADD('SECOND', :wait, LOCALTIMESTAMP),
                       state = CASE WHEN tries >= 9 THEN 'given up' ELSE 'waiting' END
                 WHERE id = :id
                """)
                .param("wait", 1 << Math.min(event.tries(), 9))
                .param("id", event.id())
                .update();
    }

    Dials dials() {
        return dials;
    }

    LocalDate today() {
        return jdbc.sql("SELECT today FROM business_date")
                .query((rs, n) -> rs.getDate(1).toLocalDate())
                .optional()
                .orElseGet(LocalDate::now);
    }

    void setToday(LocalDate today) {
        jdbc.sql("DELETE FROM business_date").update();
        jdbc.sql("INSERT INTO business_date VALUES (:today)")
                .param("today", today)
                .update();
    }

    private static CardOrder order(ResultSet rs, int row) throws SQLException {
        return new CardOrder(
                rs.getString("id"),
                rs.getString("our_key"),
                rs.getBigDecimal("amount"),
                rs.getString("currency"),
                new CardOrder.About(
                        rs.getString("description"),
                        rs.getString("return_to"),
                        rs.getString("payer_name"),
                        rs.getString("payer_email"),
                        rs.getBoolean("test")),
                rs.getString("state"),
                rs.getString("payment_id"),
                rs.getDate("paid_on") == null ? null : rs.getDate("paid_on").toLocalDate(),
                rs.getBigDecimal("fee"),
                new CardOrder.Card(rs.getString("card_last_four"), rs.getString("card_expiry")),
                rs.getBoolean("awaits_code"));
    }
}
