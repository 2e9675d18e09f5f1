package quill.standins.countinghouse;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Pages on which a card or a bank account is kept, and nothing is taken. */
@Repository
@Transactional
class Keepings {
    private final JdbcClient jdbc;
    private final KeptMethods methods;

    Keepings(JdbcClient jdbc, KeptMethods methods) {
        this.jdbc = jdbc;
        this.methods = methods;
    }

    /**
     * One of them.
     *
     * @param state open, kept or withdrawn
     * @param keptAs the token of what was kept; null before that
     * @param waitsFor the name of the card whose bank asks for a code; null for none
     */
    record Keeping(
            String id,
            String description,
            String returnTo,
            List<String> takes,
            String state,
            String keptAs,
            String waitsFor,
            String waitsExpiry) {
        public boolean isOpen() {
            return "open".equals(state);
        }

        public boolean has(String way) {
            return takes.contains(way);
        }

        public boolean awaitsCode() {
            return waitsFor != null;
        }
    }

    /** The one of this key: made now, or found as it was made before. */
    Keeping open(String key, String description, String returnTo, List<String> takes) {
        Optional<String> before = byKey(key);
        String id = before.orElse("keeping-" + UUID.randomUUID());
        if (before.isEmpty()) {
            try {
                jdbc.sql("""
                        INSERT INTO keeping (id, our_key, description, return_to, takes, state)
                        VALUES (:id, :key, :description, :returnTo, :takes, 'open')
                        """)
                        .param("id", id)
                        .param("key", key)
                        .param("description", description)
                        .param("returnTo", returnTo)
                        .param("takes", String.join(" ", takes))
                        .update();
            } catch (DuplicateKeyException e) {
                // Another call with this key was faster.
                return find(byKey(key).orElseThrow()).orElseThrow();
            }
        }
        return find(id).orElseThrow();
    }

    private Optional<String> byKey(String key) {
        return jdbc.sql("SELECT id FROM keeping WHERE our_key = :key")
                .param("key", key)
                .query(String.class)
                .optional();
    }

    Optional<Keeping> find(String id) {
        return jdbc.sql("""
                SELECT id, description, return_to, takes, state, kept_as, waits_for, waits_expiry FROM keeping WHERE id = :id
                """)
                .param("id", id)
                .query((rs, n) -> new Keeping(
                        rs.getString("id"),
                        rs.getString("description"),
                        rs.getString("return_to"),
                        List.of(rs.getString("takes").split(" ")),
                        rs.getString("state"),
                        rs.getString("kept_as"),
                        rs.getString("waits_for"),
                        rs.getString("waits_expiry")))
                .optional();
    }

    /** Ends one that nobody used; what was kept stays kept. */
    void withdraw(String id) {
        jdbc.sql("UPDATE keeping SET state = 'withdrawn', waits_for = NULL WHERE id = :id AND state = 'open'")
                .param("id", id)
                .update();
    }

    void awaitCode(String id, TestCard card, String expiry) {
        jdbc.sql("UPDATE keeping SET waits_for = :card, waits_expiry = :expiry WHERE id = :id AND state = 'open'")
                .param("card", card.name())
                .param("expiry", expiry)
                .param("id", id)
                .update();
    }

    void keep(String id, TestCard card, String expiry) {
        if (begun(id)) {
            kept(id, methods.keep(card, expiry));
        }
    }

    void keep(String id, BankAccount account) {
        if (begun(id)) {
            kept(id, methods.keep(account));
        }
    }

    /** @return whether this call is the one that keeps something */
    private boolean begun(String id) {
        return jdbc.sql("UPDATE keeping SET state = 'kept', waits_for = NULL WHERE id = :id AND state = 'open'")
                        .param("id", id)
                        .update()
                == 1;
    }

    private void kept(String id, String method) {
        jdbc.sql("UPDATE keeping SET kept_as = :method WHERE id = :id")
                .param("method", method)
                .param("id", id)
                .update();
    }
}
