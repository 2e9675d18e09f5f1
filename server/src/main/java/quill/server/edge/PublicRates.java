package quill.server.edge;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.github.bucket4j.Bucket;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import quill.server.common.Problems;
import quill.server.common.Turns;

/**
 * How often clients' pages are asked: for each address and for each link, so that neither one visitor nor one link that
 * got about holds up the rest. What is remembered has a fixed size.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 40)
class PublicRates extends OncePerRequestFilter {
    private static final int REMEMBERED = 20_000;
    private static final int LONGEST_TOKEN = 64;
    private static final Pattern LINK = Pattern.compile("/(?:api/public|p)/([^/]*).*");

    private static final int AT_ONCE = 4;
    private static final int MOST_WAITING = 60;
    private static final Duration PATIENCE = Duration.ofSeconds(20);
    private final Turns turns = new Turns(AT_ONCE, MOST_WAITING, PATIENCE);
    private final int aMinute;
    private final Cache<String, Bucket> buckets = Caffeine.newBuilder()
            .maximumSize(REMEMBERED)
            .expireAfterAccess(Duration.ofMinutes(10))
            .build();

    PublicRates(@Value("${quill.public-a-minute}") int aMinute) {
        this.aMinute = aMinute;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        Matcher link = LINK.matcher(request.getRequestURI());
        if (link.matches()) {
            String token = link.group(1);
            boolean odd = token.length() > LONGEST_TOKEN;
            boolean allowed = allows("from " + Sender.keyOf(request.getRemoteAddr()))
                    && allows("link " + (odd ? "unknown" : token));
            if (!allowed) {
                tooOften(response);
                return;
            }
        }
        // Streams go on, and what is sent may wait for the card processor: neither takes a turn.
        boolean goesOn = request.getRequestURI().endsWith("/events") || !"GET".equals(request.getMethod());
        if (link.matches() && !goesOn) {
            inTurn(request, response, chain);
        } else {
            chain.doFilter(request, response);
        }
    }

    /** A few of clients' requests are worked on at once, some wait: a crowd of them leaves the business its share. */
    private void inTurn(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (!turns.take()) {
            tooOften(response);
            return;
        }
        try {
            chain.doFilter(request, response);
        } finally {
            turns.giveBack();
        }
    }

    private static void tooOften(HttpServletResponse response) throws IOException {
        response.setHeader("Retry-After", "10");
        Problems.write(response, 429, "too-often", "This page is asked for too often. Wait a moment.");
    }

    private boolean allows(String key) {
        return buckets.get(
                        key,
                        k -> Bucket.builder()
                                .addLimit(limit ->
                                        limit.capacity(aMinute / 2).refillGreedy(aMinute, Duration.ofMinutes(1)))
                                .build())
                .tryConsume(1);
    }
}
