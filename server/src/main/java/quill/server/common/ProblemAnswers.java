package quill.server.common;

import java.net.URI;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.dao.PessimisticLockingFailureException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.jdbc.CannotGetJdbcConnectionException;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.multipart.MultipartException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.Id;
import tools.jackson.core.JacksonException;

/** Every error of the API as problem details (RFC 9457): which field, which value, what would be allowed. */
@RestControllerAdvice
class ProblemAnswers extends ResponseEntityExceptionHandler {
    private static final Logger LOG = LoggerFactory.getLogger(ProblemAnswers.class);

    @ExceptionHandler
    ProblemDetail refused(RefusedException e) {
        ProblemDetail detail = problem(
                HttpStatus.UNPROCESSABLE_CONTENT,
                "refused",
                e.problems().size() == 1
                        ? e.problems().get(0).message()
                        : e.problems().size() + " fields need another look.");
        detail.setProperty("problems", e.problems());
        return detail;
    }

    @ExceptionHandler
    ProblemDetail conflict(ConflictException e) {
        return problem(HttpStatus.CONFLICT, "changed-meanwhile", e.getMessage());
    }

    @ExceptionHandler
    ProblemDetail notFound(NotFoundException e) {
        return problem(HttpStatus.NOT_FOUND, "not-found", e.getMessage());
    }

    @ExceptionHandler
    ProblemDetail wrongType(MethodArgumentTypeMismatchException e) {
        ProblemDetail detail = problem(HttpStatus.BAD_REQUEST, "malformed", "That value cannot be read.");
        detail.setProperty(
                "problems",
                List.of(new Problem(
                        e.getName(), String.valueOf(e.getValue()), "must be a " + nameOf(e.getRequiredType()))));
        return detail;
    }

    @ExceptionHandler
    ProblemDetail tooOften(TooOftenException e) {
        return problem(HttpStatus.TOO_MANY_REQUESTS, "too-often", e.getMessage());
    }

    /** Two at once wrote what may be there once: one of them did. */
    @ExceptionHandler
    ProblemDetail twice(DuplicateKeyException e) {
        LOG.info("written twice at once: {}", e.getMessage());
        return problem(
                HttpStatus.CONFLICT, "changed-meanwhile", "The same was written elsewhere at this moment. Look again.");
    }

    /** Waited too long for somebody else's change, or for a connection: nothing was changed. */
    @ExceptionHandler({
        PessimisticLockingFailureException.class,
        CannotCreateTransactionException.class,
        CannotGetJdbcConnectionException.class
    })
    ProblemDetail busy(Exception e) {
        LOG.warn("busy: {}", e.getMessage());
        return problem(
                HttpStatus.SERVICE_UNAVAILABLE,
                "busy",
                "Too much is going on just now. Nothing was changed by this; try again in a moment.");
    }

    @ExceptionHandler
    ProblemDetail fileUnreadable(MultipartException e) {
        if (TooLarge.of(e) != null) {
            return tooLarge("a file may have at most 10 MB");
        }
        return problem(HttpStatus.BAD_REQUEST, "malformed", "The file that was sent cannot be read; send it again.");
    }

    private static ProblemDetail tooLarge(String what) {
        ProblemDetail detail = problem(HttpStatus.CONTENT_TOO_LARGE, "too-large", "That is too much to send at once.");
        detail.setProperty("problems", List.of(new Problem("", "", what)));
        return detail;
    }

    private static final class TooLarge {
        static TooLargeException of(Throwable e) {
            for (Throwable t = e; t != null; t = t.getCause()) {
                if (t instanceof TooLargeException found) {
                    return found;
                }
            }
            return null;
        }
    }

    @ExceptionHandler
    ProblemDetail unexpected(Exception e) {
        LOG.error("unexpected", e);
        if (ClosedBooks.isCauseOf(e)) {
            return problem(
                    HttpStatus.SERVICE_UNAVAILABLE,
                    "books-closed",
                    "The books cannot be written just now. Nothing was saved; try again in a moment.");
        }
        return problem(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "unexpected",
                "Something went wrong here. Nothing was changed by it; try again.");
    }

    @Override
    protected ResponseEntity<Object> handleHttpMessageNotReadable(
            HttpMessageNotReadableException e, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        TooLargeException large = TooLarge.of(e);
        if (large != null) {
            return ResponseEntity.status(HttpStatus.CONTENT_TOO_LARGE)
                    .header("Connection", "close")
                    .body(tooLarge("at most " + large.most() / 1024 + " KB can be sent here"));
        }
        ProblemDetail detail = problem(HttpStatus.BAD_REQUEST, "malformed", "What was sent cannot be read as JSON.");
        if (e.getCause() instanceof JacksonException json && !json.getPath().isEmpty()) {
            StringBuilder path = new StringBuilder();
            json.getPath()
                    .forEach(r -> path.append(
                            r.getPropertyName() == null
                                    ? "[" + r.getIndex() + "]"
                                    : (path.isEmpty() ? "" : ".") + r.getPropertyName()));
            detail.setProperty(
                    "problems", List.of(new Problem(path.toString(), "", "is of another type than this field takes")));
        }
        return ResponseEntity.badRequest().headers(headers).body(detail);
    }

    @Override
    protected ResponseEntity<Object> handleMaxUploadSizeExceededException(
            MaxUploadSizeExceededException e, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        ProblemDetail detail = problem(HttpStatus.CONTENT_TOO_LARGE, "too-large", "This file is too large.");
        detail.setProperty("problems", List.of(new Problem("file", "", "a file may have at most 10 MB")));
        return ResponseEntity.status(HttpStatus.CONTENT_TOO_LARGE).body(detail);
    }

    /** A problem with a code that a program can rely on. */
    static ProblemDetail problem(HttpStatus status, String code, String message) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, message);
        detail.setType(URI.create("urn:rustic-quill:" + code));
        return detail;
    }

    private static String nameOf(Class<?> type) {
        if (type == null) {
            return "value";
        }
        boolean number =
                Id.class.isAssignableFrom(type) || type == long.class || type == Long.class || type == int.class;
        return number ? "number" : type.getSimpleName().toLowerCase(java.util.Locale.ROOT);
    }
}
