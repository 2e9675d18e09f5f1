package quill.server.people;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.Base64;
import java.util.Optional;
import java.util.UUID;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Component;
import quill.server.running.DataFolder;

/**
 * Marks a browser that signed in before, with a signed cookie. It opens nothing: its tries are counted apart and have a
 * place of their own, so that strangers who try at the same time keep nobody out.
 */
@Component
class KnownBrowsers {
    private static final String NAME = "quill-known";
    private static final int LONGEST = 200;
    private final byte[] key;

    KnownBrowsers(DataFolder folder) {
        this.key = Base64.getUrlDecoder().decode(folder.secret("browsers.key"));
    }

    /** The browser's own number, where it signed in as this address before. */
    Optional<String> knownAs(HttpServletRequest request, String email) {
        if (request.getCookies() == null) {
            return Optional.empty();
        }
        for (Cookie cookie : request.getCookies()) {
            String value = cookie.getValue();
            if (NAME.equals(cookie.getName()) && value.length() < LONGEST && value.indexOf('.') > 0) {
                String number = value.substring(0, value.indexOf('.'));
                byte[] expected = signature(number, email).getBytes(StandardCharsets.US_ASCII);
                if (MessageDigest.isEqual(
                        expected, value.substring(value.indexOf('.') + 1).getBytes(StandardCharsets.UTF_8))) {
                    return Optional.of(number);
                }
            }
        }
        return Optional.empty();
    }

    /** Marks it, if it is not marked yet. */
    void mark(HttpServletRequest request, HttpServletResponse response, String email) {
        if (knownAs(request, email).isPresent()) {
            return;
        }
        String number = UUID.randomUUID().toString();
        response.addHeader(
                HttpHeaders.SET_COOKIE,
                ResponseCookie.from(NAME, number + "." + signature(number, email))
                        .httpOnly(true)
                        .secure(request.isSecure())
                        .sameSite("Lax")
                        .path("/api")
                        .maxAge(Duration.ofDays(400))
                        .build()
                        .toString());
    }

    private String signature(String number, String email) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(key, "HmacSHA256"));
            return Base64.getUrlEncoder()
                    .withoutPadding()
                    .encodeToString(mac.doFinal((number + " " + email).getBytes(StandardCharsets.UTF_8)));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e);
        }
    }
}
