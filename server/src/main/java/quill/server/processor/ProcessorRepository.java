package quill.server.processor;

import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.server.common.ReadOnce;

/** Table PROCESSOR. Holds no rules; the caller opens the transaction. */
@Repository
class ProcessorRepository {
    private final JdbcClient jdbc;

    ProcessorRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * As it is kept.
     *
     * @param fromSettings whether its credentials stand in the settings file
     * @param sealed its credentials; null where they are not kept here
     * @param paysInto an IBAN; empty for none
     */
    record Stored(
            long id,
            String name,
            String kind,
            ProcessorMode mode,
            String hookKey,
            boolean fromSettings,
            byte[] sealed,
            String paysInto,
            int version) {
        /** The same, with what a person changes. */
        Stored with(String newName, ProcessorMode newMode, byte[] newSealed, String newPaysInto, int asOf) {
            return new Stored(id, newName, kind, newMode, hookKey, fromSettings, newSealed, newPaysInto, asOf);
        }
    }

    List<Stored> all() {
        return ReadOnce.of("processor", "all", this::read);
    }

    private List<Stored> read() {
        return jdbc.sql("""
                SELECT id, name, kind, mode, hook_key, from_settings, credentials, pays_into, version FROM processor
                 ORDER BY id
                """)
                .query((rs, n) -> new Stored(
                        rs.getLong("id"),
                        rs.getString("name"),
                        rs.getString("kind"),
                        ProcessorMode.valueOf(rs.getString("mode")),
                        rs.getString("hook_key"),
                        rs.getBoolean("from_settings"),
                        rs.getBytes("credentials"),
                        rs.getString("pays_into") == null ? "" : rs.getString("pays_into"),
                        rs.getInt("version")))
                .list();
    }

    void insert(Stored s) {
        jdbc.sql("""
                INSERT INTO processor (name, kind, mode, hook_key, from_settings, credentials, pays_into)
                VALUES (:name, :kind, :mode, :hookKey, :fromSettings, :sealed, :paysInto)
                """)
                .param("name", s.name())
                .param("kind", s.kind())
                .param("mode", s.mode())
                .param("hookKey", s.hookKey())
                .param("fromSettings", s.fromSettings())
                .param("sealed", s.sealed())
                .param("paysInto", s.paysInto())
                .update();
    }

    /** @return whether nobody changed it meanwhile */
    boolean update(Stored s) {
        return jdbc.sql("""
                        UPDATE processor
                           SET name = :name, mode = :mode, credentials = :sealed, pays_into = :paysInto,
                               version = version + 1
                         WHERE id = :id AND version = :version
                        """)
                        .param("name", s.name())
                        .param("mode", s.mode())
                        .param("sealed", s.sealed())
                        .param("paysInto", s.paysInto())
                        .param("id", s.id())
                        .param("version", s.version())
                        .update()
                == 1;
    }

    /** @return whether nobody changed it meanwhile */
    boolean delete(long id, int version) {
        return jdbc.sql("DELETE FROM processor WHERE id = :id AND version = :version")
                        .param("id", id)
                        .param("version", version)
                        .update()
                == 1;
    }
}
