package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/**
 * The account that is kept for the business: numbered entries without a gap, in the order in which they can be seen. What is
 * held is their sum. Each working day what is ready is paid out in one sum for each currency; what comes to nothing or less is
 * carried forward.
 */
@Repository
@Transactional(propagation = Propagation.MANDATORY)
class Account {
    private static final int DAYS_UNTIL_READY = 2;
    private static final int DAYS_BEFORE_FIRST = 7;
    private static final String COLUMNS = """
            SELECT number, kind, subject, order_id, currency, amount, cost, booked_on, reason, payout_id FROM entry
            """;

    private static final String PAYOUTS = "SELECT id, currency, amount, made_on FROM payout ";

    private final JdbcClient jdbc;
    private final EventBook events;

    Account(JdbcClient jdbc, EventBook events) {
        this.jdbc = jdbc;
        this.events = events;
    }

    /**
     * An entry.
     *
     * @param kind taken, refused (a bank debit that was not paid), returned, refunded, refund-failed, contested, contest-won,
     *     contest-lost or paid-out
     * @param subject the payment, refund, contest or payout that it is about
     * @param amount above zero for what came, below for what went
     * @param cost what the counting house keeps for it
     * @param payoutId in which it was paid out, or which it is; null before that
     */
    record Entry(
            long number,
            String kind,
            String subject,
            String orderId,
            String currency,
            BigDecimal amount,
            BigDecimal cost,
            LocalDate on,
            String reason,
            String payoutId) {
        /** What it changes of the balance, as a person reads it. */
        public String shown() {
            return Sums.shown(amount.subtract(cost), currency);
        }
    }

    /** What is held in a currency. */
    record Held(String currency, BigDecimal sum) {
        public String shown() {
            return Sums.shown(sum, currency);
        }
    }

    /** A sum that was paid out. */
    record Payout(String id, String currency, BigDecimal amount, LocalDate madeOn) {
        public String shown() {
            return Sums.shown(amount, currency);
        }
    }

    /** What an entry is about. */
    record Matter(String kind, String subject, CardOrder order, String reason) {}

    /** Books what came, or went where the amount is below zero. */
    void book(Matter matter, BigDecimal amount, BigDecimal cost, LocalDate on) {
        String currency = matter.order().currency();
        LocalDate ready = on;
        if (amount.signum() > 0 && "taken".equals(matter.kind())) {
            LocalDate usual = WorkingDays.after(on, DAYS_UNTIL_READY);
            LocalDate first = first(currency, on).plusDays(DAYS_BEFORE_FIRST);
            ready = usual.isBefore(first) ? first : usual;
        }
        insert(
                new Entry(
                        0,
                        matter.kind(),
                        matter.subject(),
                        matter.order().id(),
                        currency,
                        amount,
                        cost,
                        on,
                        matter.reason(),
                        null),
                ready);
        events.add(matter.order().id(), matter.kind());
    }

    private LocalDate first(String currency, LocalDate today) {
        LocalDate first = jdbc.sql("SELECT MIN(booked_on) FROM entry WHERE kind = 'taken' AND currency = :currency")
                .param("currency", currency)
                .query(LocalDate.class)
                .optional()
                .orElse(null);
        return first == null ? today : first;
    }

    private void insert(Entry e, LocalDate ready) {
        jdbc.sql("UPDATE account_head SET last_number = last_number + 1").update();
        jdbc.sql("""
                INSERT INTO entry (number, kind, subject, order_id, currency, amount, cost, booked_on, ready_on, reason, payout_id)
                VALUES ((SELECT last_number FROM account_head), :kind, :subject, :order, :currency, :amount, :cost, :on, :ready,
                  :reason, :payout)
                """)
                .param("kind", e.kind())
                .param("subject", e.subject())
                .param("order", e.orderId())
                .param("currency", e.currency())
                .param("amount", e.amount())
                .param("cost", e.cost())
                .param("on", e.on())
                .param("ready", ready)
                .param("reason", e.reason())
                .param("payout", e.payoutId())
                .update();
    }

