package quill.server.latefees;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.context.annotation.Bean;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.Why;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.LateFee;
import quill.core.latefee.PaidBefore;
import quill.core.ledger.OpenDebt;
import quill.server.common.Amount;
import quill.server.common.ClientRows;
import quill.server.common.Ids;
import quill.server.common.Json;
import quill.server.common.Rows;
import quill.server.debts.PaidEarlier;
import quill.server.latefees.LateFees.StoredFee;

/** Table LATE_FEE; reads payments' value dates beside it. Holds no rules. */
@Repository
class LateFeeRepository {
    private static final String SELECT = """
            SELECT f.id, f.installment_id, f.invoice_id, f.client_id, f.due_on, f.sequence, f.debt_id, f.currency,
                   f.base_minor, f.fee_minor, f.amount_minor, f.why, f.charged_on, f.entry_id, f.waived_on, f.waived_why
              FROM late_fee f
            """;

    private final JdbcClient jdbc;
    private final Json json;

    LateFeeRepository(JdbcClient jdbc, Json json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    long insert(ClientId clientId, OpenDebt of, LateFee fee, LocalDate on, Long debtId, Long entryId) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO late_fee (installment_id, invoice_id, client_id, due_on, sequence, debt_id, currency,
                  base_minor, fee_minor, amount_minor, why, charged_on, entry_id)
                VALUES (:installment, :invoice, :client, :due, :sequence, :debt, :currency, :base, :fee, :amount, :why,
                  :on, :entry)
                """)
                .param("installment", of.id())
                .param("invoice", of.document())
                .param("client", clientId)
                .param("due", of.dueOn())
                .param("sequence", fee.sequence())
                .param("debt", debtId)
                .param("currency", fee.amount().getCurrencyUnit().getCode())
                .param("base", fee.base())
                .param("fee", fee.fee())
                .param("amount", fee.amount())
                .param("why", json.write(fee.why()))
                .param("on", on)
                .param("entry", entryId)
                .update(key, "id");
        return key.getKey().longValue();
    }

    int waive(long id, LocalDate on, String why) {
        return jdbc.sql("UPDATE late_fee SET waived_on = :on, waived_why = :why WHERE id = :id AND waived_on IS NULL")
                .param("on", on)
                .param("why", why)
                .param("id", id)
                .update();
    }

    int letStand(long id) {
        return jdbc.sql("UPDATE late_fee SET stands = TRUE WHERE id = :id AND NOT stands AND waived_on IS NULL")
                .param("id", id)
                .update();
    }

    Optional<StoredFee> find(long id) {
        return some("WHERE f.id = :key", id).stream().findFirst();
    }

    List<StoredFee> ofInvoice(DocumentId invoiceId) {
        return some("WHERE f.invoice_id = :key ORDER BY f.id", invoiceId);
    }

    List<StoredFee> onInstallments(Collection<Long> installmentIds) {
        return some(
                "JOIN UNNEST(CAST(:key AS BIGINT ARRAY)) AS given (one) ON one = f.installment_id ORDER BY f.id",
                Ids.array(installmentIds));
    }

    private List<StoredFee> some(String which, Object key) {
        return jdbc.sql(SELECT + which).param("key", key).query(this::fee).list();
    }

    /** Whether anything ever became of a fee on this invoice. */
    boolean any(DocumentId invoiceId) {
        return jdbc.sql("SELECT COUNT(*) FROM late_fee WHERE invoice_id = :invoice")
                        .param("invoice", invoiceId)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    @EventListener
    void paidEarlier(PaidEarlier paid) {
        paid.debtIds()
                .forEach(debt -> jdbc.sql("""
                        INSERT INTO paid_earlier (movement_id, debt_id, paid_on, entry_id)
                        VALUES (:payment, :debt, :on, :entry)
                        """)
                        .param("payment", paid.paymentId())
                        .param("debt", debt)
                        .param("on", paid.paidOn())
                        .param("entry", paid.entryId())
                        .update());
    }

    @EventListener
    void undone(PaidEarlier.Undone payment) {
        jdbc.sql("DELETE FROM paid_earlier WHERE movement_id = :payment")
                .param("payment", payment.paymentId())
                .update();
    }

    /** Fees that stand, with money for their installment that was dated before it was booked; a fee may be in it twice. */
    List<Questioned> questioned() {
        return jdbc.sql("""
                SELECT f.*, e.paid_on, e.entry_id AS paid_by FROM late_fee f
                  JOIN paid_earlier e ON e.debt_id = f.installment_id
                 WHERE f.waived_on IS NULL AND NOT f.stands AND f.entry_id IS NOT NULL
                 ORDER BY f.id, e.paid_on
                """)
                .query((rs, n) ->
                        new Questioned(fee(rs, n), new PaidBefore(Rows.date(rs, "paid_on"), rs.getLong("paid_by"))))
                .list();
    }

    /** A fee, and money that may have come before it. */
    record Questioned(StoredFee fee, PaidBefore paid) {}

    private StoredFee fee(ResultSet rs, int row) throws SQLException {
        String currency = rs.getString("currency");
        LocalDate waivedOn = Rows.date(rs, "waived_on");
        return new StoredFee(
                rs.getLong("id"),
                new LateFees.Occasion(rs.getLong("installment_id"), Rows.date(rs, "due_on"), rs.getInt("sequence")),
                new DocumentId(rs.getLong("invoice_id")),
                new ClientId(rs.getLong("client_id")),
                rs.getObject("debt_id", Long.class),
                Amount.ofMinor(currency, rs.getLong("base_minor")),
                Amount.ofMinor(currency, rs.getLong("fee_minor")),
                Amount.ofMinor(currency, rs.getLong("amount_minor")),
                json.read(rs.getString("why"), Why.class),
                Rows.date(rs, "charged_on"),
                rs.getObject("entry_id", Long.class),
                waivedOn == null ? null : new LateFees.Waived(waivedOn, rs.getString("waived_why")));
    }

    @Bean
    ClientRows feesOfClients() {
        return ClientRows.of(jdbc, "late_fee");
    }
}
