package quill.server.business;

import java.util.List;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.server.common.ConflictException;
import quill.server.common.Json;
import quill.server.common.ReadOnce;

/** Table DOCUMENT_SETTING: its one row, and what holds before there is one. */
@Service
public class DocumentSettings {
    private final JdbcClient jdbc;
    private final Json json;

    DocumentSettings(JdbcClient jdbc, Json json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    /** What holds now. */
    public DocumentSetting setting() {
        return ReadOnce.of("document_setting", "all", this::read);
    }

    private DocumentSetting read() {
        return jdbc.sql(
                        "SELECT layout, line_shows, typeface, terms, labels, coins, accent, page_on_paper, version FROM document_setting WHERE id = 1")
                .query((rs, n) -> new DocumentSetting(
                        rs.getString("layout"),
                        rs.getString("line_shows"),
                        rs.getString("typeface"),
                        rs.getString("terms"),
                        List.of(json.read(rs.getString("labels"), String[].class)),
                        List.of(json.read(rs.getString("coins"), DocumentSetting.Coin[].class)),
                        rs.getString("accent"),
                        rs.getBoolean("page_on_paper"),
                        rs.getInt("version")))
                .optional()
                .orElseGet(DocumentSetting::first);
    }

    /** Changes it. @throws ConflictException if another window changed it first */
    @Transactional
    public DocumentSetting change(DocumentSetting setting) {
        DocumentSetting checked = setting.checked();
        int rows = jdbc.sql(checked.version() == 0 ? """
                INSERT INTO document_setting (id, layout, line_shows, typeface, terms, labels, coins, accent, page_on_paper)
                SELECT 1, :layout, :shows, :typeface, :terms, :labels, :coins, :accent, :page
                 WHERE NOT EXISTS (SELECT 1 FROM document_setting)
                """ : """
                UPDATE document_setting
                   SET layout = :layout, line_shows = :shows, typeface = :typeface, terms = :terms, labels = :labels, coins = :coins, accent = :accent,
                       page_on_paper = :page,
                       version = version + 1
                 WHERE id = 1 AND version = :version
                """)
                .param("layout", checked.layout())
                .param("shows", checked.lineShows())
                .param("typeface", checked.typeface())
                .param("terms", checked.terms())
                .param("labels", json.write(checked.labels()))
                .param("coins", json.write(checked.coins()))
                .param("accent", checked.accent())
                .param("page", checked.pageOnPaper())
                .param("version", checked.version())
                .update();
        if (rows != 1) {
            throw new ConflictException("These settings were changed in another window. Look at them again.");
        }
        return setting();
    }
}
