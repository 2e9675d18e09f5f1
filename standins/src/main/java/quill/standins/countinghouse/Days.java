package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.time.LocalDate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** What each day brings of itself, in order: debits and holds are decided, refunds and contests end, money is paid out. */
@Component
class Days {
    private static final int MOST_DAYS = 800;
    private final JdbcClient jdbc;
    private final OrderBook orders;
    private final Refunds refunds;
    private final Contests contests;
    private final Account account;
    private final Day day;
    private final TransactionTemplate transaction;

    Days(
            JdbcClient jdbc,
            OrderBook orders,
            Refunds refunds,
            Contests contests,
            Account account,
            Day day,
            TransactionTemplate transaction) {
        this.jdbc = jdbc;
        this.orders = orders;
        this.refunds = refunds;
        this.contests = contests;
        this.account = account;
        this.day = day;
        this.transaction = transaction;
    }

    /** The business tells its date: all days until then are lived through, each in a transaction of its own. */
    synchronized void moveTo(LocalDate today) {
        LocalDate at = lived();
        if (at == null || today.isBefore(at) || at.plusDays(MOST_DAYS).isBefore(today)) {
            transaction.executeWithoutResult(s -> {
                day.set(today);
                live(today);
            });
            return;
        }
        while (at.isBefore(today)) {
            LocalDate next = at.plusDays(1);
            transaction.executeWithoutResult(s -> {
                day.set(next);
                live(next);
            });
            at = next;
        }
    }

    /** Where nobody tells a date, the system's goes on by itself. */
    @Scheduled(fixedDelay = 60_000)
    synchronized void catchUp() {
        LocalDate today = day.today();
        if (!today.equals(lived())) {
            transaction.executeWithoutResult(s -> live(today));
        }
    }

    private LocalDate lived() {
        return jdbc.sql("SELECT lived_on FROM lived")
                .query((rs, n) -> Day.of(rs, "lived_on"))
                .optional()
                .orElse(null);
    }

    private void live(LocalDate today) {
        orders.debitsDue(today).forEach(id -> decideDebit(id, today));
        orders.returnsDue(today).forEach(id -> takeBack(id, today));
        orders.lapsing(today).forEach(id -> orders.end(id, "lapsed", ""));
        refunds.end(today);
        contests.decideDue(today);
        account.payOut(today);
        jdbc.sql("DELETE FROM lived").update();
        jdbc.sql("INSERT INTO lived VALUES (:today)").param("today", today).update();
    }

    private void decideDebit(String id, LocalDate today) {
        CardOrder order = orders.lock(id).orElseThrow();
        BankAccount from = orders.bankAccount(id);
        if (from.pays()) {
            orders.take(id, order.amount());
            if (from == BankAccount.OBJECTS) {
                orders.returnsOn(id, WorkingDays.after(today, 2));
            }
            return;
        }
        orders.end(id, "refused", from.reason());
        if (!order.about().test()) {
            account.book(
                    new Account.Matter("refused", "debit-of-" + id, order, from.reason()),
                    BigDecimal.ZERO,
                    Fee.ofReturn(order.currency()),
                    today);
        }
    }

    private void takeBack(String id, LocalDate today) {
        CardOrder order = orders.lock(id).orElseThrow();
        if (!order.means().isDebit()) {
            contests.open(id, "not as agreed");
            return;
        }
        String reason = orders.bankAccount(id).reason();
        BigDecimal left = refunds.left(order);
        orders.end(id, "returned", reason);
        if (!order.about().test() && left.signum() > 0) {
            account.book(
                    new Account.Matter("returned", order.taken().paymentId(), order, reason),
                    left.negate(),
                    Fee.ofReturn(order.currency()),
                    today);
        }
    }
}
