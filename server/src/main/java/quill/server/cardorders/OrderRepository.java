package quill.server.cardorders;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.annotation.Bean;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.ClientRows;
import quill.server.common.StoredWord;

/** Tables CARD_ORDER and HOOK_SEEN. Holds no rules; the caller opens the transaction. */
@Repository
class OrderRepository {
    private static final String SELECT = """
            SELECT id, order_key, invoice_id, client_id, installments, currency, amount_minor, state, at_processor,
                   test, order_id, pay_at, declined, trouble
              FROM card_order
            """;

    private final JdbcClient jdbc;

    OrderRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Where an order is. @param test whether no money moves */
    record At(long processor, boolean test) {}

    /** An order of ours. @param orderId as the processor calls it; null before it answered @param trouble why its money could not be booked, or null */
    record Order(
            long id,
            At at,
            String key,
            DocumentId invoiceId,
            ClientId clientId,
            Set<Long> installments,
            Money amount,
            OrderState state,
            String orderId,
            String payAt,
            String declined,
            String trouble) {}

    long insert(
            String key,
            At at,
            DocumentId invoiceId,
            ClientId clientId,
            Set<Long> installments,
            Money amount,
            Instant opened) {
        GeneratedKeyHolder id = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO card_order (order_key, invoice_id, client_id, installments, currency, amount_minor, state,
                  made_at, opened_at, at_processor, test)
                VALUES (:key, :invoice, :client, :installments, :currency, :amount, 'wanted', :now, :opened, :processor, :test)
                """)
                .param("key", key)
                .param("processor", at.processor())
                .param("test", at.test())
                .param("invoice", invoiceId)
                .param("client", clientId)
                .param(
                        "installments",
                        new TreeSet<>(installments)
                                .stream().map(String::valueOf).collect(Collectors.joining(",")))
                .param("currency", amount.getCurrencyUnit().getCode())
                .param("amount", amount)
                .param("now", Instant.now())
                .param("opened", opened)
                .update(id, "id");
        return id.getKey().longValue();
    }

    Optional<Order> find(long id) {
        return one("WHERE id = :key", id);
    }

    Optional<Order> lock(long id) {
        return one("WHERE id = :key FOR UPDATE", id);
    }

    /** By what the processor calls it. */
    Optional<Order> find(long processor, String orderId) {
        return jdbc.sql(SELECT + "WHERE at_processor = :processor AND order_id = :order")
                .param("processor", processor)
                .param("order", orderId)
                .query(OrderRepository::order)
                .optional();
    }

    /** Orders at a processor that can still be paid, as far as we know. */
    List<Order> liveAt(long processor) {
        return live("at_processor", processor);
    }

    private Optional<Order> one(String which, Object key) {
        return jdbc.sql(SELECT + which)
                .param("key", key)
                .query(OrderRepository::order)
                .optional();
    }

    /** Orders of an invoice that can still be paid, as far as we know. */
    List<Order> liveOf(DocumentId invoiceId) {
        return live("invoice_id", invoiceId);
    }

    /** Latest first. @param column one of ours, never what was typed */
    private List<Order> live(String column, Object of) {
        return jdbc.sql(SELECT + "WHERE " + column + " = :of AND state IN ('wanted', 'open') ORDER BY id DESC")
                .param("of", of)
                .query(OrderRepository::order)
                .list();
    }

    /** Orders whose end we do not know yet, whoever was asked about longest ago first; each once in a round. */
    List<Order> unended(Instant notSince, int most) {
        return jdbc.sql(SELECT + """
                WHERE state IN ('wanted', 'open', 'withdrawing') AND (polled_at IS NULL OR polled_at < :since)
                ORDER BY polled_at NULLS FIRST, id LIMIT :most
                """)
                .param("since", notSince)
                .param("most", most)
                .query(OrderRepository::order)
                .list();
    }

    /** How many orders of an invoice have no known end. */
    int countUnended(DocumentId invoiceId) {
        return jdbc.sql("""
                SELECT COUNT(*) FROM card_order
                 WHERE invoice_id = :invoice AND state IN ('wanted', 'open', 'withdrawing')
                """).param("invoice", invoiceId).query(Integer.class).single();
    }

    /** The processor is about to be asked, by the system's clock. */
    void polled(long id, Instant at) {
        jdbc.sql("UPDATE card_order SET polled_at = :at WHERE id = :id")
                .param("at", at)
                .param("id", id)
                .update();
    }

    /** Why what the processor says could not be booked; null once it is. */
    void trouble(long id, String why) {
        jdbc.sql("UPDATE card_order SET trouble = :why WHERE id = :id AND COALESCE(trouble, '') <> COALESCE(:why, '')")
                .param("why", why)
                .param("id", id)
                .update();
    }

    /** Orders with money that could not be booked. */
    List<Order> troubled() {
        return jdbc.sql(
                        SELECT
                                + "WHERE state IN ('wanted', 'open', 'withdrawing') AND trouble IS NOT NULL ORDER BY id LIMIT 50")
                .query(OrderRepository::order)
                .list();
    }

    /** Whether an order was made so many minutes ago or more, by the system's clock. */
    boolean isOlder(long id, int minutes) {
        return jdbc.sql("""
                        SELECT COUNT(*) FROM card_order
                         WHERE id = :id AND made_at <= DATEADD('MINUTE', -:minutes, CURRENT_TIMESTAMP)
                        """)
                        .param("id", id)
                        .param("minutes", minutes)
                        .query(Long.class)
                        .single()
                > 0;
    }

    void opened(long id, String orderId, String payAt) {
        jdbc.sql("""
                UPDATE card_order
                   SET order_id = :order, pay_at = :payAt,
                       state = CASE WHEN state = 'wanted' THEN 'open' ELSE state END
                 WHERE id = :id
                """)
                .param("order", orderId)
                .param("payAt", payAt)
                .param("id", id)
                .update();
    }

    /** The processor told how an order stands. */
    void asked(long id, Instant at) {
        jdbc.sql("UPDATE card_order SET asked_at = :at WHERE id = :id")
                .param("at", at)
                .param("id", id)
                .update();
    }

    /**
     * Orders of these clients that may be bringing money: opened since a moment, or not known to be unpaid since
     * another.
     */
    List<Order> inTransit(Collection<ClientId> clientIds, Instant openedSince, Instant askedSince) {
        return jdbc.sql(SELECT + """
                WHERE client_id IN (:clients) AND state IN ('wanted', 'open', 'withdrawing') AND NOT test
                  AND (opened_at > :opened OR asked_at IS NULL OR asked_at < :asked)
                """)
                .param("clients", clientIds)
                .param("opened", openedSince)
                .param("asked", askedSince)
                .query(OrderRepository::order)
                .list();
    }

    int move(long id, OrderState to, Set<OrderState> from) {
        return jdbc.sql("UPDATE card_order SET state = :to WHERE id = :id AND state IN (:from)")
                .param("to", to)
                .param("id", id)
                .param("from", from.stream().map(OrderState::word).toList())
                .update();
    }

    void declined(long id, String reason) {
        jdbc.sql("UPDATE card_order SET declined = :reason WHERE id = :id")
                .param("reason", reason)
                .param("id", id)
                .update();
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

    /** Whether an order was made less than a minute ago: somebody may be opening it just now. */
    boolean isYoung(long id) {
        return jdbc.sql("""
                        SELECT COUNT(*) FROM card_order
                         WHERE id = :id AND made_at > DATEADD('SECOND', -60, CURRENT_TIMESTAMP)
                        """).param("id", id).query(Long.class).single() > 0;
    }

    boolean wasSeen(String hookId) {
        return jdbc.sql("SELECT COUNT(*) FROM hook_seen WHERE id = :id")
                        .param("id", hookId)
                        .query(Long.class)
                        .single()
                > 0;
    }

    private static Order order(ResultSet rs, int row) throws SQLException {
        return new Order(
                rs.getLong("id"),
                new At(rs.getLong("at_processor"), rs.getBoolean("test")),
                rs.getString("order_key"),
                new DocumentId(rs.getLong("invoice_id")),
                new ClientId(rs.getLong("client_id")),
                Arrays.stream(rs.getString("installments").split(","))
                        .map(Long::valueOf)
                        .collect(Collectors.toSet()),
                Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("amount_minor")),
                StoredWord.of(OrderState.class, rs.getString("state")),
                rs.getString("order_id"),
                rs.getString("pay_at"),
                rs.getString("declined"),
                rs.getString("trouble"));
    }

    @Bean
    ClientRows ordersOfClients() {
        return ClientRows.of(jdbc, "card_order");
    }
}
