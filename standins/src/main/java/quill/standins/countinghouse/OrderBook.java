package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Orders, and the attempts to pay them. */
@Repository
@Transactional
class OrderBook {
    private static final String COLUMNS = """
            SELECT id, our_key, amount, currency, description, return_to, payer_name, payer_email, test, takes, holds, state,
                   payment_id, paid_on, taken, fee, way, card_last_four, card_expiry, certain_on, lapses_on, awaits_code, reason,
                   keeps, taken_from, kept_as
              FROM card_order
            """;

    private static final int MINUTES_OPEN = 30;
    private static final int DEBIT_DAYS = 3;
    private static final int HOLD_DAYS = 7;
    private final JdbcClient jdbc;
    private final Account account;
    private final EventBook events;
    private final Day day;
    private final KeptMethods methods;
    private final AtomicInteger paid = new AtomicInteger();

    OrderBook(JdbcClient jdbc, Account account, EventBook events, Day day, KeptMethods methods) {
        this.methods = methods;
        this.jdbc = jdbc;
        this.account = account;
        this.events = events;
        this.day = day;
    }

    /** An attempt to pay, for the counting house's own page. */
    record Attempt(String orderId, LocalDateTime madeAt, String lastFour, String outcome) {}

    /** The order of this key: made now, or found as it was made before. */
    CardOrder open(String key, BigDecimal amount, String currency, CardOrder.About about, CardOrder.Wish wish) {
        Optional<CardOrder> before = byKey(key);
        if (before.isPresent()) {
            return find(before.get().id()).orElseThrow();
        }
        String id = "order-" + UUID.randomUUID();
        try {
            insert(id, key, amount, currency, about, wish);
        } catch (DuplicateKeyException e) {
            // Another call with this key was faster.
            return byKey(key).orElseThrow();
        }
        return find(id).orElseThrow();
    }

