package quill.server.common;

import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import quill.core.id.ClientId;

/** What a feature holds of each client, and moves where two records of one client become one. */
@FunctionalInterface
public interface ClientRows {
    /** Makes the second client's what was the first one's, within the running transaction. @param name of the second */
    void move(ClientId from, ClientId into, String name);

    /** One row for each client: the one that stays keeps its own, and only where it has none gets the other's. */
    static ClientRows single(JdbcClient jdbc, String table) {
        return (from, into, name) -> {
            jdbc.sql("UPDATE " + table + " SET client_id = :into WHERE client_id = :from"
                            + " AND NOT EXISTS (SELECT 1 FROM " + table + " WHERE client_id = :into)")
                    .param("into", into)
                    .param("from", from)
                    .update();
            jdbc.sql("DELETE FROM " + table + " WHERE client_id = :from")
                    .param("from", from)
                    .update();
        };
    }

    /** Rows beside which the client's name stands: CLIENT_ID and CLIENT_NAME. */
    static ClientRows named(JdbcClient jdbc, String table) {
        return (from, into, name) -> {
            of(jdbc, table).move(from, into, name);
            rename(jdbc, table, into, name);
        };
    }

    /** A client's name, where it stands beside its rows. */
    static void rename(JdbcClient jdbc, String table, ClientId client, String name) {
        jdbc.sql("UPDATE " + table + " SET client_name = :name WHERE client_id = :client")
                .param("name", name)
                .param("client", client)
                .update();
    }

    /** Rows of these tables that need nothing but another CLIENT_ID. */
    static ClientRows of(JdbcClient jdbc, String... tables) {
        List<String> names = List.of(tables);
        return (from, into, name) ->
                names.forEach(table -> jdbc.sql("UPDATE " + table + " SET client_id = :into WHERE client_id = :from")
                        .param("into", into)
                        .param("from", from)
                        .update());
    }
}
