package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.util.Currency;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.server.ResponseStatusException;

/** What all calls of a business have in common: how amounts are read, and how a refusal is told (RFC 9457). */
@RestControllerAdvice(basePackageClasses = Calls.class)
class Calls {
    static final BigDecimal MOST = new BigDecimal("1000000000000");

    @ExceptionHandler(ResponseStatusException.class)
    ProblemDetail problem(ResponseStatusException e) {
        return e.getBody();
    }

    /** @throws ResponseStatusException (422) for what is no amount of this currency */
    static void check(BigDecimal amount, String currency) {
        if (amount == null || amount.signum() <= 0 || amount.compareTo(MOST) >= 0) {
            throw refused("amount must be above zero and below " + MOST);
        }
        if (amount.stripTrailingZeros().scale() > Currency.getInstance(currency).getDefaultFractionDigits()) {
            throw refused("amount has more decimals than " + currency);
        }
    }

    static ResponseStatusException refused(String why) {
        return new ResponseStatusException(HttpStatus.UNPROCESSABLE_CONTENT, why);
    }

    static String fit(String text, int most) {
        return text == null ? "" : text.substring(0, Math.min(most, text.length()));
    }
}
