package quill.server.cardorders;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.server.cardorders.OrderRepository.Order;
import quill.server.common.Ids;

/** Table PROCESSOR_ORDER, as payment links need it. Holds no rules; the caller opens the transaction. */
@Repository
class LinkOrderRepository {
    private final JdbcClient jdbc;

    LinkOrderRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Whoever pays through a link is known now. */
    void paidBy(long id, ClientId client) {
        jdbc.sql("UPDATE processor_order SET client_id = :client WHERE id = :id")
                .param("client", client)
                .param("id", id)
                .update();
    }

    /** All orders of what was begun on pages of links, latest first. */
    List<Order> of(Collection<Long> linkPayments) {
        return jdbc.sql(OrderRepository.SELECT + """
                  JOIN UNNEST(CAST(:begun AS BIGINT ARRAY)) AS given (one) ON one = link_payment_id
                 ORDER BY id DESC
                """)
                .param("begun", Ids.array(linkPayments))
                .query(OrderRows::order)
                .list();
    }

    /** Of every link that was paid. */
    Map<Long, LinkOrders.Came> came() {
        Map<Long, LinkOrders.Came> all = new HashMap<>();
        jdbc.sql("""
                SELECT link_id, currency, COUNT(*) AS times, SUM(amount_minor - tip_minor - surcharge_minor - surcharge_tax_minor) AS total FROM processor_order
                 WHERE link_id IS NOT NULL AND state = 'paid' AND NOT test
                 GROUP BY link_id, currency
                """)
                .query((rs, n) -> all.put(
                        rs.getLong("link_id"),
                        new LinkOrders.Came(
                                rs.getInt("times"),
                                Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("total")))))
                .list();
        return all;
    }

    /** How many orders of a link can still be paid. */
    int countLive(long link) {
        return count("link_id = :link AND state IN ('wanted', 'open')", link, 0);
    }

    /** Whether a link was paid by another order than this one. */
    boolean isPaidBesides(long link, long order) {
        return count("link_id = :link AND id <> :order AND state = 'paid' AND NOT test", link, order) > 0;
    }

    /** Whether something came through a link, or comes. */
    boolean brings(long link) {
        return count(
                        "link_id = :link AND state NOT IN ('wanted', 'open', 'withdrawing', 'withdrawn') AND NOT test",
                        link,
                        0)
                > 0;
    }

    private int count(String which, long link, long order) {
        return jdbc.sql("SELECT COUNT(*) FROM processor_order WHERE " + which)
                .param("link", link)
                .param("order", order)
                .query(Integer.class)
                .single();
    }

    /** Orders of one link that can still be paid, or that bring something or brought it; latest first. */
    List<Order> standingOf(long link) {
        return jdbc.sql(OrderRepository.SELECT + """
                 WHERE link_id = :link AND state <> 'withdrawn' ORDER BY id DESC
                """)
                .param("link", link)
                .query(OrderRows::order)
                .list();
    }
}
