package quill.standins;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Map;
import java.util.TreeMap;
import org.springframework.http.HttpStatus;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.web.server.ResponseStatusException;

/** The dials that make an office misbehave. @param table a row for each, with its name and its setting */
public record Dials(JdbcClient jdbc, String table) {
    private static final int MOST = 3600;

    /** All of them, by name. */
    public Map<String, Integer> all() {
        Map<String, Integer> dials = new TreeMap<>();
        jdbc.sql("SELECT name, setting FROM " + table).query(rs -> {
            dials.put(rs.getString("name"), rs.getInt("setting"));
        });
        return dials;
    }

    /** Turns one. @throws ResponseStatusException (400) for one that there is not, or a setting out of its reach */
    public void turn(String dial, int setting) {
        if (!all().containsKey(dial) || setting < 0 || setting > MOST) {
            throw new ResponseStatusException(HttpStatus.BAD_REQUEST, "dials go from 0 to " + MOST);
        }
        jdbc.sql("UPDATE " + table + " SET setting = :setting WHERE name = :name")
                .param("setting", setting)
                .param("name", dial)
                .update();
    }

    /** Whether this answer is one of those that are cut off; it counts down. */
    public boolean cutsThisAnswer() {
        return jdbc.sql("UPDATE " + table + " SET setting = setting - 1 WHERE name = 'cut' AND setting > 0")
                        .update()
                == 1;
    }

    /** Loses an answer on its way back: of a length that is never reached, so that the connection closes in its middle. */
    public static void cut(HttpServletResponse response) throws IOException {
        response.setContentLength(4096);
        response.getOutputStream().write('{');
        response.flushBuffer();
    }
}
