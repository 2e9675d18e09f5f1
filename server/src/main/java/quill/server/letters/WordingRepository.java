package quill.server.letters;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.core.letter.LetterKind;
import quill.core.letter.Wording;
import quill.server.audit.Actor;
import quill.server.common.ReadOnce;

/** Table LETTER_WORDING: it is only added to, so that every wording that ever went can be read. */
@Repository
class WordingRepository {
    private final JdbcClient jdbc;

    WordingRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** @param wording null where the business went back to ours */
    record Stored(LetterKind kind, boolean payer, int version, Wording wording, LocalDate madeOn) {}

    private static final String LATEST = """
            SELECT kind, for_payer, version, subject, body, made_on FROM letter_wording w
             WHERE version = (SELECT MAX(version) FROM letter_wording o
                               WHERE o.kind = w.kind AND o.for_payer = w.for_payer)
            """;

    Optional<Stored> latest(LetterKind kind, boolean payer) {
        return ReadOnce.of(
                "letter_wording",
                kind + " " + payer,
                () -> jdbc.sql(LATEST + " AND kind = :kind AND for_payer = :payer")
                        .param("kind", kind)
                        .param("payer", payer)
                        .query((rs, n) -> stored(rs))
                        .optional());
    }

    List<Stored> latest() {
        return jdbc.sql(LATEST).query((rs, n) -> stored(rs)).list();
    }

    private static Stored stored(ResultSet rs) throws SQLException {
        String body = rs.getString("body");
        return new Stored(
                LetterKind.valueOf(rs.getString("kind")),
                rs.getBoolean("for_payer"),
                rs.getInt("version"),
                body == null ? null : new Wording(rs.getString("subject"), body),
                rs.getObject("made_on", LocalDate.class));
    }

    /** Adds the next version. @return whether nobody else added it first */
    boolean add(Stored s, Actor by, Instant now) {
        return jdbc.sql("""
                        INSERT INTO letter_wording (kind, for_payer, version, subject, body, made_on, made_at, made_by)
                        SELECT :kind, :payer, :version, :subject, :body, :on, :now, :by
                         WHERE :version = 1 + (SELECT COALESCE(MAX(version), 0) FROM letter_wording
                                                WHERE kind = :kind AND for_payer = :payer)
                        """)
                        .param("kind", s.kind())
                        .param("payer", s.payer())
                        .param("version", s.version())
                        .param(
                                "subject",
                                s.wording() == null ? null : s.wording().subject())
                        .param("body", s.wording() == null ? null : s.wording().body())
                        .param("on", s.madeOn())
                        .param("now", now)
                        .param("by", by.name())
                        .update()
                == 1;
    }
}
