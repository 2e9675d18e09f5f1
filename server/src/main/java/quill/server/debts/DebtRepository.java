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
import quill.core.ledger.DebtKind;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Settlement;
import quill.core.schedule.Due;
import quill.server.common.ClientRows;
import quill.server.common.Ids;
import quill.server.common.Rows;
import quill.server.common.Texts;

/** Tables DEBT and DEBT_TERM. Holds no rules. */
@Repository
class DebtRepository {
    private static final String DEBT = """
            SELECT i.client_id, i.id, i.document_id, i.number, i.place, i.kind, i.due_on, i.order_on, i.currency,
                   i.open_minor
              FROM debt i
            """;

    private final JdbcClient jdbc;

    DebtRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** The milestone that a debt waits for. @param days after it is reached */
    record Awaited(long id, int days) {}

    /** A debt as it is agreed. @param onDebt what it was charged on, or null @param why how its amount was reached @param milestone or null */
    record New(
            ClientId clientId,
            DocumentId documentId,
            String number,
            DebtKind kind,
            Long onDebt,
            Money amount,
            LocalDate dueOn,
            LocalDate orderOn,
            String note,
            String why,
            Awaited milestone) {}

    /** @param place null for the next one of a fee, after all others @return the new debt's id */
    long insert(New d, Integer place, LocalDate on) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO debt (client_id, document_id, number, kind, on_debt_id, place, currency, first_minor,
                  amount_minor, due_on, order_on, note, milestone_id, milestone_days)
                VALUES (:client, :document, :number, :kind, :onDebt,
                  COALESCE(:place, (SELECT GREATEST(1000, MAX(place)) + 1 FROM debt WHERE document_id = :document)),
                  :currency, :amount, :amount, :due, :orderOn, :note, :milestone, :milestoneDays)
                """)
                .param("client", d.clientId())
                .param("document", d.documentId())
                .param("number", d.number())
                .param("kind", d.kind())
                .param("onDebt", d.onDebt())
                .param("place", place)
                .param("currency", d.amount().getCurrencyUnit().getCode())
                .param("amount", d.amount())
                .param("due", d.dueOn())
                .param("orderOn", d.orderOn())
                .param("note", Texts.fit(d.note(), 1000))
                .param("milestone", d.milestone() == null ? null : d.milestone().id())
                .param(
                        "milestoneDays",
                        d.milestone() == null ? null : d.milestone().days())
                .update(key, "id");
        long id = key.getKey().longValue();
        jdbc.sql("""
                INSERT INTO debt_term (debt_id, from_on, due_on, amount_minor, why)
                VALUES (:debt, :from, :due, :amount, :why)
                """)
                .param("debt", id)
                .param("from", on)
                .param("due", d.dueOn())
                .param("amount", d.amount())
                .param("why", d.why())
                .update();
        return id;
    }

    /** How the amount of a debt was reached, as it holds now. */
    String whyOf(long debtId) {
        return jdbc.sql("SELECT why FROM debt_term WHERE debt_id = :debt ORDER BY id DESC LIMIT 1")
                .param("debt", debtId)
                .query(String.class)
                .single();
    }

    List<StoredInstallment> of(Collection<DocumentId> invoiceIds) {
        return jdbc.sql("""
                SELECT d.id, d.document_id, d.place, d.kind, d.currency, d.amount_minor, d.settled_minor, d.credited_minor,
                       d.open_minor, d.due_on, d.order_on, d.settled_on, d.note, m.name, d.milestone_days, m.reached_on
                  FROM debt d LEFT JOIN milestone m ON m.id = d.milestone_id
                 WHERE d.document_id = ANY(CAST(:invoices AS BIGINT ARRAY)) AND d.replaced_on IS NULL
                 ORDER BY d.document_id, d.place
                """)
                .param("invoices", Ids.array(invoiceIds))
                .query(DebtRepository::installment)
                .list();
    }

    List<OpenDebt> open(ClientId clientId, CurrencyUnit currency) {
        return jdbc.sql(DEBT + """
                 WHERE i.owed_by = :client AND i.currency = :currency
                 ORDER BY i.order_on, i.id
                """)
                .param("client", clientId)
                .param("currency", currency.getCode())
                .query(DebtRepository::debt)
                .list();
    }

    Map<ClientId, List<OpenDebt>> openByClient(Collection<ClientId> clientIds, CurrencyUnit currency) {
        Map<ClientId, List<OpenDebt>> byClient = new LinkedHashMap<>();
        jdbc.sql(DEBT + """
                 WHERE i.owed_by IN (:clients) AND i.currency = :currency
                 ORDER BY i.order_on, i.id
                """)
                .param("clients", clientIds)
                .param("currency", currency.getCode())
                .query(rs -> {
                    byClient.computeIfAbsent(new ClientId(rs.getLong("client_id")), k -> new ArrayList<>())
                            .add(debt(rs, 0));
                });
        return byClient;
    }

    /** Changes one of a debt's sums, by a settlement that is kept beside it. */
    void change(long debtId, Settlement.Sum sum, Money amount, LocalDate on) {
        String column = switch (sum) {
            case SETTLED -> "settled_minor";
            case CREDITED -> "credited_minor";
            case WRITTEN_OFF -> "written_off_minor";
        };
        int rows = jdbc.sql("""
                UPDATE debt
                   SET %s = %s + :amount, settled_on = CASE WHEN open_minor = :amount THEN :on END
                 WHERE id = :id
                """.formatted(column, column))
                .param("amount", amount)
                .param("on", on)
                .param("id", debtId)
                .update();
        if (rows != 1) {
            throw new JdbcUpdateAffectedIncorrectNumberOfRowsException("settle " + debtId, 1, rows);
        }
    }

    /** Whether nothing was ever paid on a document's debts, credited on them, or charged beside them. */
    boolean untouched(DocumentId documentId) {
        return jdbc.sql("""
                SELECT (SELECT COUNT(*) FROM debt WHERE document_id = :document AND on_debt_id IS NOT NULL)
                     + (SELECT COUNT(*) FROM settlement s JOIN debt d ON d.id = s.debt_id
                         WHERE d.document_id = :document)
                """).param("document", documentId).query(Long.class).single() == 0;
    }

    void remove(DocumentId invoiceId) {
        jdbc.sql("DELETE FROM debt WHERE document_id = :invoice")
                .param("invoice", invoiceId)
                .update();
    }

    OpenDebt find(long debtId) {
        return jdbc.sql(DEBT + " WHERE i.id = :id")
                .param("id", debtId)
                .query(DebtRepository::debt)
                .single();
    }

    /** All debts of a document, settled ones too, in their order. */
    List<OpenDebt> debts(DocumentId documentId) {
        return jdbc.sql(DEBT + " WHERE i.document_id = :document AND i.replaced_on IS NULL ORDER BY i.place")
                .param("document", documentId)
                .query(DebtRepository::debt)
                .list();
    }

    Optional<Money> openOf(long debtId) {
        return jdbc.sql("SELECT currency, open_minor FROM debt WHERE id = :id")
                .param("id", debtId)
                .query((rs, n) -> Money.ofMinor(CurrencyUnit.of(rs.getString(1)), rs.getLong(2)))
                .optional();
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
                SELECT DISTINCT d.document_id FROM UNNEST(CAST(:clients AS BIGINT ARRAY)) AS c (id)
                  JOIN debt d ON d.owed_by = c.id
                """)
                .param("clients", Ids.array(clientIds))
                .query((rs, n) -> new DocumentId(rs.getLong(1)))
                .list();
    }

    static OpenDebt debt(ResultSet rs, int row) throws SQLException {
        return new OpenDebt(
                rs.getLong("id"),
                Ids.document(rs, "document_id"),
                rs.getString("number"),
                rs.getInt("place"),
                DebtKind.valueOf(rs.getString("kind")).isAdded(),
                Rows.date(rs, "due_on"),
                rs.getDate("order_on").toLocalDate(),
                Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("open_minor")));
    }

    private static StoredInstallment installment(ResultSet rs, int row) throws SQLException {
        CurrencyUnit currency = CurrencyUnit.of(rs.getString("currency"));
        return new StoredInstallment(
                rs.getLong("id"),
                Ids.document(rs, "document_id"),
                rs.getInt("place"),
                DebtKind.valueOf(rs.getString("kind")),
                Money.ofMinor(currency, rs.getLong("amount_minor")),
                Money.ofMinor(currency, rs.getLong("settled_minor")),
                Money.ofMinor(currency, rs.getLong("credited_minor")),
                Money.ofMinor(currency, rs.getLong("open_minor")),
                Rows.date(rs, "due_on"),
                rs.getDate("order_on").toLocalDate(),
                Rows.date(rs, "settled_on"),
                note(rs));
    }

    /** What is said beside it: of one that waits, for what. */
    private static String note(ResultSet rs) throws SQLException {
        String milestone = rs.getString("name");
        boolean dated = Rows.date(rs, "due_on") != null;
        if (milestone == null) {
            return dated ? rs.getString("note") : new Due.NoDateYet().words();
        }
        return dated
                ? "“" + milestone + "”, reached " + Texts.day(Rows.date(rs, "reached_on"))
                : "due " + new Due.AtMilestone(milestone, rs.getInt("milestone_days")).words();
    }

    @Bean
    ClientRows debtsOfClients() {
        return ClientRows.of(jdbc, "debt");
    }
}