    /** Pays out what is ready on a working day. */
    void payOut(LocalDate day) {
        if (!WorkingDays.is(day)) {
            return;
        }
        // Nobody books while it is summed.
        jdbc.sql("SELECT last_number FROM account_head FOR UPDATE")
                .query(Long.class)
                .single();
        List<Held> ready = jdbc.sql("""
                SELECT currency, SUM(amount - cost) AS total FROM entry
                 WHERE payout_id IS NULL AND ready_on <= :day GROUP BY currency ORDER BY currency
                """)
                .param("day", day)
                .query((rs, n) -> new Held(rs.getString(1), rs.getBigDecimal(2)))
                .list();
        ready.stream().filter(r -> r.sum().signum() > 0).forEach(r -> payOut(r, day));
    }

    private void payOut(Held ready, LocalDate day) {
        String id = "payout-" + UUID.randomUUID();
        jdbc.sql("INSERT INTO payout (id, currency, amount, made_on) VALUES (:id, :currency, :amount, :day)")
                .param("id", id)
                .param("currency", ready.currency())
                .param("amount", ready.sum())
                .param("day", day)
                .update();
        jdbc.sql("""
                UPDATE entry SET payout_id = :id WHERE payout_id IS NULL AND ready_on <= :day AND currency = :currency
                """)
                .param("id", id)
                .param("day", day)
                .param("currency", ready.currency())
                .update();
        insert(
                new Entry(
                        0, "paid-out", id, null, ready.currency(), ready.sum().negate(), BigDecimal.ZERO, day, "", id),
                day);
        events.add(null, "paid-out");
    }

    /** Entries after a number, in their order. */
    @Transactional(readOnly = true)
    List<Entry> after(long number, int most) {
        return jdbc.sql(COLUMNS + "WHERE number > :number ORDER BY number LIMIT :most")
                .param("number", number)
                .param("most", most)
                .query(Account::entry)
                .list();
    }

    @Transactional(readOnly = true)
    List<Entry> latest() {
        return jdbc.sql(COLUMNS + "ORDER BY number DESC LIMIT 60")
                .query(Account::entry)
                .list();
    }

    /** What one payout was made of, without the payout itself. */
    @Transactional(readOnly = true)
    List<Entry> of(String payoutId) {
        return jdbc.sql(COLUMNS + "WHERE payout_id = :payout AND kind <> 'paid-out' ORDER BY number")
                .param("payout", payoutId)
                .query(Account::entry)
                .list();
    }

    @Transactional(readOnly = true)
    List<Held> held() {
        return jdbc.sql("SELECT currency, SUM(amount - cost) FROM entry GROUP BY currency ORDER BY currency")
                .query((rs, n) -> new Held(rs.getString(1), rs.getBigDecimal(2)))
                .list();
    }

    @Transactional(readOnly = true)
    List<Payout> payouts() {
        return jdbc.sql(PAYOUTS + "ORDER BY made_on DESC, id LIMIT 40")
                .query(Account::payout)
                .list();
    }

    @Transactional(readOnly = true)
    Optional<Payout> payout(String id) {
        return jdbc.sql(PAYOUTS + "WHERE id = :id")
                .param("id", id)
                .query(Account::payout)
                .optional();
    }

    private static Payout payout(ResultSet rs, int row) throws SQLException {
        return new Payout(
                rs.getString(1),
                rs.getString(2),
                rs.getBigDecimal(3),
                rs.getDate(4).toLocalDate());
    }

    private static Entry entry(ResultSet rs, int row) throws SQLException {
        return new Entry(
                rs.getLong("number"),
                rs.getString("kind"),
                rs.getString("subject"),
                rs.getString("order_id"),
                rs.getString("currency"),
                rs.getBigDecimal("amount"),
                rs.getBigDecimal("cost"),
                rs.getDate("booked_on").toLocalDate(),
                rs.getString("reason"),
                rs.getString("payout_id"));
    }
}
