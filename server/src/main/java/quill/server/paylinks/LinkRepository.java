package quill.server.paylinks;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.server.common.Amount;
import quill.server.common.ClientRows;
import quill.server.common.Ids;
import quill.server.common.Json;
import quill.server.common.Rows;

/** Table PAYMENT_LINK. Holds no rules; the caller opens the transaction. */
@Repository
class LinkRepository {
    private static final String SELECT = """
            SELECT id, token, title, description, currency, least_minor, most_minor, taxes, once, ends_on, terms, fields, thanks,
                   onward, client_id, holds, shown, closed, version, made_on
              FROM payment_link
            """;

    private final JdbcClient jdbc;
    private final Json json;

    LinkRepository(JdbcClient jdbc, Json json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    long insert(String key, String token, PaymentLink l) {
        GeneratedKeyHolder id = new GeneratedKeyHolder();
        said(jdbc.sql("""
                INSERT INTO payment_link (made_key, token, title, description, currency, least_minor, most_minor, taxes, once,
                  ends_on, terms, fields, thanks, onward, client_id, holds, shown, made_on)
                VALUES (:key, :token, :title, :description, :currency, :least, :most, :taxes, :once,
                  :end, :terms, :fields, :thanks, :onward, :client, :holds, :shown, :made)
                """), l)
                .param("key", key)
                .param("token", token)
                .param("shown", l.rules().shown())
                .param("made", l.madeOn())
                .update(id, "id");
        return id.getKey().longValue();
    }

    /** @return rows changed: none where another window changed it first */
    int update(long id, PaymentLink l) {
        return said(jdbc.sql("""
                UPDATE payment_link
                   SET title = :title, description = :description, currency = :currency, least_minor = :least,
                       most_minor = :most, taxes = :taxes, once = :once, ends_on = :end, terms = :terms, fields = :fields,
                       thanks = :thanks, onward = :onward, client_id = :client, holds = :holds, version = version + 1
                 WHERE id = :id AND version = :version
                """), l)
                .param("id", id)
                .param("version", l.version())
                .update();
    }

    private JdbcClient.StatementSpec said(JdbcClient.StatementSpec sql, PaymentLink l) {
        return sql.param("title", l.title())
                .param("description", l.description())
                .param("currency", l.asks().least().currency())
                .param("least", l.asks().least().money())
                .param("most", l.asks().most().money())
                .param("taxes", String.join(" ", l.taxes()))
                .param("once", l.rules().once())
                .param("end", l.rules().endsOn())
                .param("terms", l.rules().terms())
                .param("fields", json.write(l.fields()))
                .param("thanks", l.after().thanks())
                .param("onward", l.after().onward())
                .param("client", l.rules().clientId())
                .param("holds", l.rules().hold());
    }

    int close(long id, int version, boolean closed) {
        return jdbc.sql("""
                UPDATE payment_link SET closed = :closed, version = version + 1 WHERE id = :id AND version = :version
                """)
                .param("closed", closed)
                .param("id", id)
                .param("version", version)
                .update();
    }

    Optional<PaymentLink> find(long id) {
        return one("WHERE id = :of", id);
    }

    Optional<PaymentLink> lock(long id) {
        return one("WHERE id = :of FOR UPDATE", id);
    }

    Optional<PaymentLink> byToken(String token) {
        return one("WHERE token = :of", token);
    }

    Optional<PaymentLink> byKey(String key) {
        return one("WHERE made_key = :of", key);
    }

    /** All of the business's links, the latest first. */
    List<PaymentLink> all() {
        return jdbc.sql(SELECT + "WHERE shown ORDER BY id DESC")
                .query(this::link)
                .list();
    }

    private Optional<PaymentLink> one(String which, Object of) {
        return jdbc.sql(SELECT + which).param("of", of).query(this::link).optional();
    }

    private PaymentLink link(ResultSet rs, int row) throws SQLException {
        CurrencyUnit currency = CurrencyUnit.of(rs.getString("currency"));
        String taxes = rs.getString("taxes");
        return new PaymentLink(
                rs.getLong("id"),
                rs.getString("token"),
                rs.getString("title"),
                rs.getString("description"),
                new PaymentLink.LinkAsks(
                        Amount.of(Money.ofMinor(currency, rs.getLong("least_minor"))),
                        Amount.of(Money.ofMinor(currency, rs.getLong("most_minor")))),
                taxes.isEmpty() ? List.of() : Arrays.asList(taxes.split(" ")),
                new PaymentLink.LinkRules(
                        rs.getBoolean("once"),
                        Rows.date(rs, "ends_on"),
                        rs.getString("terms"),
                        Ids.client(rs, "client_id"),
                        rs.getBoolean("holds"),
                        rs.getBoolean("shown")),
                List.of(json.read(rs.getString("fields"), PaymentLink.LinkField[].class)),
                new PaymentLink.AfterPaying(rs.getString("thanks"), rs.getString("onward")),
                rs.getBoolean("closed"),
                rs.getInt("version"),
                rs.getDate("made_on").toLocalDate());
    }

    @Bean
    ClientRows paymentLinksOfClients() {
        return ClientRows.of(jdbc, "payment_link", "link_payment");
    }
}
