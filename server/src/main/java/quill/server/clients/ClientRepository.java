package quill.server.clients;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.server.common.Ids;
import quill.server.common.Json;
import quill.server.common.ReadOnce;
import quill.server.common.Rows;

/** Tables CLIENT and CLIENT_CONTACT. */
@Repository
class ClientRepository {
    private static final String SELECT = """
            SELECT id, name, contact, email, address, country, tax_number, certificate, exempt_until, kind, number, phone,
                   delivery, currency, days_to_pay, schedule_id, taxes, tags, notes, archived, merged_into, version
              FROM client
            """;
    private final JdbcClient jdbc;
    private final Json json;

    ClientRepository(JdbcClient jdbc, Json json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /** A client with its state. @param mergedInto the one that it became a part of, or null */
    record Stored(Client client, boolean archived, ClientId mergedInto) {}

    Map<ClientId, String> names() {
        Map<ClientId, String> names = new HashMap<>();
        jdbc.sql("SELECT id, name FROM client").query(rs -> {
            names.put(new ClientId(rs.getLong(1)), rs.getString(2));
        });
        return names;
    }

    Optional<Stored> find(ClientId id) {
        return ReadOnce.of("client", id, () -> one(SELECT + " WHERE id = :id", id));
    }

    Optional<Stored> lock(ClientId id) {
        return ReadOnce.locked("client", id, () -> one(SELECT + " WHERE id = :id FOR UPDATE", id));
    }

    private Optional<Stored> one(String sql, ClientId id) {
        return withContacts(jdbc.sql(sql).param("id", id).query(this::row).list()).stream()
                .findFirst();
    }

    /** How many there are, those that were merged into others left out. */
    int count() {
        return jdbc.sql("SELECT COUNT(*) FROM client WHERE merged_into IS NULL")
                .query(Integer.class)
                .single();
    }

    /** All by name, those that were merged into others left out. */
    List<Stored> all() {
        return withContacts(jdbc.sql(SELECT + " WHERE merged_into IS NULL ORDER BY LOWER(name), id")
                .query(this::row)
                .list());
    }

    List<Stored> some(Collection<ClientId> ids) {
        List<Stored> some =
                withContacts(jdbc.sql(SELECT + " JOIN UNNEST(CAST(:ids AS BIGINT ARRAY)) AS given (one) ON one = id")
                        .param("ids", Ids.array(ids))
                        .query(this::row)
                        .list());
        some.forEach(s -> ReadOnce.know("client", s.client().id(), Optional.of(s)));
        return some;
    }

    ClientId insert(Client c) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        written(jdbc.sql("""
                INSERT INTO client (name, contact, email, address, country, tax_number, certificate, exempt_until, kind,
                                    number, phone, delivery, currency, days_to_pay, schedule_id, taxes, tags, notes)
                VALUES (:name, :contact, :email, :address, :country, :taxNumber, :certificate, :until, :kind,
                        :number, :phone, :delivery, :currency, :days, :schedule, :taxes, :tags, :notes)
                """), c).update(key, "id");
        ClientId id = new ClientId(key.getKey().longValue());
        contacts(id, c.more().contacts());
        return id;
    }

    int update(Client c) {
        int rows = written(jdbc.sql("""
                UPDATE client
                   SET name = :name, contact = :contact, email = :email, address = :address, country = :country,
                       tax_number = :taxNumber, certificate = :certificate, exempt_until = :until, kind = :kind,
                       number = :number, phone = :phone, delivery = :delivery, currency = :currency,
                       days_to_pay = :days, schedule_id = :schedule, taxes = :taxes, tags = :tags, notes = :notes, version = version + 1
                 WHERE id = :id AND version = :version AND merged_into IS NULL
                """), c)
                .param("id", c.id())
                .param("version", c.version())
                .update();
        if (rows == 1) {
            contacts(c.id(), c.more().contacts());
        }
        return rows;
    }

    private JdbcClient.StatementSpec written(JdbcClient.StatementSpec sql, Client c) {
        ClientMore m = c.more();
        return sql.param("name", c.name())
                .param("contact", c.contact())
                .param("email", c.email())
                .param("address", c.address())
                .param("country", c.country())
                .param("taxNumber", c.taxNumber())
                .param("certificate", c.certificate())
                .param("until", c.exemptUntil())
                .param("kind", m.kind())
                .param("number", m.number())
                .param("phone", m.phone())
                .param("delivery", m.delivery())
                .param("currency", m.currency())
                .param("days", m.daysToPay())
                .param("schedule", m.schedule())
                .param("taxes", json.write(m.taxes()))
                .param("tags", json.write(m.tags()))
                .param("notes", m.notes());
    }

