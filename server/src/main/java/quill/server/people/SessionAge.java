package quill.server.people;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Ends sessions that are too old before anybody is let in by them. A page that asks by itself says so in a header. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 50)
class SessionAge extends OncePerRequestFilter {
    static final String BY_ITSELF = "Quill-By-Itself";
    private final Sessions sessions;

    SessionAge(Sessions sessions) {
        this.sessions = sessions;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        HttpSession session = request.getSession(false);
        if (session != null && request.getRequestURI().startsWith("/api/")) {
            boolean byItself = request.getHeader(BY_ITSELF) != null
                    || request.getRequestURI().equals("/api/events");
            sessions.holds(session, !byItself);
        }
        chain.doFilter(request, response);
    }
}
