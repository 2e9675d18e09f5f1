package quill.server.ways;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.context.annotation.Bean;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.id.Id;
import quill.core.pay.TypedWay;
import quill.core.pay.WayToPay;
import quill.server.common.ClientRows;
import quill.server.common.Json;
import quill.server.common.ReadOnce;

/** Tables WAY_SETTING, CLIENT_WAY and DOCUMENT_WAY. Holds no rules; the caller opens the transaction. */
@Repository
class WayRepository {
    private final JdbcClient jdbc;
    private final Json json;

    WayRepository(JdbcClient jdbc, Json json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    record Stored(List<TypedWay> ways, int version) {}

    Optional<Stored> find() {
        return ReadOnce.of("way_setting", "all", this::read);
    }

    private Optional<Stored> read() {
        return jdbc.sql("SELECT ways, version FROM way_setting WHERE id = 1")
                .query((rs, n) ->
                        new Stored(List.of(json.read(rs.getString("ways"), TypedWay[].class)), rs.getInt("version")))
                .optional();
    }

    /** @return whether nobody kept them meanwhile */
    boolean keep(List<TypedWay> ways, int version) {
        try {
            return version == 0
                    ? jdbc.sql("INSERT INTO way_setting (id, ways) VALUES (1, :ways)")
                                    .param("ways", json.write(ways))
                                    .update()
                            == 1
                    : jdbc.sql("""
                            UPDATE way_setting SET ways = :ways, version = version + 1
                             WHERE id = 1 AND version = :version
                            """)
                                    .param("ways", json.write(ways))
                                    .param("version", version)
                                    .update()
                            == 1;
        } catch (DuplicateKeyException e) {
            return false;
        }
    }

    Optional<Set<WayToPay>> ofClient(ClientId id) {
        return ReadOnce.of("client_way", id, () -> chosen("SELECT ways FROM client_way WHERE client_id = :whose", id));
    }

    Optional<Set<WayToPay>> ofDocument(DocumentId id) {
        return ReadOnce.of(
                "document_way", id, () -> chosen("SELECT ways FROM document_way WHERE document_id = :whose", id));
    }

    private Optional<Set<WayToPay>> chosen(String sql, Id<?> whose) {
        return jdbc.sql(sql)
                .param("whose", whose)
                .query(String.class)
                .optional()
                .map(WayRepository::read);
    }

    private static Set<WayToPay> read(String words) {
        return Arrays.stream(words.split(" "))
                .filter(w -> !w.isEmpty())
                .map(WayToPay::valueOf)
                .collect(Collectors.toCollection(() -> EnumSet.noneOf(WayToPay.class)));
    }

    /** @param ways null for as usual */
    void chooseForClient(ClientId id, Set<WayToPay> ways) {
        choose(
                "DELETE FROM client_way WHERE client_id = :whose",
                "INSERT INTO client_way (client_id, ways) VALUES (:whose, :ways)",
                id,
                ways);
    }

    /** @param ways null for as usual */
    void chooseForDocument(DocumentId id, Set<WayToPay> ways) {
        choose(
                "DELETE FROM document_way WHERE document_id = :whose",
                "INSERT INTO document_way (document_id, ways) VALUES (:whose, :ways)",
                id,
                ways);
    }

    boolean holds(DocumentId id) {
        return ReadOnce.of(
                "document_hold",
                id,
                () -> jdbc.sql("SELECT 1 FROM document_hold WHERE document_id = :id")
                        .param("id", id)
                        .query(Integer.class)
                        .optional()
                        .isPresent());
    }

    void hold(DocumentId id, boolean holds) {
        jdbc.sql("DELETE FROM document_hold WHERE document_id = :id")
                .param("id", id)
                .update();
        if (holds) {
            jdbc.sql("INSERT INTO document_hold (document_id) VALUES (:id)")
                    .param("id", id)
                    .update();
        }
    }

    private void choose(String forget, String note, Id<?> whose, Set<WayToPay> ways) {
        jdbc.sql(forget).param("whose", whose).update();
        if (ways != null) {
            jdbc.sql(note)
                    .param("whose", whose)
                    .param("ways", ways.stream().map(Enum::name).collect(Collectors.joining(" ")))
                    .update();
        }
    }

    /** The choice of the client that stays holds; only where it has none, the other's. */
    @Bean
    ClientRows waysOfClients() {
        return ClientRows.single(jdbc, "client_way");
    }
}
