package quill.server.finding;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import quill.core.finding.Words;
import quill.server.common.Findable;
import quill.server.common.Ids;
import quill.server.common.Texts;

/** Tables FIND_ENTRY, FIND_WORD, FIND_SLIP, FIND_HIT and FIND_STALE. The caller opens the transaction. */
@Repository
class FindingRepository {
    /** So many words that begin with what was typed are looked at: more would say nothing. */
    private static final int MOST_WORDS = 60;

    /** So many places are many: looking through them takes longer than looking through the newest of all. */
    static final int MANY = 1500;

    private final JdbcClient jdbc;

    FindingRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Something that changed since it was read last. */
    record Stale(Findable kind, long id) {}

    /** How something is shown where it is found, and by which words. @param place its address within the desk */
    record Entry(String place, String title, String under, Set<String> words) {}

    void stale(Stale changed) {
        jdbc.sql("INSERT INTO find_stale (kind, about_id) VALUES (:kind, :id)")
                .param("kind", changed.kind())
                .param("id", changed.id())
                .update();
    }

    long lastStale() {
        return jdbc.sql("SELECT COALESCE(MAX(id), 0) FROM find_stale")
                .query(Long.class)
                .single();
    }

    /** Takes the first of the changes. @return what they are about, each once; and whether there may be more */
    Taken takeStale(int most) {
        Set<Stale> stale = new LinkedHashSet<>();
        List<Long> ids = jdbc.sql("""
                SELECT id, kind, about_id FROM find_stale ORDER BY id FETCH FIRST :most ROWS ONLY FOR UPDATE
                """)
                .param("most", most)
                .query((rs, n) -> {
                    stale.add(new Stale(Findable.valueOf(rs.getString(2)), rs.getLong(3)));
                    return rs.getLong(1);
                })
                .list();
        if (!ids.isEmpty()) {
            jdbc.sql("DELETE FROM find_stale WHERE id IN (:ids)")
                    .param("ids", ids)
                    .update();
        }
        return new Taken(stale, ids.size() == most);
    }

    /** What changed. @param more whether there may be more of it */
    record Taken(Set<Stale> stale, boolean more) {}

    void remove(Stale what) {
        jdbc.sql("DELETE FROM find_entry WHERE kind = :kind AND about_id = :id")
                .param("kind", what.kind())
                .param("id", what.id())
                .update();
    }

    void write(Stale what, Entry entry) {
        remove(what);
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                INSERT INTO find_entry (kind, about_id, place, title, under)
                VALUES (:kind, :id, :place, :title, :under)
                """)
                .param("kind", what.kind())
                .param("id", what.id())
                .param("place", entry.place())
                .param("title", Texts.fit(entry.title(), 300))
                .param("under", Texts.fit(entry.under(), 400))
                .update(key, "id");
        long id = key.getKey().longValue();
        jdbc.sql("""
                INSERT INTO find_hit (word_id, kind, entry_id)
                SELECT w.id, :kind, :entry FROM UNNEST(CAST(:words AS BIGINT ARRAY)) AS w (id)
                """)
                .param("words", Ids.array(words(entry.words())))
                .param("kind", what.kind())
                .param("entry", id)
                .update();
    }

    private Set<Long> words(Set<String> words) {
        if (words.isEmpty()) {
            return Set.of();
        }
        Map<String, Long> known = new HashMap<>();
        jdbc.sql("SELECT id, word FROM find_word WHERE word IN (:words)")
                .param("words", words)
                .query(rs -> {
                    known.put(rs.getString(2), rs.getLong(1));
                });
        words.forEach(w -> known.computeIfAbsent(w, this::insert));
        return new HashSet<>(known.values());
    }

    private long insert(String word) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("INSERT INTO find_word (word) VALUES (:word)")
                .param("word", word)
                .update(key, "id");
        long id = key.getKey().longValue();
        Words.slips(word)
                .forEach(slip -> jdbc.sql("INSERT INTO find_slip (slip, word_id) VALUES (:slip, :word)")
                        .param("slip", slip)
                        .param("word", id)
                        .update());
        return id;
    }

    /** Words that begin with what was typed; where there are none, those that are one slip away from it. */
    Set<Long> like(String typed) {
        Set<Long> begin = new HashSet<>(jdbc.sql("""
                SELECT id FROM find_word WHERE word >= :from AND word < :to ORDER BY word FETCH FIRST :most ROWS ONLY
                """)
                .param("from", typed)
                .param("to", typed + Character.MAX_VALUE)
                .param("most", MOST_WORDS)
                .query(Long.class)
                .list());
        Set<String> slips = begin.isEmpty() ? Words.slips(typed) : Set.of();
        return slips.isEmpty()
                ? begin
                : new HashSet<>(jdbc.sql("SELECT DISTINCT word_id FROM find_slip WHERE slip IN (:slips)")
                        .param("slips", slips)
                        .query(Long.class)
                        .list());
    }

    /** What was found. */
    record Found(Findable kind, long id, String place, String title, String under) {}

    /** How many times any of these words stands somewhere, counted up to {@link #MANY}. */
    int hits(Collection<Long> words) {
        return jdbc.sql("""
                SELECT COUNT(*) FROM (SELECT 1 FROM find_hit WHERE word_id IN (:words)
                                       FETCH FIRST :most ROWS ONLY)
                """)
                .param("words", words)
                .param("most", MANY)
                .query(Integer.class)
                .single();
    }

    /**
     * The newest of a kind that have a word of each set.
     *
     * @param words the rarest set first
     * @param rare whether that set stands in few places: then these are looked through, else the newest of all, which
     *     comes soon to some that have words so common
     */
    List<Found> find(Findable kind, List<? extends Collection<Long>> words, boolean rare, int most) {
        // Which ones is decided first, by their places alone; then they are read.
        StringBuilder sql = new StringBuilder("SELECT e.about_id, e.place, e.title, e.under FROM (")
                .append(
                        rare
                                ? "SELECT DISTINCT h.entry_id AS id FROM find_hit h"
                                        + " WHERE h.kind = :kind AND h.word_id IN (:words0)"
                                : "SELECT h.id FROM find_entry h WHERE h.kind = :kind");
        Map<String, Object> params = new LinkedHashMap<>();
        params.put("kind", kind);
        for (int i = 0; i < words.size(); i++) {
            if (i > 0 || !rare) {
                sql.append("""
                         AND EXISTS (SELECT 1 FROM find_hit x WHERE x.entry_id = h.%s AND x.word_id IN (:words%d))
                        """.formatted(rare ? "entry_id" : "id", i));
            }
            params.put("words" + i, words.get(i));
        }
        params.put("most", most);
        sql.append(rare ? " ORDER BY id DESC" : " ORDER BY h.kind, h.id DESC").append("""
                 FETCH FIRST :most ROWS ONLY) top JOIN find_entry e ON e.id = top.id ORDER BY e.about_id DESC
                """);
        return jdbc.sql(sql.toString())
                .params(params)
                .query((rs, n) -> new Found(kind, rs.getLong(1), rs.getString(2), rs.getString(3), rs.getString(4)))
                .list();
    }
}
