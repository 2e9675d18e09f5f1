package quill.server.common;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.function.LongFunction;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;

/** Reads ids from rows, where they may be missing. */
public final class Ids {
    private Ids() {}

    /** A client, or null. */
    public static ClientId client(ResultSet rs, String column) throws SQLException {
        return orNull(rs, column, ClientId::new);
    }

    /** A document, or null. */
    public static DocumentId document(ResultSet rs, String column) throws SQLException {
        return orNull(rs, column, DocumentId::new);
    }

    private static <T> T orNull(ResultSet rs, String column, LongFunction<T> of) throws SQLException {
        Long id = rs.getObject(column, Long.class);
        return id == null ? null : of.apply(id);
    }
}
