package quill.server.common;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** Answers that are files. */
public final class Downloads {
    private static final Duration FOR_GOOD = Duration.ofDays(365);

    private Downloads() {}

    /** A PDF that the browser shows. @param name without its ending */
    public static ResponseEntity<byte[]> pdf(byte[] bytes, String name) {
        ContentDisposition shown =
                ContentDisposition.inline().filename(plain(name) + ".pdf").build();
        return answer(bytes, MediaType.APPLICATION_PDF, shown);
    }

    /** A file that the browser saves, whatever it is, and never runs. */
    public static ResponseEntity<byte[]> file(byte[] bytes, String type, String name) {
        ContentDisposition saved = ContentDisposition.attachment()
                .filename(name, StandardCharsets.UTF_8)
                .build();
        return answer(bytes, MediaType.parseMediaType(type), saved);
    }

    /** A picture that is asked for by its hash, and so never changes. */
    public static ResponseEntity<byte[]> pngForGood(byte[] bytes) {
        return ResponseEntity.ok()
                .cacheControl(CacheControl.maxAge(FOR_GOOD).cachePrivate())
                .body(bytes);
    }

    /** Letters, digits and hyphens only, as a file's name may be anywhere. */
    public static String plain(String name) {
        return name.replaceAll("[^A-Za-z0-9-]", "-");
    }

    private static ResponseEntity<byte[]> answer(byte[] bytes, MediaType type, ContentDisposition disposition) {
        return ResponseEntity.ok()
                .contentType(type)
                .header("X-Content-Type-Options", "nosniff")
                .header(HttpHeaders.CONTENT_DISPOSITION, disposition.toString())
                .body(bytes);
    }
}
