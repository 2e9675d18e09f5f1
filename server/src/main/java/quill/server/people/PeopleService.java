package quill.server.people;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.server.common.ConflictException;
import quill.server.common.Texts;

/** The person who signs in. Passphrases are kept as Argon2id hashes only. */
@Service
public class PeopleService {
    private final JdbcClient jdbc;
    private final Hashing hashing;
    private final Tries tries;
    private final AccessLog log;
    private final TransactionTemplate transaction;

    PeopleService(JdbcClient jdbc, Hashing hashing, Tries tries, AccessLog log, TransactionTemplate transaction) {
        this.jdbc = jdbc;
        this.hashing = hashing;
        this.tries = tries;
        this.log = log;
        this.transaction = transaction;
    }

    /** Who signed in. */
    public record Person(long id, String email, String name) {}

    /**
     * Where a try comes from.
     *
     * @param sender the address, as limits count it
     * @param known the number of a browser that signed in before, or null
     * @param browser what it says of itself
     */
    record From(String sender, String known, String browser) {
        Hashing.Who who() {
            return new Hashing.Who(sender, known != null);
        }
    }

    private record Stored(Person person, String passphrase) {}

    /** Whether anybody can sign in yet. */
    public boolean isEmpty() {
        return jdbc.sql("SELECT COUNT(*) FROM person").query(Long.class).single() == 0;
    }

    /** The demo's owner, made without a browser. */
    public Person makeOwner(String email, String name, String passphrase) {
        return makeOwner(email, name, passphrase, new From("this machine", null, ""), () -> {});
    }

    /**
     * Makes the owner's account, once, with all that belongs to it, or nothing of both.
     *
     * @param business sets up the business, within the same transaction
     */
    Person makeOwner(String email, String name, String passphrase, From from, Runnable business) {
        List<Problem> problems = new ArrayList<>();
        String address = normal(Texts.email("owner.email", email, true, problems));
        String plainName = Texts.name("owner.name", name, 120, true, problems);
        PassphraseRules.check("owner.passphrase", passphrase, List.of(address, plainName), problems);
        if (!isEmpty()) {
            throw new ConflictException("There is an account already; sign in.");
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        String hash = hashing.encode(passphrase, from.who());
        return transaction.execute(s -> {
            if (!isEmpty()) {
                throw new ConflictException("There is an account already; sign in.");
            }
            jdbc.sql("INSERT INTO person (email, name, passphrase) VALUES (:email, :name, :passphrase)")
                    .param("email", address)
                    .param("name", plainName)
                    .param("passphrase", hash)
                    .update();
            business.run();
            log.note("Account made", address, from.sender(), from.browser());
            return find(address).orElseThrow().person();
        });
    }

    /**
     * Checks a sign-in.
     *
     * @throws RefusedException with the same words whether the address or the passphrase is wrong
     * @throws quill.server.common.TooOftenException where too many try at once
     */
    Person signIn(String email, String passphrase, From from) {
        Stored stored = check(email, passphrase, from)
                .orElseThrow(
                        () -> new RefusedException("passphrase", "", "address and passphrase do not fit together"));
        log.note("Signed in", stored.person().email(), from.sender(), from.browser());
        return stored.person();
    }

    /** Whether this is the passphrase of the person signed in; tries count as those to sign in do. */
    boolean proves(String email, String passphrase, From from) {
        return check(email, passphrase, from).isPresent();
    }

    private Optional<Stored> check(String email, String passphrase, From from) {
        String address = normal(email);
        String who = from.known() == null ? from.sender() + " " + address : "known " + from.known();
        tries.begin(who);
        Optional<Stored> stored = find(address);
        boolean right;
        try {
            right = hashing.matches(
                    passphrase == null ? "" : passphrase,
                    stored.map(Stored::passphrase).orElse(null),
                    from.who());
        } catch (RuntimeException e) {
            tries.notMade(who);
            throw e;
        }
        if (!right) {
            log.failed(stored.isPresent() ? address : "an address that is not known", from.sender(), from.browser());
            return Optional.empty();
        }
        tries.succeeded(who);
        return stored;
    }

    /** Changes a passphrase; the old one has to be known. */
    void changePassphrase(String email, String current, String next, From from) {
        Stored stored = check(email, current, from)
                .orElseThrow(() -> new RefusedException("current", "", "is not your passphrase now"));
        List<Problem> problems = new ArrayList<>();
        PassphraseRules.check("next", next, List.of(email, stored.person().name()), problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        String hash = hashing.encode(next, from.who());
        transaction.executeWithoutResult(s -> {
            int rows = jdbc.sql("UPDATE person SET passphrase = :next WHERE id = :id AND passphrase = :before")
                    .param("next", hash)
                    .param("id", stored.person().id())
                    .param("before", stored.passphrase())
                    .update();
            if (rows != 1) {
                throw new ConflictException("The passphrase was changed elsewhere meanwhile.");
            }
            log.note("Passphrase changed", stored.person().email(), from.sender(), from.browser());
        });
    }

    private static String normal(String email) {
        return Texts.fit(email == null ? "" : email.strip().toLowerCase(Locale.ROOT), 200);
    }

    private Optional<Stored> find(String address) {
        return jdbc.sql("SELECT id, email, name, passphrase FROM person WHERE email = :email")
                .param("email", address)
                .query((rs, n) -> new Stored(
                        new Person(rs.getLong("id"), rs.getString("email"), rs.getString("name")),
                        rs.getString("passphrase")))
                .optional();
    }
}
