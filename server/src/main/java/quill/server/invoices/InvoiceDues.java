package quill.server.invoices;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.debts.Debts;

/** Table INVOICE_DUE: what is open of each invoice and by when, kept in the transaction in which its debts change. */
@Component
class InvoiceDues {
    private final JdbcClient jdbc;
    private final InvoiceRepository invoices;
    private final Debts debts;
    private final Changes changes;
    private final BusinessClock clock;

    InvoiceDues(JdbcClient jdbc, InvoiceRepository invoices, Debts debts, Changes changes, BusinessClock clock) {
        this.jdbc = jdbc;
        this.invoices = invoices;
        this.debts = debts;
        this.changes = changes;
        this.clock = clock;
    }

    /** A sum of one time and currency. @param when late, week, later or draft */
    record Sum(String when, String currency, int count, long minor) {}

    /** What is open of an invoice stands beside it, for lists that show many. */
    @EventListener
    void debtsChanged(Debts.DebtsChanged change) {
        Map<LocalDate, Long> openByDay = new TreeMap<>();
        debts.of(change.invoiceId()).stream()
                .filter(i -> i.open().isPositive())
                .forEach(i -> openByDay.merge(i.dueOn(), i.open().getAmountMinorLong(), Math::addExact));
        long open = openByDay.values().stream().mapToLong(Long::longValue).sum();
        LocalDate nextDue = openByDay.keySet().stream().findFirst().orElse(null);
        keep(change.invoiceId(), openByDay);
        invoices.refresh(change.invoiceId(), open, nextDue, clock.today());
        changes.say(change.invoiceId(), null);
    }

    @EventListener
    void debtsLeave(Debts.DebtsLeaving leaving) {
        keep(leaving.invoiceId(), Map.of());
    }

    /** Keeps what is open of an invoice by the days on which it is due, for the heads of the groups. */
    private void keep(long id, Map<LocalDate, Long> openByDay) {
        jdbc.sql("DELETE FROM invoice_due WHERE invoice_id = :id")
                .param("id", id)
                .update();
        openByDay.forEach((day, open) -> jdbc.sql(
                        "INSERT INTO invoice_due (invoice_id, due_on, open_minor) VALUES (:id, :day, :open)")
                .param("id", id)
                .param("day", day)
                .param("open", open)
                .update());
    }

    /** What the heads of the groups say, over all invoices that fit the filter. */
    List<Sum> sums(String filter, LocalDate today, LocalDate weekEnd) {
        String like = InvoiceRepository.like(filter);
        String fits = like == null ? "" : InvoiceRepository.FILTER;
        // Of a late invoice what is late counts, of one that is due within the week what is due by then, else all of
        // it.
        return jdbc.sql("""
                SELECT 'late', v.currency, COUNT(DISTINCT v.id), SUM(d.open_minor)
                  FROM invoice v JOIN invoice_due d ON d.invoice_id = v.id
                 WHERE v.bucket = 'open' AND v.next_due_on < :today AND d.due_on < :today
                """ + fits + """
                 GROUP BY v.currency
                UNION ALL
                SELECT 'week', v.currency, COUNT(DISTINCT v.id), SUM(d.open_minor)
                  FROM invoice v JOIN invoice_due d ON d.invoice_id = v.id
                 WHERE v.bucket = 'open' AND v.next_due_on BETWEEN :today AND :week
                   AND d.due_on <= :week
                """ + fits + """
                 GROUP BY v.currency
                UNION ALL
                SELECT 'later', v.currency, COUNT(*), SUM(v.open_minor) FROM invoice v
                 WHERE v.bucket = 'open' AND v.next_due_on > :week
                """ + fits + """
                 GROUP BY v.currency
                UNION ALL
                SELECT 'draft', v.currency, COUNT(*), SUM(COALESCE(v.total_minor, 0)) FROM invoice v
                 WHERE v.bucket = 'draft'
                """ + fits + " GROUP BY v.currency ORDER BY 1, 2")
                .param("today", today)
                .param("week", weekEnd)
                .param("filter", like == null ? "" : like)
                .query((rs, n) -> new Sum(rs.getString(1), rs.getString(2), rs.getInt(3), rs.getLong(4)))
                .list();
    }
}