    private void insert(
            String id, String key, BigDecimal amount, String currency, CardOrder.About about, CardOrder.Wish wish) {
        jdbc.sql("""
                INSERT INTO card_order (id, our_key, amount, currency, description, return_to, payer_name, payer_email, test,
                  takes, holds, keeps, taken_from, state, made_at)
                VALUES (:id, :key, :amount, :currency, :description, :returnTo, :name, :email, :test, :takes, :holds, :keeps, :method, 'open',
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
                .param("takes", String.join(" ", wish.takes()))
                .param("holds", wish.hold())
                .param("keeps", wish.keeps())
                .param("method", wish.method())
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

    /** The same, and nobody else changes it until this transaction ends. */
    Optional<CardOrder> lock(String id) {
        return jdbc.sql(COLUMNS + "WHERE id = :id FOR UPDATE")
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

    /** Takes the money of a card, or holds it, if nobody was faster. @return whether this call did */
    boolean pay(CardOrder order, TestCard card, String expiry) {
        return pay(order, "card", card, expiry);
    }

    /** The same of the card in a wallet. */
    boolean pay(CardOrder order, Wallet wallet, TestCard card) {
        return pay(order, wallet.word(), card, null);
    }

    private boolean pay(CardOrder order, String way, TestCard card, String expiry) {
        String next = order.wish().hold() ? "held" : "paid";
        if (!moved(order, next, way, card.lastFour(), expiry)) {
            return false;
        }
        attempt(order.id(), card.lastFour(), "approved");
        if (order.wish().keeps()) {
            keptAs(order, methods.keep(card, expiry));
        }
        jdbc.sql("UPDATE card_order SET lapses_on = :lapses, returns_on = :contests, reason = :reason WHERE id = :id")
                .param("lapses", order.wish().hold() ? day.today().plusDays(HOLD_DAYS) : null)
                .param("contests", contests(card) ? day.today().plusDays(1) : null)
                .param("reason", card == TestCard.REFUNDS_FAIL ? "refunds fail" : null)
                .param("id", order.id())
                .update();
        if (order.wish().hold()) {
            events.add(order.id(), "held");
        } else {
            take(order.id(), order.amount());
        }
        return true;
    }

    private void keptAs(CardOrder order, String method) {
        jdbc.sql("UPDATE card_order SET kept_as = :method WHERE id = :id")
                .param("method", method)
                .param("id", order.id())
                .update();
    }

    /** A kept card or account is not taken from: that ends the order. */
    void refuse(CardOrder order, KeptMethod from, String reason) {
        if (moved(order, "refused", from.way(), from.lastFour(), from.expiry())) {
            attempt(order.id(), from.lastFour(), reason);
            end(order.id(), "refused", reason);
        }
    }

    /** Whether its holder contests it: the card that always does, or one of each so many by the dial. */
    private boolean contests(TestCard card) {
        int each = events.dials().all().get("contest");
        return card == TestCard.CONTESTS || each > 0 && paid.incrementAndGet() % each == 0;
    }

    /** A mandate is given: the money comes in three working days, or does not. @return whether this call was the first */
    boolean debit(CardOrder order, BankAccount from) {
        if (!moved(order, "underway", "debit", from.lastFour(), null)) {
            return false;
        }
        attempt(order.id(), from.lastFour(), "approved");
        if (order.wish().keeps()) {
            keptAs(order, methods.keep(from));
        }
        jdbc.sql("UPDATE card_order SET certain_on = :certain, bank_account = :account WHERE id = :id")
                .param("certain", WorkingDays.after(day.today(), DEBIT_DAYS))
                .param("account", from.name())
                .param("id", order.id())
                .update();
        events.add(order.id(), "underway");
        return true;
    }

    private boolean moved(CardOrder order, String state, String way, String lastFour, String expiry) {
        return jdbc.sql("""
                UPDATE card_order
                   SET state = :state, way = :way, card_last_four = :lastFour, card_expiry = :expiry, awaits_code = FALSE
                 WHERE id = :id AND state = 'open' AND made_at >= DATEADD('MINUTE', -:minutes, LOCALTIMESTAMP)
                """)
                        .param("minutes", MINUTES_OPEN)
                        .param("state", state)
                        .param("way", way)
                        .param("lastFour", lastFour)
                        .param("expiry", expiry)
                        .param("id", order.id())
                        .update()
                == 1;
    }

    /** The money is there: the order is paid, with all of it or with less of what was held. */
    void take(String id, BigDecimal amount) {
        CardOrder order = lock(id).orElseThrow();
        String payment = "payment-" + UUID.randomUUID();
        BigDecimal fee = Fee.of(order.means().way(), amount, order.currency());
        jdbc.sql("""
                UPDATE card_order
                   SET state = 'paid', payment_id = :payment, paid_on = :today, taken = :amount, fee = :fee, certain_on = NULL,
                       lapses_on = NULL
                 WHERE id = :id
                """)
                .param("payment", payment)
                .param("today", day.today())
                .param("amount", amount)
                .param("fee", fee)
                .param("id", id)
                .update();
        if (order.about().test()) {
            events.add(id, "taken");
        } else {
            account.book(new Account.Matter("taken", payment, order, ""), amount, fee, day.today());
        }
    }

    /** Puts an order into a state that ends it, and tells of it. */
    void end(String id, String state, String reason) {
        jdbc.sql("UPDATE card_order SET state = :state, reason = :reason, returns_on = NULL WHERE id = :id")
                .param("state", state)
                .param("reason", reason)
                .param("id", id)
                .update();
        events.add(id, state);
    }

    void decline(String id, String lastFour, String reason) {
        jdbc.sql("UPDATE card_order SET awaits_code = FALSE WHERE id = :id")
                .param("id", id)
                .update();
        attempt(id, lastFour, reason);
        events.add(id, "declined");
    }

    void awaitCode(String id, String lastFour, String expiry) {
        jdbc.sql("""
                UPDATE card_order SET awaits_code = TRUE, card_last_four = :lastFour, card_expiry = :expiry
                 WHERE id = :id AND state = 'open'
                """)
                .param("id", id)
                .param("lastFour", lastFour)
                .param("expiry", expiry)
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

    /** Bank debits that are decided by a day. */
    List<String> debitsDue(LocalDate by) {
        return ids("state = 'underway' AND certain_on <= :by", by);
    }

    /** Paid ones that their payer takes back by a day. */
    List<String> returnsDue(LocalDate by) {
        return ids("state = 'paid' AND returns_on <= :by", by);
    }

    /** What is held after its last day. */
    List<String> lapsing(LocalDate today) {
        return ids("state = 'held' AND lapses_on < :by", today);
    }

    private List<String> ids(String which, LocalDate by) {
        return jdbc.sql("SELECT id FROM card_order WHERE " + which + " ORDER BY made_at, id")
                .param("by", by)
                .query(String.class)
                .list();
    }

    /** What of an order went back, or is going. */
    BigDecimal refunded(String id) {
        return jdbc.sql("SELECT COALESCE(SUM(amount), 0) FROM refund WHERE order_id = :id AND state <> 'failed'")
                .param("id", id)
                .query(BigDecimal.class)
                .single();
    }

    BankAccount bankAccount(String id) {
        return jdbc.sql("SELECT bank_account FROM card_order WHERE id = :id")
                .param("id", id)
                .query((rs, n) -> BankAccount.of(rs.getString(1)).orElseThrow())
                .single();
    }

    /** The day on which its payer takes it back. */
    void returnsOn(String id, LocalDate on) {
        jdbc.sql("UPDATE card_order SET returns_on = :on WHERE id = :id")
                .param("on", on)
                .param("id", id)
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
                new CardOrder.Wish(
                        List.of(rs.getString("takes").split(" ")),
                        rs.getBoolean("holds"),
                        rs.getBoolean("keeps"),
                        rs.getString("taken_from")),
                rs.getString("state"),
                new CardOrder.Taken(
                        rs.getString("payment_id"),
                        Day.of(rs, "paid_on"),
                        rs.getBigDecimal("taken"),
                        rs.getBigDecimal("fee")),
                new CardOrder.Means(
                        rs.getString("way"),
                        rs.getString("card_last_four"),
                        rs.getString("card_expiry"),
                        Day.of(rs, "certain_on"),
                        Day.of(rs, "lapses_on"),
                        rs.getString("kept_as")),
                rs.getBoolean("awaits_code"),
                rs.getString("reason") == null ? "" : rs.getString("reason"));
    }
}
