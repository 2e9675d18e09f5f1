package quill.server.audit;

import java.time.LocalDate;
import java.util.List;
import java.util.function.Supplier;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Repository;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ClientRows;
import quill.server.common.Texts;

/** Who did what, when, on the record it touched. Only ever added to. */
@Repository
public class Happenings {
    private final JdbcClient jdbc;
    private final Changes changes;
    private final BusinessClock clock;

    Happenings(JdbcClient jdbc, Changes changes, BusinessClock clock) {
        this.jdbc = jdbc;
        this.changes = changes;
        this.clock = clock;
    }

    /** One line of a record's history. @param about the letter, payment or fee that it tells of, or null */
    public record Happening(long id, LocalDate on, Actor who, String what, About about) {}

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

    private static final ThreadLocal<Actor> ACTING = new ThreadLocal<>();

    /** Who is acting: a client, the person signed in, else the product by itself. */
    public static Actor actor() {
        if (ACTING.get() != null) {
            return ACTING.get();
        }
        Authentication a = SecurityContextHolder.getContext().getAuthentication();
        boolean signedIn = a != null && a.isAuthenticated() && !(a instanceof AnonymousAuthenticationToken);
        return signedIn ? new Actor.Person(a.getName()) : Actor.PRODUCT;
    }

    /** The same in words. */
    public static String who() {
        return actor().words();
    }

    /** Does what a client did: its name stands where the person's would. */
    public static void asClient(String name, Runnable act) {
        as(new Actor.OnItsPage(name), act);
    }

    /** Does something in the name of whoever it is known to be from. */
    public static void as(Actor actor, Runnable act) {
        as(actor, () -> {
            act.run();
            return null;
        });
    }

    /** The same, with what it comes to. */
    public static <T> T as(Actor actor, Supplier<T> act) {
        Actor before = ACTING.get();
        ACTING.set(actor);
        try {
            return act.get();
        } finally {
            ACTING.set(before);
        }
    }

    /** Does what happens by itself within a person's request, so that nobody is named as having done it. */
    public static <T> T byItself(Supplier<T> act) {
        return as(Actor.PRODUCT, act);
    }

    /** Notes it within the running transaction, and says that something changed. */
    public void tell(DocumentId invoiceId, ClientId clientId, String what) {
        tell(invoiceId, clientId, what, null);
    }

    /** The same of what became of a letter, a payment or a fee. */
    public void tell(DocumentId invoiceId, ClientId clientId, String what, About about) {
        note(invoiceId, clientId, what, about);
        changes.say(invoiceId, clientId);
    }

    /** Notes it within the running transaction. */
    public void note(DocumentId invoiceId, ClientId clientId, String what) {
        note(invoiceId, clientId, what, null);
    }

    /** Notes what became of a letter, a payment or a fee, within the running transaction. */
    public void note(DocumentId invoiceId, ClientId clientId, String what, About about) {
        jdbc.sql("""
                INSERT INTO happening (invoice_id, client_id, happened_on, happened_at, actor, who, what, about_kind, about_id)
                VALUES (:invoice, :client, :on, :at, :actor, :who, :what, :kind, :about)
                """)
                .param("kind", about == null ? null : about.kind())
                .param("about", about == null ? null : about.id())
                .param("invoice", invoiceId)
                .param("client", clientId)
                .param("on", clock.today())
                .param("at", clock.instant())
                .param("actor", actor().kind())
                .param("who", actor().name())
                .param("what", Texts.fit(what, 1000))
                .update();
    }

    /** An invoice's history, newest first. */
    public List<Happening> ofInvoice(DocumentId invoiceId) {
        return jdbc.sql("""
                SELECT id, happened_on, actor, who, what, about_kind, about_id
                  FROM happening WHERE invoice_id = :invoice ORDER BY id DESC LIMIT 200
                """)
                .param("invoice", invoiceId)
                .query((rs, n) -> new Happening(
                        rs.getLong(1),
                        rs.getDate(2).toLocalDate(),
                        Actor.of(rs.getString(3), rs.getString(4)),
                        rs.getString(5),
                        rs.getString(6) == null ? null : new About(About.Kind.valueOf(rs.getString(6)), rs.getLong(7))))
                .list();
    }

    /** Forgets what was noted of a client that is deleted before anything was ever done for it. */
    public void forget(ClientId clientId) {
        jdbc.sql("DELETE FROM happening WHERE client_id = :client AND invoice_id IS NULL")
                .param("client", clientId)
                .update();
    }

    @Bean
    ClientRows happeningsOfClients() {
        return ClientRows.of(jdbc, "happening");
    }
}
