package quill.server.audit;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Repository;
import quill.server.common.BusinessClock;
import quill.server.common.ClientRows;
import quill.server.common.Texts;

/** Who did what, when, on the record it touched. Only ever added to. */
@Repository
public class Happenings {
    private final JdbcClient jdbc;
    private final BusinessClock clock;

    Happenings(JdbcClient jdbc, BusinessClock clock) {
        this.jdbc = jdbc;
        this.clock = clock;
    }

    /** One line of a record's history. @param about the letter, payment or fee that it tells of, or null */
    public record Happening(long id, LocalDate on, String who, String what, About about) {}

    /** What a line of history tells of, beside the invoice. */
    public record About(Kind kind, long id) {
        /** Kinds of it. */
        public enum Kind {
            LETTER,
            PAYMENT,
            FEE
        }

        /** A letter. */
        public static About letter(long id) {
            return new About(Kind.LETTER, id);
        }

        /** A payment. */
        public static About payment(long id) {
            return new About(Kind.PAYMENT, id);
        }

        /** A late fee. */
        public static About fee(long id) {
            return new About(Kind.FEE, id);
        }
    }

    /** How it is said that nobody did it: the application by itself. */
    public static final String BY_ITSELF = "by itself";

    private static final ThreadLocal<String> ACTING = new ThreadLocal<>();

    /** Who is acting: a client, the person signed in, else the application by itself. */
    public static String who() {
        return ACTING.get() != null ? ACTING.get() : person().orElse(BY_ITSELF);
    }

    /** The person signed in, if anybody is, and nobody else acts. */
    public static Optional<String> person() {
        return Optional.ofNullable(SecurityContextHolder.getContext().getAuthentication())
                .filter(a ->
                        ACTING.get() == null && a.isAuthenticated() && !(a instanceof AnonymousAuthenticationToken))
                .map(Authentication::getName);
    }

    /** Does what a client did: its name stands where the person's would. */
    public static void asClient(String name, Runnable act) {
        as(name + ", client", act);
    }

    /** Does something in the name of whoever it is known to be from. */
    public static void as(String who, Runnable act) {
        as(who, () -> {
            act.run();
            return null;
        });
    }

    /** Does what happens by itself within a person's request, so that nobody is named as having done it. */
    public static <T> T byItself(Supplier<T> act) {
        return as(BY_ITSELF, act);
    }

    private static <T> T as(String who, Supplier<T> act) {
        String before = ACTING.get();
        ACTING.set(Texts.fit(who, 120));
        try {
            return act.get();
        } finally {
            ACTING.set(before);
        }
    }

    /** Notes it within the running transaction. */
    public void note(Long invoiceId, Long clientId, String what) {
        note(invoiceId, clientId, what, null);
    }

    /** Notes what became of a letter, a payment or a fee, within the running transaction. */
    public void note(Long invoiceId, Long clientId, String what, About about) {
        jdbc.sql("""
                INSERT INTO happening (invoice_id, client_id, happened_on, happened_at, who, what, about_kind, about_id)
                VALUES (:invoice, :client, :on, :at, :who, :what, :kind, :about)
                """)
                .param("kind", about == null ? null : about.kind().name())
                .param("about", about == null ? null : about.id())
                .param("invoice", invoiceId)
                .param("client", clientId)
                .param("on", clock.today())
                .param("at", clock.instant())
                .param("who", who())
                .param("what", Texts.fit(what, 1000))
                .update();
    }

    /** An invoice's history, newest first. */
    public List<Happening> ofInvoice(long invoiceId) {
        return jdbc.sql("""
                SELECT id, happened_on, who, what, about_kind, about_id
                  FROM happening WHERE invoice_id = :invoice ORDER BY id DESC LIMIT 200
                """)
                .param("invoice", invoiceId)
                .query((rs, n) -> new Happening(
                        rs.getLong(1),
                        rs.getDate(2).toLocalDate(),
                        rs.getString(3),
                        rs.getString(4),
                        rs.getString(5) == null ? null : new About(About.Kind.valueOf(rs.getString(5)), rs.getLong(6))))
                .list();
    }

    /** Forgets what was noted of a client that is deleted before anything was ever done for it. */
    public void forget(long clientId) {
        jdbc.sql("DELETE FROM happening WHERE client_id = :client AND invoice_id IS NULL")
                .param("client", clientId)
                .update();
    }

    @Bean
    ClientRows happeningsOfClients() {
        return ClientRows.of(jdbc, "happening");
    }
}
