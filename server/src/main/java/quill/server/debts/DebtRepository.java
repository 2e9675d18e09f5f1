package quill.server.debts;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.JdbcUpdateAffectedIncorrectNumberOfRowsException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Appropriation;
import quill.core.ledger.OpenDebt;
import quill.core.schedule.Installment;
import quill.server.common.ClientRows;
import quill.server.common.Rows;
import quill.server.common.Texts;

/** Tables DEBT and APPROPRIATION. Holds no rules. */
@Repository
class DebtRepository {
    private static final String DEBT = """
            SELECT i.id, i.invoice_id, i.number, i.place, i.fee, i.due_on, i.currency, i.open_minor
              FROM debt i
            """;

    private final JdbcClient jdbc;

    DebtRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(ClientId clientId, DocumentId invoiceId, String number, Installment i, String why) {
        jdbc.sql("""
                INSERT INTO debt (invoice_id, number, client_id, place, deposit, currency, amount_minor, due_on, why)
                VALUES (:invoice, :number, :client, :place, :deposit, :currency, :amount, :due, :why)
                """)
                .param("invoice", invoiceId)
                .param("number", number)
                .param("client", clientId)
                .param("place", i.position())
                .param("deposit", i.deposit())
                .param("currency", i.amount().getCurrencyUnit().getCode())
                .param("amount", i.amount())
                .param("due", i.dueOn())
                .param("why", why)
                .update();
    }

