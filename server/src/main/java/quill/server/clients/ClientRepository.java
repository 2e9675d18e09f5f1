package quill.server.clients;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.server.common.Rows;

/** Table CLIENT. */
@Repository
class ClientRepository {
    private static final String SELECT = """
            SELECT id, name, contact, email, address, country, tax_number, certificate, exempt_until, version FROM client
            """;
    private final JdbcClient jdbc;

    ClientRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<Client> find(long id) {
        return jdbc.sql(SELECT + " WHERE id = :id")
                .param("id", id)
                .query(ClientRepository::client)
                .optional();
    }

    int count() {
        return jdbc.sql("SELECT COUNT(*) FROM client").query(Integer.class).single();
    }

    Optional<Client> lock(long id) {
        return jdbc.sql(SELECT + " WHERE id = :id FOR UPDATE")
                .param("id", id)
                .query(ClientRepository::client)
                .optional();
    }

    List<Client> all() {
        return jdbc.sql(SELECT + " ORDER BY LOWER(name), id")
                .query(ClientRepository::client)
                .list();
    }

    List<Client> some(Collection<Long> ids) {
        return jdbc.sql(SELECT + " WHERE id IN (:ids)")
                .param("ids", ids)
                .query(ClientRepository::client)
                .list();
    }

    long insert(Client c) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO client (name, contact, email, address, country, tax_number, certificate, exempt_until)
                VALUES (:name, :contact, :email, :address, :country, :taxNumber, :certificate, :until)
                """)
                .param("name", c.name())
                .param("contact", c.contact())
                .param("email", c.email())
                .param("address", c.address())
                .param("country", c.country())
                .param("taxNumber", c.taxNumber())
                .param("certificate", c.certificate())
                .param("until", c.exemptUntil())
                .update(key, "id");
        return key.getKey().longValue();
    }

    int update(Client c) {
        return jdbc.sql("""
                UPDATE client
                   SET name = :name, contact = :contact, email = :email, address = :address,
                       country = :country, tax_number = :taxNumber, certificate = :certificate,
                       exempt_until = :until, version = version + 1
                 WHERE id = :id AND version = :version
                """)
                .param("name", c.name())
                .param("contact", c.contact())
                .param("email", c.email())
                .param("address", c.address())
                .param("country", c.country())
                .param("taxNumber", c.taxNumber())
                .param("certificate", c.certificate())
                .param("until", c.exemptUntil())
                .param("id", c.id())
                .param("version", c.version())
                .update();
    }

    private static Client client(ResultSet rs, int row) throws SQLException {
        return new Client(
                rs.getLong("id"),
                rs.getString("name"),
                rs.getString("contact"),
                rs.getString("email"),
                rs.getString("address"),
                rs.getString("country"),
                rs.getString("tax_number"),
                rs.getString("certificate"),
                Rows.date(rs, "exempt_until"),
                rs.getInt("version"));
    }
}
