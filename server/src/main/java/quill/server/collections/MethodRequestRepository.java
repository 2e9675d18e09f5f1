package quill.server.collections;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import org.joda.money.Money;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.server.collections.MethodRequest.State;
import quill.server.common.ClientRows;
import quill.server.common.Ids;
import quill.server.common.StoredWord;
import quill.server.savedmethods.Agreed;

/** Table METHOD_REQUEST. Holds no rules; the caller opens the transaction. */
@Repository
class MethodRequestRepository {
    private static final String SELECT = """
            SELECT id, client_id, token, state, asked_on, at_processor, keeping_key, keeping_id, collects, currency, most_minor,
                   words, method_id
              FROM method_request
            """;

    private final JdbcClient jdbc;

    MethodRequestRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(MethodRequest r) {
        GeneratedKeyHolder id = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO method_request (client_id, token, state, asked_on) VALUES (:client, :token, :state, :on)
                """)
                .param("client", r.clientId())
                .param("token", r.token())
                .param("state", r.state().word())
                .param("on", r.askedOn())
                .update(id, "id");
        return id.getKey().longValue();
    }

    Optional<MethodRequest> find(long id) {
        return one("WHERE id = :of", id);
    }

    Optional<MethodRequest> lock(long id) {
        return one("WHERE id = :of FOR UPDATE", id);
    }

    Optional<MethodRequest> byToken(String token) {
        return one("WHERE token = :of", token);
    }

    /** The one that a client is asked by now. */
    Optional<MethodRequest> asked(ClientId clientId) {
        return one("WHERE client_id = :of AND state = 'asked' ORDER BY id DESC LIMIT 1", clientId);
    }

    private Optional<MethodRequest> one(String which, Object of) {
        return jdbc.sql(SELECT + which)
                .param("of", of)
                .query(MethodRequestRepository::request)
                .optional();
    }

    /** Those that were begun at a processor and have no known end. */
    List<MethodRequest> begun() {
        return jdbc.sql(SELECT + "WHERE state = 'asked' AND keeping_key IS NOT NULL ORDER BY id LIMIT 200")
                .query(MethodRequestRepository::request)
                .list();
    }

    /** The latest first. @param clientId of one client only, or null */
    List<MethodRequest> latest(ClientId clientId, int most) {
        return jdbc.sql(SELECT + "WHERE client_id = COALESCE(:client, client_id) ORDER BY id DESC LIMIT :most")
                .param("client", clientId)
                .param("most", most)
                .query(MethodRequestRepository::request)
                .list();
    }

    /** Something is begun anew at a processor, as agreed. */
    void begin(long id, MethodRequest.Begun begun, Agreed agreed) {
        Money most = agreed.agreement().most();
        jdbc.sql("""
                UPDATE method_request
                   SET at_processor = :processor, keeping_key = :key, keeping_id = :number, collects = :collects,
                       currency = :currency, most_minor = :most, words = :words
                 WHERE id = :id
                """)
                .param("processor", begun.processor())
                .param("key", begun.key())
                .param("number", begun.number())
                .param("collects", agreed.agreement().collects())
                .param("currency", most == null ? null : most.getCurrencyUnit().getCode())
                .param("most", most)
                .param("words", agreed.words())
                .param("id", id)
                .update();
    }

    /** The processor answered. */
    void opened(long id, String key, String number, String keepAt) {
        jdbc.sql("""
                UPDATE method_request SET keeping_id = :number, keep_at = :at WHERE id = :id AND keeping_key = :key
                """)
                .param("number", number)
                .param("at", keepAt)
                .param("id", id)
                .param("key", key)
                .update();
    }

    /** @param method what was kept; null for nothing @return rows changed: none where it is asked no more */
    int end(long id, State to, Long method) {
        return jdbc.sql("UPDATE method_request SET state = :to, method_id = :method WHERE id = :id AND state = 'asked'")
                .param("to", to.word())
                .param("method", method)
                .param("id", id)
                .update();
    }

    private static MethodRequest request(ResultSet rs, int row) throws SQLException {
        String key = rs.getString("keeping_key");
        return new MethodRequest(
                rs.getLong("id"),
                Ids.client(rs, "client_id"),
                rs.getString("token"),
                StoredWord.of(State.class, rs.getString("state")),
                rs.getDate("asked_on").toLocalDate(),
                key == null
                        ? null
                        : new MethodRequest.Begun(rs.getLong("at_processor"), key, rs.getString("keeping_id")),
                key == null
                        ? null
                        : new Agreed(
                                Agreed.How.PAGE, Agreed.agreement(rs, "collects", "most_minor"), rs.getString("words")),
                rs.getObject("method_id", Long.class));
    }

    @Bean
    ClientRows methodRequestsOfClients() {
        return ClientRows.of(jdbc, "method_request");
    }
}
