package quill.server.people;

import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.security.crypto.argon2.Argon2PasswordEncoder;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import quill.server.common.TooOftenException;

/**
 * Argon2id is slow on purpose, so it has two places: one for browsers that signed in before, and one for everybody else.
 * Of everybody else one try waits for each address and twenty in all. Never within a transaction, which would hold its
 * connection meanwhile.
 */
@Component
class Hashing {
    private static final int MOST_WAITING = 20;
    private static final int PATIENCE_SECONDS = 20;

    private final Argon2PasswordEncoder encoder = Argon2PasswordEncoder.defaultsForSpringSecurity_v5_8();
    private final String nobody = encoder.encode("a passphrase that nobody has");
    private final Place known = new Place();
    private final Place strangers = new Place();

    /** Where one hash is reckoned at a time, and some wait. */
    private static final class Place {
        private final Semaphore working = new Semaphore(1, true);
        private final Set<String> waiting = ConcurrentHashMap.newKeySet();
    }

    /** Who tries. @param known whether the browser signed in before */
    record Who(String sender, boolean known) {}

    /** Whether this is the passphrase of that hash; reckoned in the same time where there is none. */
    boolean matches(String passphrase, String hash, Who who) {
        return placed(who, () -> encoder.matches(passphrase, hash == null ? nobody : hash) && hash != null);
    }

    String encode(String passphrase, Who who) {
        return placed(who, () -> encoder.encode(passphrase));
    }

    private <T> T placed(Who who, java.util.function.Supplier<T> work) {
        if (TransactionSynchronizationManager.isActualTransactionActive()) {
            throw new IllegalStateException("a passphrase is never hashed within a transaction");
        }
        Place place = who.known() ? known : strangers;
        String waits = who.known() ? Thread.currentThread().getName() : who.sender();
        if (place.waiting.size() >= MOST_WAITING || !place.waiting.add(waits)) {
            throw tooMany();
        }
        try {
            if (!place.working.tryAcquire(PATIENCE_SECONDS, TimeUnit.SECONDS)) {
                throw tooMany();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw tooMany();
        } finally {
            place.waiting.remove(waits);
        }
        try {
            return work.get();
        } finally {
            place.working.release();
        }
    }

    private static TooOftenException tooMany() {
        return new TooOftenException("Too many try to sign in just now. Wait a moment and try again.");
    }
}
