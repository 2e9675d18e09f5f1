package quill.server.edge;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Collections;
import java.util.Enumeration;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import quill.server.QuillSettings;

/**
 * Believes {@code X-Forwarded-For}, {@code X-Forwarded-Proto} and {@code Forwarded} (RFC 7239) of the proxies in
 * {@code quill.proxies} only, and of them the last hop only: what stands before it anybody may have written. From
 * everybody else the headers are taken away.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 10)
class ForwardedFrom extends OncePerRequestFilter {
    private static final Pattern FOR = Pattern.compile("(?i)(?:^|;)\\s*for=\"?\\[?([0-9A-Fa-f:.]+)");
    private static final Pattern PROTO = Pattern.compile("(?i)(?:^|;)\\s*proto=\"?(https?)");
    private static final Set<String> HEADERS =
            Set.of("forwarded", "x-forwarded-for", "x-forwarded-proto", "x-forwarded-host", "x-forwarded-port");

    private final Set<String> proxies;

    ForwardedFrom(QuillSettings settings) {
        this.proxies = settings.proxies() == null
                ? Set.of()
                : settings.proxies().stream().map(Sender::keyOf).collect(Collectors.toSet());
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        chain.doFilter(new AsItCame(request, proxies.contains(Sender.keyOf(request.getRemoteAddr()))), response);
    }

    private static String last(HttpServletRequest request, String header) {
        List<String> lines = Collections.list(request.getHeaders(header));
        if (lines.isEmpty()) {
            return null;
        }
        String line = lines.get(lines.size() - 1);
        return line.substring(line.lastIndexOf(',') + 1).strip();
    }

    private static String found(Pattern pattern, String text) {
        Matcher matcher = pattern.matcher(text == null ? "" : text);
        return matcher.find() ? matcher.group(1) : null;
    }

    private static final class AsItCame extends HttpServletRequestWrapper {
        private final String address;
        private final boolean secure;

        private AsItCame(HttpServletRequest request, boolean believed) {
            super(request);
            String hop = believed ? last(request, "forwarded") : null;
            String from = believed ? last(request, "x-forwarded-for") : null;
            String proto = believed ? last(request, "x-forwarded-proto") : null;
            String known = hop == null ? from : found(FOR, hop);
            this.address = known == null || known.isEmpty() ? request.getRemoteAddr() : known;
            this.secure = request.isSecure() || "https".equalsIgnoreCase(hop == null ? proto : found(PROTO, hop));
        }

        @Override
        public String getRemoteAddr() {
            return address;
        }

        @Override
        public String getRemoteHost() {
            return address;
        }

        @Override
        public boolean isSecure() {
            return secure;
        }

        @Override
        public String getScheme() {
            return secure ? "https" : super.getScheme();
        }

        @Override
        public String getHeader(String name) {
            return isForwarding(name) ? null : super.getHeader(name);
        }

        @Override
        public Enumeration<String> getHeaders(String name) {
            return isForwarding(name) ? Collections.emptyEnumeration() : super.getHeaders(name);
        }

        private static boolean isForwarding(String name) {
            return HEADERS.contains(name.toLowerCase(java.util.Locale.ROOT));
        }
    }
}
