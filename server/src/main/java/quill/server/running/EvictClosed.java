package quill.server.running;

import com.zaxxer.hikari.SQLExceptionOverride;
import java.sql.SQLException;
import quill.server.common.ClosedBooks;

/** A connection that says that the books are closed is thrown away: the next one opens them again. */
public class EvictClosed implements SQLExceptionOverride {
    @java.lang.Override
    public Override adjudicate(SQLException e) {
        return ClosedBooks.isCauseOf(e) ? Override.MUST_EVICT : Override.CONTINUE_EVICT;
    }
}
