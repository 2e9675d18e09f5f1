package quill.server.links;

import java.time.LocalDate;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import quill.core.id.DocumentId;
import quill.server.QuillSettings;
import quill.server.common.BusinessClock;
import quill.server.common.Ids;
import quill.server.common.NotFoundException;
import quill.server.common.RandomText;
import quill.server.common.ReadOnce;
import quill.server.common.Rows;

/**
 * Table LINK: the addresses by which clients reach their pages, and where each of them leads. A token is 192 random
 * bits: nobody guesses one, and nothing but the link says what it leads to.
 */
@Component
public class Links {
    private static final int BYTES = 24;
    /** As long as a chain of links may be that took the place of each other. */
    private static final int LONGEST_CHAIN = 100;

    private final JdbcClient jdbc;
    private final QuillSettings settings;
    private final BusinessClock clock;

    Links(JdbcClient jdbc, QuillSettings settings, BusinessClock clock) {
        this.jdbc = jdbc;
        this.settings = settings;
        this.clock = clock;
    }

    private record Row(DocumentId documentId, LocalDate endsOn, boolean withdrawn, String supersededBy) {}

    /** Makes a link to a document, within the caller's transaction. @return its token */
    public String begin(DocumentId documentId) {
        String token = RandomText.of(BYTES);
        jdbc.sql("INSERT INTO link (token, document_id) VALUES (:token, :document)")
                .param("token", token)
                .param("document", documentId)
                .update();
        return token;
    }

    /** Ends a link for good: whoever follows it is told so. */
    public void withdraw(String token) {
        jdbc.sql("UPDATE link SET withdrawn_at = :now WHERE token = :token AND withdrawn_at IS NULL")
                .param("now", clock.instant())
                .param("token", token)
                .update();
    }

    /** From now on an old link leads where a newer one leads. */
    public void supersede(String old, String by) {
        jdbc.sql("UPDATE link SET superseded_by = :by WHERE token = :old")
                .param("by", by)
                .param("old", old)
                .update();
    }

    /** The last day on which a link leads anywhere. */
    public void endsOn(String token, LocalDate day) {
        jdbc.sql("UPDATE link SET ends_on = :day WHERE token = :token")
                .param("day", day)
                .param("token", token)
                .update();
    }

    /**
     * Where a link leads.
     *
     * @return the document's id
     * @throws NotFoundException for a link that there never was, or that has ended, in a sentence for the client
     */
    public DocumentId leadsTo(String token) {
        String at = token;
        for (int i = 0; i < LONGEST_CHAIN; i++) {
            Row row = jdbc.sql("""
                            SELECT document_id, ends_on, withdrawn_at IS NOT NULL AS withdrawn, superseded_by FROM link
                             WHERE token = :token
                            """)
                    .param("token", at)
                    .query((rs, n) -> new Row(
                            Ids.document(rs, "document_id"),
                            Rows.date(rs, "ends_on"),
                            rs.getBoolean("withdrawn"),
                            rs.getString("superseded_by")))
                    .optional()
                    .orElseThrow(Links::unknown);
            if (row.withdrawn() || row.endsOn() != null && row.endsOn().isBefore(clock.today())) {
                throw new NotFoundException("This link has ended. Ask the sender for a new one; nothing was charged.");
            }
            if (row.supersededBy() == null) {
                return row.documentId();
            }
            at = row.supersededBy();
        }
        throw unknown();
    }

    /** For a link that leads nowhere. */
    public static NotFoundException unknown() {
        return new NotFoundException("This link leads nowhere. Ask the sender for a new one; nothing was charged.");
    }

    /** The token of the newest link to a document that still leads there; where none does, of a new one. */
    public String tokenOf(DocumentId documentId) {
        return ReadOnce.of(
                "link",
                documentId,
                () -> newest(documentId).map(Standing::token).orElseGet(() -> begin(documentId)));
    }

    /** A link that leads to its document. @param endsOn its last day; null for none */
    public record Standing(String token, LocalDate endsOn) {}

    /** The newest link to a document that still leads there, if any does. */
    public Optional<Standing> newest(DocumentId documentId) {
        return jdbc.sql("""
                SELECT token, ends_on FROM link
                 WHERE document_id = :document AND withdrawn_at IS NULL AND superseded_by IS NULL
                   AND (ends_on IS NULL OR ends_on >= :today)
                 ORDER BY made_no DESC LIMIT 1
                """)
                .param("document", documentId)
                .param("today", clock.today())
                .query((rs, n) -> new Standing(rs.getString("token"), Rows.date(rs, "ends_on")))
                .optional();
    }

    /** Ends every link to a document: whoever follows one is told so. Those of earlier versions that lead here end too. */
    public void withdrawAll(DocumentId documentId) {
        jdbc.sql("UPDATE link SET withdrawn_at = :now WHERE document_id = :document AND withdrawn_at IS NULL")
                .param("now", clock.instant())
                .param("document", documentId)
                .update();
    }

    /** The address of a document's page as it stands; empty where no link leads there any more. */
    public String pageNow(DocumentId documentId) {
        return newest(documentId)
                .map(s -> settings.publicUrl() + "/p/" + s.token())
                .orElse("");
    }

    /** The address of a document's page for its client. */
    public String pageOf(DocumentId documentId) {
        return settings.publicUrl() + "/p/" + tokenOf(documentId);
    }
}
