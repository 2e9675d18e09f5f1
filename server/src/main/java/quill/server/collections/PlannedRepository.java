package quill.server.collections;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.collections.PlannedPayment.State;
import quill.server.common.ClientRows;
import quill.server.common.DebtParts;
import quill.server.common.Ids;
import quill.server.common.StoredWord;

/** Tables PLANNED_PAYMENT and PLANNED_DEBT. Holds no rules; the caller opens the transaction. */
@Repository
class PlannedRepository {
    private static final String SELECT = """
            SELECT id, document_id, client_id, method_id, currency, amount_minor, on_day, state, why,
                   (SELECT LISTAGG(debt_id || ':' || amount_minor, ',') FROM planned_debt d WHERE d.planned_id = p.id) AS parts
              FROM planned_payment p
            """;

    private final JdbcClient jdbc;

    PlannedRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(PlannedPayment p, LocalDate plannedOn) {
        GeneratedKeyHolder id = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO planned_payment (document_id, client_id, method_id, currency, amount_minor, on_day, state, planned_on)
                VALUES (:document, :client, :method, :currency, :amount, :on, :state, :planned)
                """)
                .param("document", p.documentId())
                .param("client", p.clientId())
                .param("method", p.methodId())
                .param("currency", p.amount().getCurrencyUnit().getCode())
                .param("amount", p.amount())
                .param("on", p.on())
                .param("state", p.state().word())
                .param("planned", plannedOn)
                .update(id, "id");
        long planned = id.getKey().longValue();
        p.parts()
                .forEach((debt, part) -> jdbc.sql("""
                        INSERT INTO planned_debt (planned_id, debt_id, amount_minor) VALUES (:planned, :debt, :amount)
                        """)
                        .param("planned", planned)
                        .param("debt", debt)
                        .param("amount", part)
                        .update());
        return planned;
    }

    Optional<PlannedPayment> find(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id")
                .param("id", id)
                .query(PlannedRepository::planned)
                .optional();
    }

    /** What is planned for a document, whichever comes first at the top. */
    List<PlannedPayment> ofDocument(DocumentId id) {
        return in(State.PLANNED, "AND document_id = :of", id);
    }

    /** What is planned of a client. */
    List<PlannedPayment> ofClient(ClientId id) {
        return in(State.PLANNED, "AND client_id = :of", id);
    }

    /** What is planned with a saved method. */
    List<PlannedPayment> withMethod(long id) {
        return in(State.PLANNED, "AND method_id = :of", id);
    }

    /** Whose day has come. */
    List<PlannedPayment> due(LocalDate by) {
        return in(State.PLANNED, "AND on_day <= :of", by);
    }

    /** Those in a state. */
    List<PlannedPayment> all(State state) {
        return in(state, "AND id > :of", 0);
    }

    private List<PlannedPayment> in(State state, String and, Object of) {
        return jdbc.sql(SELECT + "WHERE state = :state " + and + " ORDER BY on_day, id LIMIT 300")
                .param("state", state.word())
                .param("of", of)
                .query(PlannedRepository::planned)
                .list();
    }

    /** What is planned of each debt of some clients. */
    Map<Long, Money> byDebt(Collection<ClientId> clientIds) {
        Map<Long, Money> sums = new HashMap<>();
        jdbc.sql("""
                SELECT d.debt_id, d.amount_minor, p.currency FROM planned_payment p
                  JOIN UNNEST(CAST(:clients AS BIGINT ARRAY)) AS given (one) ON one = p.client_id
                  JOIN planned_debt d ON d.planned_id = p.id
                 WHERE p.state = 'planned'
                """)
                .param("clients", Ids.array(clientIds))
                .query((rs, n) -> sums.merge(
                        rs.getLong("debt_id"),
                        Money.ofMinor(CurrencyUnit.of(rs.getString("currency")), rs.getLong("amount_minor")),
                        Money::plus))
                .list();
        return sums;
    }

    /** @return rows changed: none where it is planned no more */
    int end(long id, State to, String why) {
        return jdbc.sql("UPDATE planned_payment SET state = :to, why = :why WHERE id = :id AND state = 'planned'")
                .param("to", to.word())
                .param("why", why)
                .param("id", id)
                .update();
    }

    /** It was taken, whatever was said of it while that was done. */
    void taken(long id) {
        jdbc.sql("UPDATE planned_payment SET state = 'taken', why = '' WHERE id = :id")
                .param("id", id)
                .update();
    }

    /** A person has seen that it failed. */
    void seen(long id) {
        jdbc.sql("UPDATE planned_payment SET state = 'over' WHERE id = :id AND state = 'failed'")
                .param("id", id)
                .update();
    }

    private static PlannedPayment planned(ResultSet rs, int row) throws SQLException {
        CurrencyUnit currency = CurrencyUnit.of(rs.getString("currency"));
        return new PlannedPayment(
                rs.getLong("id"),
                Ids.document(rs, "document_id"),
                Ids.client(rs, "client_id"),
                rs.getLong("method_id"),
                Money.ofMinor(currency, rs.getLong("amount_minor")),
                DebtParts.read(rs.getString("parts"), currency),
                rs.getDate("on_day").toLocalDate(),
                StoredWord.of(State.class, rs.getString("state")),
                rs.getString("why"));
    }

    @Bean
    ClientRows plannedPaymentsOfClients() {
        return ClientRows.of(jdbc, "planned_payment");
    }
}
