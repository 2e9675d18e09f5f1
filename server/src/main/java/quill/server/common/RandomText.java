package quill.server.common;

import java.security.SecureRandom;
import java.util.Base64;

/** Texts that nobody guesses. */
public final class RandomText {
    private static final SecureRandom RANDOM = new SecureRandom();

    private RandomText() {}

    /** So many random bytes, in letters, digits, {@code -} and {@code _}. */
    public static String of(int bytes) {
        byte[] some = new byte[bytes];
        RANDOM.nextBytes(some);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(some);
    }
}