    private void contacts(ClientId id, List<Contact> contacts) {
        jdbc.sql("DELETE FROM client_contact WHERE client_id = :id")
                .param("id", id)
                .update();
        for (int i = 0; i < contacts.size(); i++) {
            Contact c = contacts.get(i);
            jdbc.sql("""
                    INSERT INTO client_contact (client_id, place, name, email, phone, reminders, receipts)
                    VALUES (:id, :place, :name, :email, :phone, :reminders, :receipts)
                    """)
                    .param("id", id)
                    .param("place", i)
                    .param("name", c.name())
                    .param("email", c.email())
                    .param("phone", c.phone())
                    .param("reminders", c.reminders())
                    .param("receipts", c.receipts())
                    .update();
        }
    }

    int archive(ClientId id, int version, boolean archived) {
        return jdbc.sql("""
                UPDATE client SET archived = :archived, version = version + 1
                 WHERE id = :id AND version = :version AND merged_into IS NULL
                """)
                .param("archived", archived)
                .param("id", id)
                .param("version", version)
                .update();
    }

    int delete(ClientId id, int version) {
        return jdbc.sql("DELETE FROM client WHERE id = :id AND version = :version")
                .param("id", id)
                .param("version", version)
                .update();
    }

    /** Marks one as a part of another, and whatever was merged into it before. */
    void merged(ClientId from, ClientId into) {
        jdbc.sql("""
                UPDATE client SET merged_into = :into, version = version + 1 WHERE id = :from OR merged_into = :from
                """).param("into", into).param("from", from).update();
    }

    private Stored row(ResultSet rs, int n) throws SQLException {
        return new Stored(
                new Client(
                        new ClientId(rs.getLong("id")),
                        rs.getString("name"),
                        rs.getString("contact"),
                        rs.getString("email"),
                        rs.getString("address"),
                        rs.getString("country"),
                        rs.getString("tax_number"),
                        rs.getString("certificate"),
                        Rows.date(rs, "exempt_until"),
                        new ClientMore(
                                ClientMore.Kind.valueOf(rs.getString("kind")),
                                rs.getString("number"),
                                rs.getString("phone"),
                                rs.getString("delivery"),
                                rs.getString("currency"),
                                rs.getObject("days_to_pay", Integer.class),
                                rs.getObject("schedule_id", Long.class),
                                List.of(json.read(rs.getString("taxes"), String[].class)),
                                List.of(),
                                rs.getString("notes"),
                                List.of(json.read(rs.getString("tags"), String[].class))),
                        rs.getInt("version")),
                rs.getBoolean("archived"),
                Ids.client(rs, "merged_into"));
    }

    private List<Stored> withContacts(List<Stored> clients) {
        if (clients.isEmpty()) {
            return clients;
        }
        Map<ClientId, List<Contact>> contacts = new HashMap<>();
        jdbc.sql("""
                SELECT client_id, name, email, phone, reminders, receipts FROM client_contact
                  JOIN UNNEST(CAST(:clients AS BIGINT ARRAY)) AS given (one) ON one = client_id
                 ORDER BY client_id, place
                """)
                .param(
                        "clients",
                        Ids.array(clients.stream().map(s -> s.client().id()).toList()))
                .query(rs -> {
                    contacts.computeIfAbsent(new ClientId(rs.getLong(1)), i -> new ArrayList<>())
                            .add(new Contact(
                                    rs.getString(2),
                                    rs.getString(3),
                                    rs.getString(4),
                                    rs.getBoolean(5),
                                    rs.getBoolean(6)));
                });
        return contacts.isEmpty()
                ? clients
                : clients.stream()
                        .map(s -> with(s, contacts.getOrDefault(s.client().id(), List.of())))
                        .toList();
    }

    private static Stored with(Stored s, List<Contact> contacts) {
        Client c = s.client();
        return new Stored(c.with(c.more().with(contacts)), s.archived(), s.mergedInto());
    }
}
