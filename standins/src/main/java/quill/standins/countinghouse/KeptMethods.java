package quill.standins.countinghouse;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Cards and bank accounts that are kept. */
@Repository
@Transactional
class KeptMethods {
    private final JdbcClient jdbc;
    private final Day day;

    KeptMethods(JdbcClient jdbc, Day day) {
        this.jdbc = jdbc;
        this.day = day;
    }

    /** Keeps a card. @param expiry month and year @return its token */
    String keep(TestCard card, String expiry) {
        return insert("card", card.name(), card.lastFour(), expiry);
    }

    /** Keeps a mandate. @return its token */
    String keep(BankAccount account) {
        return insert("debit", account.name(), account.lastFour(), null);
    }

    private String insert(String way, String standsFor, String lastFour, String expiry) {
        String id = "kept-" + UUID.randomUUID();
        jdbc.sql("""
                INSERT INTO kept_method (id, way, stands_for, last_four, expiry, kept_on)
                VALUES (:id, :way, :standsFor, :lastFour, :expiry, :today)
                """)
                .param("id", id)
                .param("way", way)
                .param("standsFor", standsFor)
                .param("lastFour", lastFour)
                .param("expiry", expiry)
                .param("today", day.today())
                .update();
        return id;
    }

    Optional<KeptMethod> find(String id) {
        return jdbc.sql("SELECT id, way, stands_for, last_four, expiry, removed FROM kept_method WHERE id = :id")
                .param("id", id)
                .query(KeptMethods::method)
                .optional();
    }

    List<KeptMethod> latest() {
        return jdbc.sql("""
                SELECT id, way, stands_for, last_four, expiry, removed FROM kept_method ORDER BY kept_on DESC, id LIMIT 60
                """).query(KeptMethods::method).list();
    }

    private static KeptMethod method(java.sql.ResultSet rs, int row) throws java.sql.SQLException {
        return new KeptMethod(
                rs.getString("id"),
                rs.getString("way"),
                rs.getString("stands_for"),
                rs.getString("last_four"),
                rs.getString("expiry"),
                rs.getBoolean("removed"));
    }

    /** Forgets one: nothing is taken from it any more. Asked for again, it stays forgotten. */
    void remove(String id) {
        jdbc.sql("UPDATE kept_method SET removed = TRUE WHERE id = :id")
                .param("id", id)
                .update();
    }
}
