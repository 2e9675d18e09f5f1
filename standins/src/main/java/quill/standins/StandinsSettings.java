package quill.standins;

import java.nio.file.Path;
import java.security.MessageDigest;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.http.HttpStatus;
import org.springframework.web.server.ResponseStatusException;

/** Settings under {@code standins.}, explained in standins.properties. */
@ConfigurationProperties("standins")
public record StandinsSettings(
        Path data,
        int smtpPort,
        int imapPort,
        String apiKey,
        String webhookSecret,
        String webhookUrl,
        String publicUrl) {
    /** Lets in who carries the key. @throws ResponseStatusException (401) for any other */
    public void check(String authorization) {
        byte[] expected = ("Bearer " + apiKey).getBytes();
        if (!MessageDigest.isEqual(expected, authorization.getBytes())) {
            throw new ResponseStatusException(HttpStatus.UNAUTHORIZED, "this key is not known here");
        }
    }
}
