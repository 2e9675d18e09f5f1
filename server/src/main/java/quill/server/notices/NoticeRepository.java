package quill.server.notices;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import quill.server.common.Amount;
import quill.server.common.ClientRows;
import quill.server.common.Ids;
import quill.server.common.News;
import quill.server.common.Rows;
import quill.server.common.Texts;

/** Tables NOTICE and NOTICE_SETTING. Holds no rules; the caller opens the transaction. */
@Repository
class NoticeRepository {
    private final JdbcClient jdbc;

    NoticeRepository(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    long add(News news, LocalDate day, Instant now) {
        jdbc.sql("""
                INSERT INTO notice (kind, text, currency, amount_minor, client_id, document_id, on_day, at)
                VALUES (:kind, :text, :currency, :amount, :client, :document, :day, :now)
                """)
                .param("kind", news.kind())
                .param("text", Texts.fit(news.text(), 500))
                .param("currency", news.amount() == null ? null : news.amount().currency())
                .param("amount", news.amount() == null ? null : news.amount().money())
                .param("client", news.clientId())
                .param("document", news.documentId())
                .param("day", day)
                .param("now", now)
                .update();
        return latest();
    }

    long latest() {
        return jdbc.sql("SELECT COALESCE(MAX(id), 0) FROM notice")
                .query(Long.class)
                .single();
    }

    List<Notice> after(long id, int most) {
        return jdbc.sql("SELECT * FROM notice WHERE id > :id ORDER BY id DESC LIMIT :most")
                .param("id", id)
                .param("most", most)
                .query(NoticeRepository::notice)
                .list();
    }

    List<Notice> unmailed(LocalDate until, int most) {
        return jdbc.sql("SELECT * FROM notice WHERE NOT mailed AND on_day <= :until ORDER BY id LIMIT :most")
                .param("until", until)
                .param("most", most)
                .query(NoticeRepository::notice)
                .list();
    }

    void mailedUpTo(long id) {
        jdbc.sql("UPDATE notice SET mailed = TRUE WHERE NOT mailed AND id <= :id")
                .param("id", id)
                .update();
    }

    private static Notice notice(ResultSet rs, int row) throws SQLException {
        Long minor = rs.getObject("amount_minor", Long.class);
        return new Notice(
                rs.getLong("id"),
                News.Kind.valueOf(rs.getString("kind")),
                rs.getString("text"),
                minor == null ? null : Amount.ofMinor(rs.getString("currency"), minor),
                Ids.client(rs, "client_id"),
                Ids.document(rs, "document_id"),
                Rows.date(rs, "on_day"));
    }

    NoticeSetting setting() {
        return jdbc.sql("SELECT mail, address, evening, kinds, version FROM notice_setting WHERE id = 1")
                .query((rs, n) -> new NoticeSetting(
                        NoticeSetting.Mail.valueOf(rs.getString("mail")),
                        rs.getString("address"),
                        rs.getString("evening"),
                        Arrays.stream(rs.getString("kinds").split(" "))
                                .filter(k -> !k.isEmpty())
                                .map(News.Kind::valueOf)
                                .toList(),
                        rs.getInt("version")))
                .optional()
                .orElseGet(NoticeSetting::first);
    }

    /** @return whether nobody kept it meanwhile */
    boolean keep(NoticeSetting s) {
        return jdbc.sql(s.version() == 0 ? """
                        INSERT INTO notice_setting (id, mail, address, evening, kinds)
                        SELECT 1, :mail, :address, :evening, :kinds WHERE NOT EXISTS (SELECT 1 FROM notice_setting)
                        """ : """
                        UPDATE notice_setting
                           SET mail = :mail, address = :address, evening = :evening, kinds = :kinds, version = version + 1
                         WHERE id = 1 AND version = :version
                        """)
                        .param("mail", s.mail())
                        .param("address", s.address())
                        .param("evening", s.evening())
                        .param("kinds", s.kinds().stream().map(Enum::name).collect(Collectors.joining(" ")))
                        .param("version", s.version())
                        .update()
                == 1;
    }

    @Bean
    ClientRows noticesOfClients() {
        return ClientRows.of(jdbc, "notice");
    }
}
