package quill.server.cardorders;

import java.time.Instant;
import java.util.List;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.server.cardorders.OrderRepository.Order;

/** Table PROCESSOR_ORDER: of which money is held, and what came of nothing. Holds no rules; the caller opens the transaction. */
@Repository
class HeldRepository {
    private final JdbcClient jdbc;

    HeldRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Orders of money that were begun since then and were not paid, newest first. */
    List<Order> unpaid(Instant since, int most) {
        return jdbc.sql(OrderRepository.SELECT + """
                WHERE state IN ('open', 'withdrawing', 'withdrawn') AND NOT test AND order_id IS NOT NULL AND opened_at >= :since
                ORDER BY id DESC LIMIT :most
                """)
                .param("since", since)
                .param("most", most)
                .query(OrderRows::order)
                .list();
    }

    /** What is held is to be taken. @return rows changed: none where it is held no more */
    int takeHeld(long id, Money amount) {
        return jdbc.sql("""
                UPDATE processor_order SET state = 'taking', captured_minor = :amount WHERE id = :id AND state = 'held'
                """).param("amount", amount).param("id", id).update();
    }

    /** How much of what is held is to be taken. */
    Money wantedOf(Order order) {
        return Money.ofMinor(
                order.amount().getCurrencyUnit(),
                jdbc.sql("SELECT captured_minor FROM processor_order WHERE id = :id")
                        .param("id", order.id())
                        .query(Long.class)
                        .single());
    }
}
