package quill.server.edge;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.regex.Pattern;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import quill.server.common.Problems;
import quill.server.common.TooLargeException;

/**
 * How much a request may send, by its address: a length that says more is refused before a byte is read, and a body that
 * says none is counted. Files go only to the addresses that take them; their limit is the multipart one.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 20)
class BodyLimits extends OncePerRequestFilter {
    static final long SIGN_IN = 4 * 1024L;
    static final long HOOK = 64 * 1024L;
    static final long JSON = 1024 * 1024L;
    /** As {@code spring.servlet.multipart.max-request-size} in quill.properties. */
    static final long FILES = 11 * 1024 * 1024L;

    private static final Pattern TAKES_FILES =
            Pattern.compile("/api/(invoices/[^/]+/attachments|imports/ubl|(catalogue|clients)/table|business/logo|"
                    + "catalogue/items/[^/]+/picture)");

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String type = request.getContentType();
        boolean multipart =
                type != null && type.toLowerCase(java.util.Locale.ROOT).startsWith("multipart/");
        if (multipart && !TAKES_FILES.matcher(request.getRequestURI()).matches()) {
            Problems.write(response, 415, "malformed", "No file can be sent to this address; send JSON.");
            return;
        }
        long most = multipart ? FILES : mostAt(request.getRequestURI());
        if (multipart && request.getContentLengthLong() > most) {
            Problems.write(
                    response, 413, "too-large", "This file is too large.", "file", "a file may have at most 10 MB");
            return;
        }
        if (request.getContentLengthLong() > most) {
            refuse(response, most);
            return;
        }
        try {
            chain.doFilter(multipart ? request : new Counted(request, most), response);
        } catch (TooLargeException e) {
            if (response.isCommitted()) {
                throw e;
            }
            refuse(response, most);
        }
    }

    private static void refuse(HttpServletResponse response, long most) throws IOException {
        response.setHeader("Connection", "close");
        Problems.write(response, 413, "too-large", "That is too much: at most " + words(most) + " can be sent here.");
    }

    private static String words(long bytes) {
        return bytes < JSON ? bytes / 1024 + " KB" : bytes / JSON + " MB";
    }

    static long mostAt(String path) {
        if (path.equals("/api/session") || path.equals("/api/first-run") || path.equals("/api/passphrase")) {
            return SIGN_IN;
        }
        return path.startsWith("/api/hooks/") || path.startsWith("/api/public/") ? HOOK : JSON;
    }

    private static final class Counted extends HttpServletRequestWrapper {
        private final long most;
        private ServletInputStream counting;

        private Counted(HttpServletRequest request, long most) {
            super(request);
            this.most = most;
        }

        @Override
        public ServletInputStream getInputStream() throws IOException {
            if (counting == null) {
                counting = new CountingStream(super.getInputStream(), most);
            }
            return counting;
        }

        @Override
        public BufferedReader getReader() throws IOException {
            return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
        }
    }

    private static final class CountingStream extends ServletInputStream {
        private final ServletInputStream in;
        private final long most;
        private long read;

        private CountingStream(ServletInputStream in, long most) {
            this.in = in;
            this.most = most;
        }

        private int counted(int now, boolean single) throws IOException {
            read += now < 0 ? 0 : single ? 1 : now;
            if (read > most) {
                throw new TooLargeException(most);
            }
            return now;
        }

        @Override
        public int read() throws IOException {
            return counted(in.read(), true);
        }

        @Override
        public int read(byte[] bytes, int offset, int length) throws IOException {
            return counted(in.read(bytes, offset, length), false);
        }

        @Override
        public boolean isFinished() {
            return in.isFinished();
        }

        @Override
        public boolean isReady() {
            return in.isReady();
        }

        @Override
        public void setReadListener(ReadListener listener) {
            in.setReadListener(listener);
        }
    }
}
