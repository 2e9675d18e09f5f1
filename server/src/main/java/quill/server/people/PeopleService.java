package quill.server.people;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.crypto.argon2.Argon2PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.common.ConflictException;
import quill.server.common.Texts;

/** The person who signs in. Passphrases are kept as Argon2id hashes only. */
@Service
public class PeopleService {
    /** OWASP ASVS 5, 6.2.1: at least 8 characters, 15 recommended; length is all that is asked. */
    static final int SHORTEST = 12;

    private static final int LONGEST = 200;
    private static final int FREE_TRIES = 5;
    private static final Duration WAIT = Duration.ofSeconds(30);

    private final JdbcClient jdbc;
    private final Argon2PasswordEncoder encoder = Argon2PasswordEncoder.defaultsForSpringSecurity_v5_8();
    private final String nobody = encoder.encode("a passphrase that nobody has");
    private final Map<String, Failures> failures = new ConcurrentHashMap<>();

    PeopleService(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Who signed in. */
    public record Person(long id, String email, String name) {}

    private record Stored(Person person, String passphrase) {}

    private record Failures(int count, Instant last) {}

    /** Whether anybody can sign in yet. */
    public boolean isEmpty() {
        return jdbc.sql("SELECT COUNT(*) FROM person").query(Long.class).single() == 0;
    }

    /** Makes the owner's account, once. */
    @Transactional
    public Person makeOwner(String email, String name, String passphrase) {
        if (!isEmpty()) {
            throw new ConflictException("There is an account already; sign in.");
        }
        List<Problem> problems = new ArrayList<>();
        String address = Texts.email("ownerEmail", email, true, problems);
        String plainName = Texts.text("ownerName", name, 120, true, problems);
        checkPassphrase("passphrase", passphrase, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        jdbc.sql("INSERT INTO person (email, name, passphrase) VALUES (:email, :name, :passphrase)")
                .param("email", address.toLowerCase(Locale.ROOT))
                .param("name", plainName)
                .param("passphrase", encoder.encode(passphrase))
                .update();
        return find(address).orElseThrow().person();
    }

    /**
     * Checks a sign-in. After five failures from one place, each further try waits 30 seconds.
     *
     * @param from where the request came from
     * @throws RefusedException with the same words whether the address or the passphrase is wrong
     */
    public Person signIn(String email, String passphrase, String from) {
        String key = from + " " + (email == null ? "" : email.toLowerCase(Locale.ROOT));
        Failures before = failures.getOrDefault(key, new Failures(0, Instant.EPOCH));
        Instant allowed = before.last().plus(WAIT);
        if (before.count() >= FREE_TRIES && Instant.now().isBefore(allowed)) {
            throw new RefusedException(
                    "passphrase", "", "too many tries; wait " + WAIT.toSeconds() + " seconds and try again");
        }
        Optional<Stored> stored = find(email);
        // The hash is reckoned for unknown addresses too, so that time tells nothing.
        boolean right = encoder.matches(
                passphrase == null ? "" : passphrase,
                stored.map(Stored::passphrase).orElse(nobody));
        if (stored.isEmpty() || !right) {
            failures.put(key, new Failures(before.count() + 1, Instant.now()));
            if (failures.size() > 10_000) {
                failures.entrySet().removeIf(e -> e.getValue().last().plus(WAIT).isBefore(Instant.now()));
            }
            throw new RefusedException("passphrase", "", "address and passphrase do not fit together");
        }
        failures.remove(key);
        return stored.get().person();
    }

    /** Changes a passphrase; the old one has to be known. */
    @Transactional
    public void changePassphrase(String email, String current, String next, String from) {
        try {
            signIn(email, current, from);
        } catch (RefusedException e) {
            throw new RefusedException("current", "", "is not your passphrase now");
        }
        List<Problem> problems = new ArrayList<>();
        checkPassphrase("next", next, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        int rows = jdbc.sql("UPDATE person SET passphrase = :passphrase WHERE email = :email")
                .param("passphrase", encoder.encode(next))
                .param("email", email.toLowerCase(Locale.ROOT))
                .update();
        if (rows != 1) {
            throw new ConflictException("That account is gone.");
        }
    }

    private static void checkPassphrase(String field, String passphrase, List<Problem> problems) {
        int length = passphrase == null ? 0 : passphrase.length();
        if (length < SHORTEST || length > LONGEST) {
            problems.add(new Problem(
                    field,
                    "",
                    "must have from " + SHORTEST + " to " + LONGEST + " characters; four or five words are good"));
        }
    }

    private Optional<Stored> find(String email) {
        return jdbc.sql("SELECT id, email, name, passphrase FROM person WHERE email = :email")
                .param("email", email == null ? "" : email.strip().toLowerCase(Locale.ROOT))
                .query((rs, n) -> new Stored(
                        new Person(rs.getLong("id"), rs.getString("email"), rs.getString("name")),
                        rs.getString("passphrase")))
                .optional();
    }
}
