package quill.server.people;

import java.time.Duration;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import org.springframework.security.crypto.argon2.Argon2PasswordEncoder;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import quill.server.common.TooOftenException;
import quill.server.common.Turns;

/**
 * Argon2id is slow on purpose, so it has two places: one for browsers that signed in before, and one for everybody else.
 * Of everybody else one try waits for each address and twenty in all. Never within a transaction, which would hold its
 * connection meanwhile.
 */
@Component
class Hashing {
    private static final int MOST_WAITING = 20;
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private final Argon2PasswordEncoder encoder = Argon2PasswordEncoder.defaultsForSpringSecurity_v5_8();
    private final String nobody = encoder.encode("a passphrase that nobody has");
    private final Turns known = new Turns(1, MOST_WAITING, PATIENCE);
    private final Turns strangers = new Turns(1, MOST_WAITING, PATIENCE);
    private final Set<String> waiting = ConcurrentHashMap.newKeySet();

    /** Who tries. @param known whether the browser signed in before */
    record Who(String sender, boolean known) {}

    /** Whether this is the passphrase of that hash; reckoned in the same time where there is none. */
    boolean matches(String passphrase, String hash, Who who) {
        return placed(who, () -> encoder.matches(passphrase, hash == null ? nobody : hash) && hash != null);
    }

    String encode(String passphrase, Who who) {
        return placed(who, () -> encoder.encode(passphrase));
    }

    private <T> T placed(Who who, Supplier<T> work) {
        if (TransactionSynchronizationManager.isActualTransactionActive()) {
            throw new IllegalStateException("a passphrase is never hashed within a transaction");
        }
        if (!take(who)) {
            throw new TooOftenException("Too many try to sign in just now. Wait a moment and try again.");
        }
        try {
            return work.get();
        } finally {
            (who.known() ? known : strangers).giveBack();
        }
    }

    private boolean take(Who who) {
        if (who.known()) {
            return known.take();
        }
        if (!waiting.add(who.sender())) {
            return false;
        }
        try {
            return strangers.take();
        } finally {
            waiting.remove(who.sender());
        }
    }
}
