package quill.server.common;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;

/** Problem details (RFC 9457) where no controller answers: in filters, before a request is read. */
public final class Problems {
    private Problems() {}

    /** Answers with a problem of a fixed text, without quotation marks or line breaks in it. */
    public static void write(HttpServletResponse response, int status, String code, String message) throws IOException {
        write(response, status, "{" + head(status, code, message) + "}");
    }

    /** The same, with what is wrong with one field. */
    public static void write(
            HttpServletResponse response, int status, String code, String message, String field, String allowed)
            throws IOException {
        String problem = "{\"field\":\"" + field + "\",\"value\":\"\",\"message\":\"" + allowed + "\"}";
        write(response, status, "{" + head(status, code, message) + ",\"problems\":[" + problem + "]}");
    }

    private static String head(int status, String code, String message) {
        return "\"type\":\"urn:rustic-quill:" + code + "\",\"status\":" + status + ",\"detail\":\"" + message + "\"";
    }

    private static void write(HttpServletResponse response, int status, String json) throws IOException {
        byte[] body = json.getBytes(StandardCharsets.UTF_8);
        response.setStatus(status);
        response.setContentType("application/problem+json");
        response.setCharacterEncoding("UTF-8");
        response.setContentLength(body.length);
        response.getOutputStream().write(body);
    }
}
