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

/**
 * Payments that the payer's bank took back: the money goes at once, with a cost; the business may answer until a day, and the
 * bank decides. Without an answer it is lost.
 */
@Repository
@Transactional
class Contests {
    private static final String COLUMNS =
            "SELECT id, order_id, amount, state, reason, opened_on, answer_by, evidence, answered_on FROM contest ";
    private static final int DAYS_TO_ANSWER = 14;
    private static final int DAYS_TO_DECIDE = 10;
    private final JdbcClient jdbc;
    private final OrderBook orders;
    private final Account account;
    private final Day day;

    Contests(JdbcClient jdbc, OrderBook orders, Account account, Day day) {
        this.jdbc = jdbc;
        this.orders = orders;
        this.account = account;
        this.day = day;
    }

    /** @param state open, answered, won or lost */
    record Contest(
            String id,
            String orderId,
            BigDecimal amount,
            String state,
            String reason,
            LocalDate openedOn,
            LocalDate answerBy,
            String evidence,
            LocalDate answeredOn) {
        public boolean isDecided() {
            return "won".equals(state) || "lost".equals(state);
        }
    }

    /** The payer's bank takes back what is left of a card payment. @return whether anything was left */
    boolean open(String orderId, String reason) {
        CardOrder order = orders.lock(orderId).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
        orders.returnsOn(orderId, null);
        BigDecimal left =
                "paid".equals(order.state()) ? order.taken().amount().subtract(orders.refunded(orderId)) : null;
        if (left == null
                || left.signum() <= 0
                || order.means().isDebit()
                || of(orderId).isPresent()) {
            return false;
        }
        String id = "contest-" + UUID.randomUUID();
        LocalDate today = day.today();
        jdbc.sql("""
                INSERT INTO contest (id, order_id, amount, state, reason, opened_on, answer_by)
                VALUES (:id, :order, :amount, 'open', :reason, :today, :by)
                """)
                .param("id", id)
                .param("order", orderId)
                .param("amount", left)
                .param("reason", reason)
                .param("today", today)
                .param("by", today.plusDays(DAYS_TO_ANSWER))
                .update();
        account.book(
                new Account.Matter("contested", id, order, reason),
                left.negate(),
                Fee.ofContest(order.currency()),
                today);
        return true;
    }

    /** @throws ResponseStatusException (409) where it is decided, or its last day has passed */
    Contest answer(String id, String evidence) {
        Contest c = find(id).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
        if (c.isDecided() || day.today().isAfter(c.answerBy())) {
            throw new ResponseStatusException(HttpStatus.CONFLICT, "it can be answered no more");
        }
        jdbc.sql("""
                UPDATE contest SET state = 'answered', evidence = :evidence, answered_on = :today
                 WHERE id = :id AND state IN ('open', 'answered')
                """)
                .param("evidence", evidence)
                .param("today", day.today())
                .param("id", id)
                .update();
        return find(id).orElseThrow();
    }

    /** The bank decides; what it decided before stays. */
    void decide(String id, boolean won) {
        int rows = jdbc.sql("UPDATE contest SET state = :state WHERE id = :id AND state IN ('open', 'answered')")
                .param("state", won ? "won" : "lost")
                .param("id", id)
                .update();
        if (rows == 1) {
            Contest c = find(id).orElseThrow();
            CardOrder order = orders.find(c.orderId()).orElseThrow();
            account.book(
                    new Account.Matter(won ? "contest-won" : "contest-lost", id, order, ""),
                    won ? c.amount() : BigDecimal.ZERO,
                    BigDecimal.ZERO,
                    day.today());
        }
    }

    /** Decides those whose day has come: lost without an answer, won with one. */
    void decideDue(LocalDate today) {
        jdbc.sql(COLUMNS + """
                 WHERE state = 'open' AND answer_by < :today OR state = 'answered' AND answered_on <= :decided
                 ORDER BY answer_by, id
                """)
                .param("today", today)
                .param("decided", today.minusDays(DAYS_TO_DECIDE))
                .query(Contests::contest)
                .list()
                .forEach(c -> decide(c.id(), "answered".equals(c.state())));
    }

    Optional<Contest> find(String id) {
        return jdbc.sql(COLUMNS + "WHERE id = :id")
                .param("id", id)
                .query(Contests::contest)
                .optional();
    }

    Optional<Contest> of(String orderId) {
        return jdbc.sql(COLUMNS + "WHERE order_id = :id")
                .param("id", orderId)
                .query(Contests::contest)
                .optional();
    }

    List<Contest> latest() {
        return jdbc.sql(COLUMNS + "ORDER BY opened_on DESC, id LIMIT 40")
                .query(Contests::contest)
                .list();
    }

    private static Contest contest(ResultSet rs, int row) throws SQLException {
        return new Contest(
                rs.getString("id"),
                rs.getString("order_id"),
                rs.getBigDecimal("amount"),
                rs.getString("state"),
                rs.getString("reason"),
                Day.of(rs, "opened_on"),
                Day.of(rs, "answer_by"),
                rs.getString("evidence"),
                Day.of(rs, "answered_on"));
    }
}
