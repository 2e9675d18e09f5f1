package quill.server.common;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Collection;
import java.util.function.LongFunction;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.id.Id;

/** Ids as rows have them. */
public final class Ids {
    private Ids() {}

    /**
     * Several, to be joined with: {@code JOIN UNNEST(CAST(:ids AS BIGINT ARRAY)) AS given (one) ON one = …}. A list after IN
     * is compared with every row value by value, and planned anew for each length. Beside an outer join such a join reads the
     * whole table: there it is {@code = ANY(CAST(:ids AS BIGINT ARRAY))}, which finds rows by their index.
     */
    public static Long[] array(Collection<?> ids) {
        return ids.stream()
                .map(i -> i instanceof Id<?> id ? id.value() : i)
                .distinct()
                .toArray(Long[]::new);
    }

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
