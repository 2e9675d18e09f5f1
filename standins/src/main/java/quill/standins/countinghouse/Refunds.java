package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.server.ResponseStatusException;

/** Money that goes back to whoever paid: taken out of the account at once, and put back into it where it does not arrive. */
@Repository
@Transactional
class Refunds {
    private static final String COLUMNS =
            "SELECT id, our_key, order_id, amount, state, ends_on, fails, reason FROM refund ";
    private static final int DAYS = 2;
    private final JdbcClient jdbc;
    private final OrderBook orders;
    private final Account account;
    private final Contests contests;
    private final Day day;

    Refunds(JdbcClient jdbc, OrderBook orders, Account account, Contests contests, Day day) {
        this.jdbc = jdbc;
        this.orders = orders;
        this.account = account;
        this.contests = contests;
        this.day = day;
    }

    /** @param state going, done or failed */
    record Refund(
            String id, String key, String orderId, BigDecimal amount, String state, boolean fails, String reason) {}

    /**
     * Begins one, or finds the one of this key.
     *
     * @throws ResponseStatusException (409) where the key was used for another; (422) for more than is left of the payment
     */
    Refund give(String key, String orderId, BigDecimal amount) {
        CardOrder order = orders.lock(orderId).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
        Optional<Refund> before = byKey(key);
        if (before.isPresent()) {
            if (before.get().amount().compareTo(amount) != 0
                    || !before.get().orderId().equals(orderId)) {
                throw new ResponseStatusException(HttpStatus.CONFLICT, "this key was used for another refund");
            }
            return before.get();
        }
        if (!"paid".equals(order.state()) || order.about().test()) {
            throw refused("nothing was taken that could go back");
        }
        BigDecimal left = left(order);
        if (amount.signum() <= 0 || amount.compareTo(left) > 0) {
            throw refused("at most " + Sums.plain(left, order.currency()) + " can go back");
        }
        String id = "refund-" + UUID.randomUUID();
        LocalDate today = day.today();
        jdbc.sql("""
                INSERT INTO refund (id, our_key, order_id, amount, state, asked_on, ends_on, fails)
                VALUES (:id, :key, :order, :amount, 'going', :today, :ends, :fails)
                """)
                .param("id", id)
                .param("key", key)
                .param("order", orderId)
                .param("amount", amount)
                .param("today", today)
                .param("ends", WorkingDays.after(today, DAYS))
                .param("fails", "refunds fail".equals(order.reason()))
                .update();
        account.book(new Account.Matter("refunded", id, order, ""), amount.negate(), BigDecimal.ZERO, today);
        return find(id).orElseThrow();
    }

    private static ResponseStatusException refused(String why) {
        return new ResponseStatusException(HttpStatus.UNPROCESSABLE_CONTENT, why);
    }

    /** What of a payment neither went back nor is contested. */
    BigDecimal left(CardOrder order) {
        BigDecimal contested = contests.of(order.id())
                .filter(c -> !"won".equals(c.state()))
                .map(Contests.Contest::amount)
                .orElse(BigDecimal.ZERO);
        return order.taken().amount().subtract(orders.refunded(order.id())).subtract(contested);
    }

    /** Ends those whose day has come. */
    void end(LocalDate today) {
        List<Refund> due = jdbc.sql(COLUMNS + "WHERE state = 'going' AND ends_on <= :today ORDER BY ends_on, id")
                .param("today", today)
                .query(Refunds::refund)
                .list();
        for (Refund r : due) {
            String reason = r.fails() ? "the card takes no refunds" : "";
            jdbc.sql("UPDATE refund SET state = :state, reason = :reason WHERE id = :id")
                    .param("state", r.fails() ? "failed" : "done")
                    .param("reason", reason)
                    .param("id", r.id())
                    .update();
            if (r.fails()) {
                CardOrder order = orders.find(r.orderId()).orElseThrow();
                account.book(
                        new Account.Matter("refund-failed", r.id(), order, reason), r.amount(), BigDecimal.ZERO, today);
            }
        }
    }

    Optional<Refund> find(String id) {
        return jdbc.sql(COLUMNS + "WHERE id = :id")
                .param("id", id)
                .query(Refunds::refund)
                .optional();
    }

    private Optional<Refund> byKey(String key) {
        return jdbc.sql(COLUMNS + "WHERE our_key = :key")
                .param("key", key)
                .query(Refunds::refund)
                .optional();
    }

    private static Refund refund(ResultSet rs, int row) throws SQLException {
        return new Refund(
                rs.getString("id"),
                rs.getString("our_key"),
                rs.getString("order_id"),
                rs.getBigDecimal("amount"),
                rs.getString("state"),
                rs.getBoolean("fails"),
                rs.getString("reason"));
    }
}
