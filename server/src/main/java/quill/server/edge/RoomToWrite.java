package quill.server.edge;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Set;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import quill.server.common.Problems;
import quill.server.running.DiskSpace;

/** Refuses what would write while the disk is nearly full (507); signing in and reading go on. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 30)
class RoomToWrite extends OncePerRequestFilter {
    private static final Set<String> READING = Set.of("GET", "HEAD", "OPTIONS");
    /** What changes nothing though it is sent. */
    private static final Set<String> WRITES_NOTHING = Set.of("/api/session", "/api/reckonings");

    private final DiskSpace disk;

    RoomToWrite(DiskSpace disk) {
        this.disk = disk;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String path = request.getRequestURI();
        boolean writes = !READING.contains(request.getMethod()) && !WRITES_NOTHING.contains(path);
        if (writes && !disk.isEnough()) {
            Problems.write(response, 507, "disk-full", "The disk is nearly full. Nothing was saved.");
            return;
        }
        chain.doFilter(request, response);
    }
}
