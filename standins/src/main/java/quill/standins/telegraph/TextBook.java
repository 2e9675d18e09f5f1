package quill.standins.telegraph;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import quill.standins.Dials;

/** What arrived at telephones, which numbers are dead, and the dials that make the office misbehave. */
@Repository
@Transactional
class TextBook {
    private final JdbcClient jdbc;
    private final Dials dials;

    TextBook(JdbcClient jdbc) {
        this.jdbc = jdbc;
        this.dials = new Dials(jdbc, "telegraph_dial");
    }

    /** A text message as it arrived. */
    record Arrived(long id, String to, String from, String text, LocalDateTime at) {}

    void keep(String to, String from, String text) {
        jdbc.sql("""
                INSERT INTO text_message (to_number, from_name, text, arrived_at)
                VALUES (:to, :from, :text, LOCALTIMESTAMP)
                """).param("to", to).param("from", from).param("text", text).update();
    }

    /** Numbers with how many messages each has. */
    Map<String, Long> numbers() {
        Map<String, Long> numbers = new TreeMap<>();
        jdbc.sql("SELECT to_number, COUNT(*) how_many FROM text_message GROUP BY to_number")
                .query((rs, n) -> numbers.put(rs.getString("to_number"), rs.getLong("how_many")))
                .list();
        return numbers;
    }

    /** What arrived at a number, newest first. */
    List<Arrived> at(String number) {
        return jdbc.sql("SELECT * FROM text_message WHERE to_number = :number ORDER BY id DESC LIMIT 200")
                .param("number", number)
                .query((rs, n) -> new Arrived(
                        rs.getLong("id"),
                        rs.getString("to_number"),
                        rs.getString("from_name"),
                        rs.getString("text"),
                        rs.getObject("arrived_at", LocalDateTime.class)))
                .list();
    }

    List<String> dead() {
        return jdbc.sql("SELECT number FROM dead_number ORDER BY number")
                .query(String.class)
                .list();
    }

    void setDead(String number, boolean dead) {
        jdbc.sql("DELETE FROM dead_number WHERE number = :number")
                .param("number", number)
                .update();
        if (dead) {
            jdbc.sql("INSERT INTO dead_number VALUES (:number)")
                    .param("number", number)
                    .update();
        }
    }

    Dials dials() {
        return dials;
    }
}
