package quill.server.lists;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;

/** Views of a list that the business keeps under a name: what the address of the list says. Table KEPT_VIEW. */
@Service
public class KeptViews {
    private static final Set<String> PLACES =
            Set.of("/invoices", "/invoices/list", "/money-in/list", "/clients", "/catalogue");
    private static final int LONGEST_NAME = 60;
    private static final int LONGEST = 1000;
    private static final int MOST = 20;
    private final JdbcClient jdbc;

    KeptViews(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A kept view. @param shows the address's query, without its question mark */
    public record KeptView(long id, String place, String name, String shows) {}

    /** Those of a list, by name. */
    public List<KeptView> of(String place) {
        return jdbc.sql("SELECT id, place, name, shows FROM kept_view WHERE place = :place ORDER BY LOWER(name)")
                .param("place", place)
                .query((rs, n) -> new KeptView(rs.getLong(1), rs.getString(2), rs.getString(3), rs.getString(4)))
                .list();
    }

    /**
     * Keeps one; another of that name is replaced.
     *
     * @throws RefusedException naming {@code name} or {@code place}
     */
    @Transactional
    public void keep(String place, String name, String shows) {
        List<Problem> problems = new ArrayList<>();
        String called = name == null ? "" : name.strip();
        if (called.isEmpty() || called.length() > LONGEST_NAME) {
            problems.add(new Problem("name", name, "give it a name of up to " + LONGEST_NAME + " characters"));
        }
        if (place == null || !PLACES.contains(place)) {
            problems.add(new Problem("place", place, "must be one of " + String.join(", ", PLACES)));
        }
        if (shows == null || shows.length() > LONGEST) {
            problems.add(new Problem("shows", shows, "must be what the list's address says, up to 1,000 characters"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        List<KeptView> kept = of(place);
        if (kept.size() >= MOST && kept.stream().noneMatch(v -> v.name().equals(called))) {
            throw new RefusedException("name", name, "this list has " + MOST + " kept views; forget one first");
        }
        jdbc.sql("MERGE INTO kept_view (place, name, shows) KEY (place, name) VALUES (:place, :name, :shows)")
                .param("place", place)
                .param("name", called)
                .param("shows", shows)
                .update();
    }

    /** Forgets one; one that is gone already stays so. */
    @Transactional
    public void forget(long id) {
        jdbc.sql("DELETE FROM kept_view WHERE id = :id").param("id", id).update();
    }
}
