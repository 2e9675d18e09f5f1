package quill.server.debts;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.ClientRows;

/** Table WAITING_CREDIT: client credit that waits for the draft which replaces a credited invoice. */
@Repository
class WaitingCredit {
    private final JdbcClient jdbc;

    WaitingCredit(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void add(DocumentId draftId, ClientId clientId, Money amount) {
        jdbc.sql("""
                INSERT INTO waiting_credit (draft_id, client_id, currency, amount_minor)
                VALUES (:draft, :client, :currency, :amount)
                """)
                .param("draft", draftId)
                .param("client", clientId)
                .param("currency", amount.getCurrencyUnit().getCode())
                .param("amount", amount)
                .update();
    }

    int remove(DocumentId draftId) {
        return jdbc.sql("DELETE FROM waiting_credit WHERE draft_id = :draft")
                .param("draft", draftId)
                .update();
    }

    /** Whose credit waits, in which currency. */
    record Waiting(ClientId clientId, CurrencyUnit currency) {}

    Optional<Waiting> of(DocumentId draftId) {
        return jdbc.sql("SELECT client_id, currency FROM waiting_credit WHERE draft_id = :draft")
                .param("draft", draftId)
                .query((rs, n) -> new Waiting(new ClientId(rs.getLong(1)), CurrencyUnit.of(rs.getString(2))))
                .optional();
    }

    /** What waits, by client; clients without any are not in it. */
    Map<ClientId, Money> of(Collection<ClientId> clientIds, CurrencyUnit currency) {
        Map<ClientId, Money> waiting = new HashMap<>();
        if (!clientIds.isEmpty()) {
            jdbc.sql("""
                    SELECT client_id, SUM(amount_minor) AS minor FROM waiting_credit
                     WHERE client_id IN (:clients) AND currency = :currency GROUP BY client_id
                    """)
                    .param("clients", clientIds)
                    .param("currency", currency.getCode())
                    .query(rs -> {
                        waiting.put(
                                new ClientId(rs.getLong("client_id")), Money.ofMinor(currency, rs.getLong("minor")));
                    });
        }
        return waiting;
    }

    @Bean
    ClientRows waitingCreditOfClients() {
        return ClientRows.of(jdbc, "waiting_credit");
    }
}
