package quill.server.common;

import org.h2.api.ErrorCode;
import org.h2.jdbc.JdbcSQLNonTransientConnectionException;
import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** Says plainly that another Rustic Quill has the books open: two at once on the same data are refused at the start. */
class BooksInUse extends AbstractFailureAnalyzer<JdbcSQLNonTransientConnectionException> {
    @Override
    protected FailureAnalysis analyze(Throwable root, JdbcSQLNonTransientConnectionException cause) {
        if (cause.getErrorCode() != ErrorCode.DATABASE_ALREADY_OPEN_1) {
            return null;
        }
        return new FailureAnalysis(
                "Rustic Quill is running already with these books: " + cause.getOriginalMessage(),
                "Use the one that is running, or end it first. For other books set another folder: quill.data=…",
                cause);
    }
}
