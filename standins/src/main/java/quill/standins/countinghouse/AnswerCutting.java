package quill.standins.countinghouse;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.ContentCachingResponseWrapper;
import quill.standins.Dials;

/** With its dial turned, does what was asked and then loses the answer on the way back. */
@Component
class AnswerCutting extends OncePerRequestFilter {
    private static final Pattern OURS = Pattern.compile("^/api/(orders|refunds|contests|account|keepings|methods)");
    private final EventBook events;
    private final AtomicInteger answered = new AtomicInteger();

    AnswerCutting(EventBook events) {
        this.events = events;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !OURS.matcher(request.getRequestURI()).find();
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        int each = events.dials().all().get("cut-each");
        boolean one = each > 0 && answered.incrementAndGet() % each == 0;
        if (!one && !events.dials().cutsThisAnswer()) {
            chain.doFilter(request, response);
            return;
        }
        chain.doFilter(request, new ContentCachingResponseWrapper(response));
        Dials.cut(response);
    }
}
