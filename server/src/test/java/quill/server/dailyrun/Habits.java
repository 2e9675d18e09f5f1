package quill.server.dailyrun;

import java.math.BigDecimal;
import java.util.Collection;
import java.util.List;
import java.util.Random;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.reminder.ReminderPlan.TypedStep;
import quill.server.Server;
import quill.server.business.Rates;
import quill.server.chasing.NamedPlans;
import quill.server.chasing.PlanChoice;
import quill.server.dispatch.Correspondence;
import quill.server.dispatch.Mending;

/** How the simulated business treats its clients: by which plans and policies, and what it does about returned letters. */
final class Habits {
    private final Server server;
    private final Random random;
    private long slow;
    private long early;
    int cameBack;

    Habits(Server server, Random random) {
        this.server = server;
        this.random = random;
    }

    /** Makes the plans, and gives each client its own. */
    void begin(Collection<Shadow> shadows) {
        server.bean(Rates.class).note(new Rates.Rate("GBP", "2027-01-01", "1.1745"));
        NamedPlans named = server.bean(NamedPlans.class);
        slow = named.make(
                        "Slow",
                        List.of(
                                step("7", false, "FRIENDLY", "MAIL"),
                                step("21", false, "FIRM", "TEXT"),
                                step("45", false, "FINAL", "MAIL")))
                .id();
        early = named.make("Early", List.of(step("7", true, "FRIENDLY", "TEXT"), step("1", false, "FIRM", "MAIL")))
                .id();
        shadows.forEach(s -> named.chooseForClient(s.id, choice(s.plan)));
    }

    private static TypedStep step(String days, boolean before, String tone, String way) {
        return new TypedStep(days, before, tone, way, random(tone));
    }

    /** Whether a copy goes: it changes nothing of what is checked. */
    private static boolean random(String tone) {
        return "FIRM".equals(tone);
    }

    private PlanChoice choice(Shadow.Plan plan) {
        if (plan == Shadow.Plan.NONE) {
            return new PlanChoice(PlanChoice.Use.NONE, null);
        }
        return plan == Shadow.Plan.USUAL
                ? new PlanChoice(PlanChoice.Use.USUAL, null)
                : new PlanChoice(PlanChoice.Use.NAMED, plan == Shadow.Plan.SLOW ? slow : early);
    }

    /** A letter comes back; some days later somebody sees to that. */
    void bounce(Shadow s) {
        long mails = server.jdbc().sql("""
                        UPDATE message SET state = 'bounced', came_back_from = to_address
                         WHERE id = (SELECT MAX(id) FROM message
                                      WHERE client_id = :client AND channel = 'MAIL' AND state = 'waiting'
                                        AND kind <> 'copy')
                        """).param("client", s.id.value()).update();
        if (mails == 1) {
            cameBack++;
            s.bounced = true;
            s.touched = true;
        } else if (s.bounced) {
            server.bean(Correspondence.class).needingSomebody().stream()
                    .filter(m -> s.id.equals(m.clientId()))
                    .forEach(m -> server.bean(Mending.class).setAside(m.id()));
            s.bounced = false;
            s.touched = true;
        }
    }

    /** Now and then a document has a plan of its own. */
    Shadow.Plan planFor(Shadow s, DocumentId id) {
        if (random.nextInt(7) > 0) {
            return s.plan;
        }
        Shadow.Plan own = random.nextInt(4) == 0 ? Shadow.Plan.NONE : Shadow.Plan.EARLY;
        server.bean(NamedPlans.class).chooseForDocument(id, choice(own));
        return own;
    }

    Shadow.Policy policy(long total) {
        int every = new int[] {0, 0, 7, 30, -1}[random.nextInt(5)];
        long cap = random.nextBoolean() ? 500 + random.nextInt(3_000) : Long.MAX_VALUE;
        return new Shadow.Policy(
                25 * (1 + random.nextInt(16)), random.nextInt(12), every, cap, random.nextInt(3) * 500L);
    }

    static TypedLateFeePolicy typed(Shadow.Policy p) {
        if (p == null) {
            return TypedLateFeePolicy.none();
        }
        return new TypedLateFeePolicy(
                "percent",
                new BigDecimal(p.rate()).movePointLeft(2).toPlainString(),
                String.valueOf(p.grace()),
                p.every() == 0 ? "once" : p.every() < 0 ? "monthly" : "days",
                String.valueOf(Math.max(1, p.every())),
                p.cap() == Long.MAX_VALUE ? "" : money(p.cap()),
                p.smallest() == 0 ? "" : money(p.smallest()),
                false);
    }

    private static String money(long minor) {
        return BigDecimal.valueOf(minor, 2).toPlainString();
    }
}
