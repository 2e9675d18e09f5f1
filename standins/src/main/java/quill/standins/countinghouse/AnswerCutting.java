package quill.standins.countinghouse;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.ContentCachingResponseWrapper;
import quill.standins.Dials;

/** With its dial turned, does what was asked and then loses the answer on the way back. */
@Component
class AnswerCutting extends OncePerRequestFilter {
    private final OrderBook book;

    AnswerCutting(OrderBook book) {
        this.book = book;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !request.getRequestURI().startsWith("/api/orders");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (!book.dials().cutsThisAnswer()) {
            chain.doFilter(request, response);
            return;
        }
        chain.doFilter(request, new ContentCachingResponseWrapper(response));
        Dials.cut(response);
    }
}
