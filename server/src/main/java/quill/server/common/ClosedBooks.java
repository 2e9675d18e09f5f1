package quill.server.common;

import java.sql.SQLException;
import java.util.Set;
import org.h2.api.ErrorCode;

/** H2 closes a database whose file it could not write; what it says then is not the statement's fault. */
public final class ClosedBooks {
    private static final Set<Integer> CODES = Set.of(
            ErrorCode.DATABASE_IS_CLOSED,
            ErrorCode.DATABASE_CALLED_AT_SHUTDOWN,
            ErrorCode.OBJECT_CLOSED,
            ErrorCode.CONNECTION_BROKEN_1,
            ErrorCode.GENERAL_ERROR_1,
            ErrorCode.IO_EXCEPTION_1,
            ErrorCode.IO_EXCEPTION_2,
            ErrorCode.FILE_CORRUPTED_1);

    private ClosedBooks() {}

    /** Whether this error came of it. */
    public static boolean isCauseOf(Throwable error) {
        for (Throwable t = error; t != null; t = t.getCause()) {
            if (t instanceof SQLException s && CODES.contains(s.getErrorCode())) {
                return true;
            }
        }
        return false;
    }
}
