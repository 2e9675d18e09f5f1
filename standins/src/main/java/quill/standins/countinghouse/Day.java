package quill.standins.countinghouse;

import java.sql.Date;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** The day that it is here: the business's where it told one, or the system's. */
@Repository
@Transactional
class Day {
    private final JdbcClient jdbc;

    Day(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    LocalDate today() {
        return jdbc.sql("SELECT today FROM business_date")
                .query((rs, n) -> rs.getDate(1).toLocalDate())
                .optional()
                .orElseGet(LocalDate::now);
    }

    void set(LocalDate today) {
        jdbc.sql("DELETE FROM business_date").update();
        jdbc.sql("INSERT INTO business_date VALUES (:today)")
                .param("today", today)
                .update();
    }

    static LocalDate of(ResultSet rs, String column) throws SQLException {
        Date date = rs.getDate(column);
        return date == null ? null : date.toLocalDate();
    }
}
