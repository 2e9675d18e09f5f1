package quill.server.ways;

import java.util.Optional;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.server.ways.OnTopService.OnTopSetting;

/** Table ON_TOP_SETTING. Holds no rules; the caller opens the transaction. */
@Repository
class OnTopRepository {
    private final JdbcClient jdbc;

    OnTopRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<OnTopSetting> find() {
        return jdbc.sql("""
                SELECT surcharge, percent, fixed, most, tax, tips, given, free, version FROM on_top_setting WHERE id = 1
                """)
                .query((rs, n) -> new OnTopSetting(
                        rs.getBoolean("surcharge"),
                        rs.getString("percent"),
                        rs.getString("fixed"),
                        rs.getString("most"),
                        rs.getString("tax"),
                        rs.getBoolean("tips"),
                        rs.getString("given"),
                        rs.getBoolean("free"),
                        rs.getInt("version")))
                .optional();
    }

    /** @return whether nobody was faster; the first time the version is 0 */
    boolean keep(OnTopSetting s) {
        try {
            JdbcClient.StatementSpec sql = jdbc.sql(s.version() == 0 ? """
                              INSERT INTO on_top_setting (id, surcharge, percent, fixed, most, tax, tips, given, free)
                              VALUES (1, :surcharge, :percent, :fixed, :most, :tax, :tips, :given, :free)
                              """ : """
                              UPDATE on_top_setting
                                 SET surcharge = :surcharge, percent = :percent, fixed = :fixed, most = :most, tax = :tax,
                                     tips = :tips, given = :given, free = :free, version = version + 1
                               WHERE id = 1 AND version = :version
                              """);
            sql.param("surcharge", s.surcharge())
                    .param("percent", s.percent())
                    .param("fixed", s.fixed())
                    .param("most", s.most())
                    .param("tax", s.tax())
                    .param("tips", s.tips())
                    .param("given", s.given())
                    .param("free", s.free());
            return (s.version() == 0 ? sql : sql.param("version", s.version())).update() == 1;
        } catch (DuplicateKeyException e) {
            return false;
        }
    }
}
