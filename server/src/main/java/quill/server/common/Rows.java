package quill.server.common;

import java.sql.Date;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;

/** Columns that may be null, read the same way everywhere. */
public final class Rows {
    private Rows() {}

    /** A date, or null. */
    public static LocalDate date(ResultSet rs, String column) throws SQLException {
        Date date = rs.getDate(column);
        return date == null ? null : date.toLocalDate();
    }
}
