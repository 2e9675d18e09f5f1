package quill.server.savedmethods;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.context.annotation.Bean;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.pay.CardExpiry;
import quill.core.pay.CollectionAgreement;
import quill.core.pay.WayToPay;
import quill.server.common.ClientRows;
import quill.server.common.Ids;
import quill.server.common.StoredWord;
import quill.server.savedmethods.SavedMethod.State;

/** Tables SAVED_METHOD and SAVED_METHOD_SETTING. Holds no rules; the caller opens the transaction. */
@Repository
class SavedMethodRepository {
    private static final String SELECT = """
            SELECT id, client_id, at_processor, token, way, name, last_four, expires, state, collects, currency, most_minor,
                   agreed_how, agreed_words, kept_on
              FROM saved_method
            """;

    private final JdbcClient jdbc;

    SavedMethodRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long insert(SavedMethod m) {
        GeneratedKeyHolder id = new GeneratedKeyHolder();
        CollectionAgreement agreement = m.agreed().agreement();
        jdbc.sql("""
                INSERT INTO saved_method (client_id, at_processor, token, way, name, last_four, expires, state, collects,
                  currency, most_minor, agreed_how, agreed_words, kept_on)
                VALUES (:client, :processor, :token, :way, :name, :lastFour, :expires, :state, :collects,
                  :currency, :most, :how, :words, :on)
                """)
                .param("client", m.clientId())
                .param("processor", m.processor())
                .param("token", m.token())
                .param("way", m.with().way().name())
                .param("name", m.with().name())
                .param("lastFour", m.with().lastFour())
                .param(
                        "expires",
                        m.with().expires() == null ? "" : m.with().expires().words())
                .param("state", m.state().word())
                .param("collects", agreement.collects())
                .param(
                        "currency",
                        agreement.most() == null
                                ? null
                                : agreement.most().getCurrencyUnit().getCode())
                .param("most", agreement.most())
                .param("how", m.agreed().how().word())
                .param("words", m.agreed().words())
                .param("on", m.on())
                .update(id, "id");
        return id.getKey().longValue();
    }

    Optional<SavedMethod> find(long id) {
        return jdbc.sql(SELECT + "WHERE id = :id")
                .param("id", id)
                .query(SavedMethodRepository::method)
                .optional();
    }

    Optional<SavedMethod> byToken(long processor, String token) {
        return jdbc.sql(SELECT + "WHERE at_processor = :processor AND token = :token")
                .param("processor", processor)
                .param("token", token)
                .query(SavedMethodRepository::method)
                .optional();
    }

    /** Those of a client that were not removed, the latest first. */
    List<SavedMethod> ofClient(ClientId clientId) {
        return jdbc.sql(SELECT + "WHERE client_id = :client AND state = 'usable' ORDER BY id DESC")
                .param("client", clientId)
                .query(SavedMethodRepository::method)
                .list();
    }

    /** Those in a state, the oldest first. */
    List<SavedMethod> in(State state) {
        return jdbc.sql(SELECT + "WHERE state = :state ORDER BY id")
                .param("state", state.word())
                .query(SavedMethodRepository::method)
                .list();
    }

    /** @return rows changed: none where it was in none of these states */
    int move(long id, State to, Set<State> from) {
        return jdbc.sql("UPDATE saved_method SET state = :to WHERE id = :id AND state IN (:from)")
                .param("to", to.word())
                .param("id", id)
                .param("from", from.stream().map(State::word).toList())
                .update();
    }

    Optional<SavedMethods.SavedSetting> setting() {
        return jdbc.sql("SELECT offered, later_days, version FROM saved_method_setting WHERE id = 1")
                .query((rs, n) -> new SavedMethods.SavedSetting(rs.getBoolean(1), rs.getInt(2), rs.getInt(3)))
                .optional();
    }

    /** @return whether nobody was faster; the first time the version is 0 */
    boolean keep(SavedMethods.SavedSetting s) {
        try {
            JdbcClient.StatementSpec sql = jdbc.sql(
                            s.version() == 0
                                    ? "INSERT INTO saved_method_setting (id, offered, later_days) VALUES (1, :offered, :days)"
                                    : """
                                      UPDATE saved_method_setting
                                         SET offered = :offered, later_days = :days, version = version + 1
                                       WHERE id = 1 AND version = :version
                                      """)
                    .param("offered", s.offered())
                    .param("days", s.laterDays());
            return (s.version() == 0 ? sql : sql.param("version", s.version())).update() == 1;
        } catch (DuplicateKeyException e) {
            // Two windows kept it for the first time at once.
            return false;
        }
    }

    private static SavedMethod method(ResultSet rs, int row) throws SQLException {
        return new SavedMethod(
                rs.getLong("id"),
                Ids.client(rs, "client_id"),
                rs.getLong("at_processor"),
                rs.getString("token"),
                new SavedMethod.With(
                        WayToPay.valueOf(rs.getString("way")),
                        rs.getString("name"),
                        rs.getString("last_four"),
                        CardExpiry.read(rs.getString("expires")).orElse(null)),
                StoredWord.of(State.class, rs.getString("state")),
                new Agreed(
                        StoredWord.of(Agreed.How.class, rs.getString("agreed_how")),
                        Agreed.agreement(rs, "collects", "most_minor"),
                        rs.getString("agreed_words")),
                rs.getDate("kept_on").toLocalDate());
    }

    @Bean
    ClientRows savedMethodsOfClients() {
        return ClientRows.of(jdbc, "saved_method");
    }
}