    /** @return the new debt's id */
    long insertFee(DocumentId invoiceId, Money fee, String note, LocalDate chargedOn, String why) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO debt (invoice_id, number, client_id, place, deposit, fee, currency, amount_minor, due_on,
                  note, why)
                SELECT invoice_id, number, client_id, GREATEST(1000, place) + 1, FALSE, TRUE, :currency, :amount, :due,
                       :note, :why
                  FROM debt WHERE invoice_id = :invoice ORDER BY place DESC LIMIT 1
                """)
                .param("invoice", invoiceId)
                .param("currency", fee.getCurrencyUnit().getCode())
                .param("amount", fee)
                .param("due", chargedOn)
                .param("note", Texts.fit(note, 1000))
                .param("why", why)
                .update(key, "id");
        return key.getKey().longValue();
    }

    List<StoredInstallment> of(Collection<DocumentId> invoiceIds) {
        return jdbc.sql("""
                SELECT id, invoice_id, place, deposit, fee, currency, amount_minor, settled_minor, credited_minor,
                       open_minor, due_on, settled_on, note, why
                  FROM debt WHERE invoice_id IN (:invoices) ORDER BY invoice_id, place
                """)
                .param("invoices", invoiceIds)
                .query(DebtRepository::installment)
                .list();
    }

    List<OpenDebt> open(ClientId clientId, CurrencyUnit currency) {
        return jdbc.sql(DEBT + """
                 WHERE i.owed_by = :client AND i.currency = :currency
                 ORDER BY i.due_on, i.id
                """)
                .param("client", clientId)
                .param("currency", currency.getCode())
                .query(DebtRepository::debt)
                .list();
    }

    Map<ClientId, List<OpenDebt>> openByClient(Collection<ClientId> clientIds, CurrencyUnit currency) {
        Map<ClientId, List<OpenDebt>> byClient = new LinkedHashMap<>();
        jdbc.sql("""
                SELECT i.client_id, i.id, i.invoice_id, i.number, i.place, i.fee, i.due_on, i.currency, i.open_minor
                  FROM debt i
                 WHERE i.owed_by IN (:clients) AND i.currency = :currency
                 ORDER BY i.due_on, i.id
                """)
                .param("clients", clientIds)
                .param("currency", currency.getCode())
                .query(rs -> {
                    byClient.computeIfAbsent(new ClientId(rs.getLong("client_id")), k -> new ArrayList<>())
                            .add(debt(rs, 0));
                });
        return byClient;
    }

    void appropriate(Long paymentId, long installmentId, Money amount, long entryId) {
        jdbc.sql("""
                INSERT INTO appropriation (payment_id, debt_id, amount_minor, entry_id)
                VALUES (:payment, :installment, :amount, :entry)
                """)
                .param("payment", paymentId)
                .param("installment", installmentId)
                .param("amount", amount)
                .param("entry", entryId)
                .update();
    }

    void settle(long installmentId, Money amount, LocalDate on) {
        int rows = jdbc.sql("""
                UPDATE debt
                   SET settled_minor = settled_minor + :amount,
                       settled_on = CASE WHEN settled_minor + credited_minor + :amount = amount_minor THEN :on END
                 WHERE id = :id
                """)
                .param("amount", amount)
                .param("on", on)
                .param("id", installmentId)
                .update();
        if (rows != 1) {
            throw new JdbcUpdateAffectedIncorrectNumberOfRowsException("settle " + installmentId, 1, rows);
        }
    }

    void creditWhole(DocumentId invoiceId, LocalDate on) {
        jdbc.sql("""
                UPDATE debt SET credited_minor = amount_minor - settled_minor, settled_on = :on
                 WHERE invoice_id = :invoice
                """).param("on", on).param("invoice", invoiceId).update();
    }

    void creditPart(long debtId, Money part, LocalDate on) {
        jdbc.sql("""
                UPDATE debt
                   SET credited_minor = credited_minor + :part,
                       settled_on = CASE WHEN settled_minor + credited_minor + :part = amount_minor THEN :on END
                 WHERE id = :id
                """).param("part", part).param("on", on).param("id", debtId).update();
    }

    /** Whether nothing was ever appropriated to an invoice's debts, credited on them, or charged as a fee. */
    boolean untouched(DocumentId invoiceId) {
        return jdbc.sql("""
                SELECT (SELECT COUNT(*) FROM debt WHERE invoice_id = :invoice AND (fee OR credited_minor > 0))
                     + (SELECT COUNT(*) FROM appropriation a JOIN debt d ON d.id = a.debt_id
                         WHERE d.invoice_id = :invoice)
                """).param("invoice", invoiceId).query(Long.class).single() == 0;
    }

    void remove(DocumentId invoiceId) {
        jdbc.sql("DELETE FROM debt WHERE invoice_id = :invoice")
                .param("invoice", invoiceId)
                .update();
    }

    void creditFee(long debtId, LocalDate on) {
        jdbc.sql("""
                UPDATE debt SET credited_minor = amount_minor - settled_minor, settled_on = :on
                 WHERE id = :id AND fee
                """).param("on", on).param("id", debtId).update();
    }

    Optional<Money> openOf(long debtId) {
        return jdbc.sql("SELECT currency, open_minor FROM debt WHERE id = :id")
                .param("id", debtId)
                .query((rs, n) -> Money.ofMinor(CurrencyUnit.of(rs.getString(1)), rs.getLong(2)))
                .optional();
    }

    /** Payments that settled any of an invoice, those too that were taken back. */
    List<Long> payersOf(DocumentId invoiceId) {
        return jdbc.sql("""
                SELECT DISTINCT a.payment_id FROM debt d JOIN appropriation a ON a.debt_id = d.id
                 WHERE d.invoice_id = :invoice AND a.payment_id IS NOT NULL
                """).param("invoice", invoiceId).query(Long.class).list();
    }

    /** What is open and fell due before a day. */
    List<Debts.Late> late(LocalDate before) {
        return jdbc.sql("SELECT id, owed_by, open_minor FROM debt WHERE owed_by > 0 AND due_on < :before")
                .param("before", before)
                .query((rs, n) -> new Debts.Late(rs.getLong(1), new ClientId(rs.getLong(2)), rs.getLong(3)))
                .list();
    }

    /** Invoices of these clients on which anything is open. */
    List<DocumentId> openInvoicesOf(Collection<ClientId> clientIds) {
        // A join, since an IN list would read all of a client's invoices through the index, settled ones too.
        return jdbc.sql("""
                SELECT DISTINCT d.invoice_id FROM UNNEST(CAST(:clients AS BIGINT ARRAY)) AS c (id)
                  JOIN debt d ON d.owed_by = c.id
                """)
                .param("clients", clientIds.stream().map(ClientId::value).toArray(Long[]::new))
                .query((rs, n) -> new DocumentId(rs.getLong(1)))
                .list();
    }

    List<Appropriation.Part> settledBy(long paymentId) {
        return parts("""
                SELECT i.id, i.invoice_id, i.number, i.place, i.fee, i.due_on, i.currency, i.open_minor,
                       SUM(a.amount_minor) AS part, 0 AS payment
                  FROM appropriation a
                  JOIN debt i ON i.id = a.debt_id
                 WHERE a.payment_id = :id
                 GROUP BY i.id, i.invoice_id, i.number, i.place, i.fee, i.due_on, i.currency, i.open_minor
                HAVING SUM(a.amount_minor) > 0
                 ORDER BY i.due_on, i.id
                """, paymentId).getOrDefault(0L, List.of());
    }

    /** What settles an invoice, by payment; key 0 is client credit. */
    Map<Long, List<Appropriation.Part>> settlersOf(DocumentId invoiceId) {
        return settlers("i.invoice_id", invoiceId);
    }

    /** What settles one debt, by payment; key 0 is client credit. */
    Map<Long, List<Appropriation.Part>> settlersOfDebt(long debtId) {
        return settlers("i.id", debtId);
    }

    private Map<Long, List<Appropriation.Part>> settlers(String column, Object id) {
        return parts("""
                SELECT i.id, i.invoice_id, i.number, i.place, i.fee, i.due_on, i.currency, i.open_minor,
                       SUM(a.amount_minor) AS part, COALESCE(a.payment_id, 0) AS payment
                  FROM appropriation a
                  JOIN debt i ON i.id = a.debt_id
                 WHERE %s = :id
                 GROUP BY i.id, i.invoice_id, i.number, i.place, i.fee, i.due_on, i.currency, i.open_minor,
                       COALESCE(a.payment_id, 0)
                HAVING SUM(a.amount_minor) > 0
                 ORDER BY COALESCE(a.payment_id, 0), i.due_on, i.id
                """.formatted(column), id);
    }

    List<Appropriation.Part> creditUsesNewestFirst(ClientId clientId, CurrencyUnit currency) {
        return parts("""
                SELECT i.id, i.invoice_id, i.number, i.place, i.fee, i.due_on, i.currency, i.open_minor,
                       SUM(a.amount_minor) AS part, 0 AS payment
                  FROM appropriation a
                  JOIN debt i ON i.id = a.debt_id
                 WHERE i.client_id = :id AND a.payment_id IS NULL
                 GROUP BY i.id, i.invoice_id, i.number, i.place, i.fee, i.due_on, i.currency, i.open_minor
                HAVING SUM(a.amount_minor) > 0
                 ORDER BY MAX(a.id) DESC
                """, clientId).getOrDefault(0L, List.of()).stream()
                .filter(p -> p.amount().getCurrencyUnit().equals(currency))
                .toList();
    }

    private Map<Long, List<Appropriation.Part>> parts(String sql, Object id) {
        Map<Long, List<Appropriation.Part>> byPayment = new LinkedHashMap<>();
        jdbc.sql(sql).param("id", id).query(rs -> {
            Money part = Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("part"));
            byPayment
                    .computeIfAbsent(rs.getLong("payment"), k -> new ArrayList<>())
                    .add(new Appropriation.Part(debt(rs, 0), part));
        });
        return byPayment;
    }

    private static OpenDebt debt(ResultSet rs, int row) throws SQLException {
        return new OpenDebt(
                rs.getLong("id"),
                new DocumentId(rs.getLong("invoice_id")),
                rs.getString("number"),
                rs.getInt("place"),
                rs.getBoolean("fee"),
                rs.getDate("due_on").toLocalDate(),
                Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("open_minor")));
    }

    private static StoredInstallment installment(ResultSet rs, int row) throws SQLException {
        CurrencyUnit currency = CurrencyUnit.of(rs.getString("currency"));
        return new StoredInstallment(
                rs.getLong("id"),
                new DocumentId(rs.getLong("invoice_id")),
                rs.getInt("place"),
                DebtKind.of(rs.getBoolean("deposit"), rs.getBoolean("fee")),
                Money.ofMinor(currency, rs.getLong("amount_minor")),
                Money.ofMinor(currency, rs.getLong("settled_minor")),
                Money.ofMinor(currency, rs.getLong("credited_minor")),
                Money.ofMinor(currency, rs.getLong("open_minor")),
                rs.getDate("due_on").toLocalDate(),
                Rows.date(rs, "settled_on"),
                rs.getString("note"),
                rs.getString("why"));
    }

    @Bean
    ClientRows debtsOfClients() {
        return ClientRows.of(jdbc, "debt");
    }
}
