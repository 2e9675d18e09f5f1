package quill.server.running;

import com.zaxxer.hikari.SQLExceptionOverride;
import java.sql.SQLException;
import java.util.Set;
import org.h2.api.ErrorCode;

/**
 * H2 closes a database whose file it could not write. A connection that says so is thrown away: the next one opens the
 * books again.
 */
public class EvictClosed implements SQLExceptionOverride {
    private static final Set<Integer> CLOSED = Set.of(
            ErrorCode.DATABASE_IS_CLOSED,
            ErrorCode.DATABASE_CALLED_AT_SHUTDOWN,
            ErrorCode.OBJECT_CLOSED,
            ErrorCode.CONNECTION_BROKEN_1,
            ErrorCode.GENERAL_ERROR_1,
            ErrorCode.IO_EXCEPTION_1,
            ErrorCode.IO_EXCEPTION_2,
            ErrorCode.FILE_CORRUPTED_1);

    @java.lang.Override
    public Override adjudicate(SQLException e) {
        return isClosed(e) ? Override.MUST_EVICT : Override.CONTINUE_EVICT;
    }

    /** Whether this error means that the database, not the statement, is at fault. */
    static boolean isClosed(Throwable error) {
        for (Throwable t = error; t != null; t = t.getCause()) {
            if (t instanceof SQLException s && CLOSED.contains(s.getErrorCode())) {
                return true;
            }
        }
        return false;
    }
}
