package quill.server.common;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What the server itself refuses, before any controller, as a problem like all others. */
@RestController
@Hidden
class ErrorAnswers implements ErrorController {
    @RequestMapping("/error")
    ResponseEntity<ProblemDetail> error(HttpServletRequest request) {
        Object code = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
        HttpStatus status = code instanceof Integer number ? HttpStatus.resolve(number) : HttpStatus.NOT_FOUND;
        HttpStatus known = status == null ? HttpStatus.BAD_REQUEST : status;
        return ResponseEntity.status(known)
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(ProblemAnswers.problem(
                        known,
                        known.is5xxServerError() ? "unexpected" : "malformed",
                        known == HttpStatus.NOT_FOUND
                                ? "There is nothing at this address."
                                : known.is5xxServerError()
                                        ? "Something went wrong here. Nothing was changed by it; try again."
                                        : "That request cannot be read."));
    }
}
