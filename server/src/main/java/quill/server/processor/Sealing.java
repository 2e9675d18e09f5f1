package quill.server.processor;

import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Optional;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.security.crypto.encrypt.AesGcmBytesEncryptor;
import org.springframework.security.crypto.encrypt.BytesEncryptor;
import org.springframework.stereotype.Component;
import quill.server.common.Json;
import quill.server.running.DataFolder;

/**
 * Seals credentials (AES-256 in GCM, a new nonce each time). The key is a file beside the books, so that neither the
 * books alone nor a copy of them open a seal.
 */
@Component
class Sealing {
    private final BytesEncryptor cipher;
    private final Json json;

    Sealing(DataFolder folder, Json json) {
        byte[] key = Base64.getUrlDecoder().decode(folder.secret("credentials.key"));
        this.cipher = AesGcmBytesEncryptor.withSecretKey(new SecretKeySpec(key, "AES"))
                .build();
        this.json = json;
    }

    byte[] seal(Credentials credentials) {
        return cipher.encrypt(json.write(credentials).getBytes(StandardCharsets.UTF_8));
    }

    /** Empty where they were sealed with another key, or changed since. */
    Optional<Credentials> open(byte[] sealed) {
        try {
            return Optional.of(
                    json.read(new String(cipher.decrypt(sealed), StandardCharsets.UTF_8), Credentials.class));
        } catch (RuntimeException e) {
            return Optional.empty();
        }
    }
}
