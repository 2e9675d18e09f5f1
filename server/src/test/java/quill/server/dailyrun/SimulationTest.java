package quill.server.dailyrun;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.TypedLateFeePolicy;
import quill.core.ledger.OpenDebt;
import quill.core.money.Amounts;
import quill.server.Server;
import quill.server.books.BooksService;
import quill.server.chasing.ActView;
import quill.server.chasing.Decisions;
import quill.server.chasing.Muting;
import quill.server.clients.ClientsService;
import quill.server.common.Json;
import quill.server.debts.Debts;
import quill.server.dispatch.ReminderLetter;
import quill.server.invoices.InvoicesService;
import quill.server.latefees.FeePolicies;
import quill.server.latefees.LateFees;

/**
 * A hundred clients with random habits over a year, with days on which the machine was off and two changes of the
 * clocks. Everything that the run does is compared with a second reckoning that shares no code with it.
 */
public class SimulationTest {
    private static final LocalDate BEGIN = LocalDate.of(2027, 1, 4);
    private static final int DAYS = 365;
    private static final int CLIENTS = 100;
    private static final LocalTime HOUR = LocalTime.of(9, 0);

    private final Random random = new Random(Long.getLong("quill.seed", 2027));
    private final Map<ClientId, Shadow> shadows = new LinkedHashMap<>();
    private final Set<String> letters = new HashSet<>();
    private final Map<LocalDate, List<Runnable>> later = new HashMap<>();
    private Server server;
    private DailyRun run;
    private LocalDate lastRun = BEGIN.minusDays(1);
    private int fees;
    private int letterCount;
    private int undone;
    private int missedDays;
    private Habits habits;
    private int ofTwo;
    private int texts;

    @BeforeClass
    public void start() {
        server = new Server("--quill.texts.url=http://127.0.0.1:9");
        server.setUp(BEGIN);
        run = server.bean(DailyRun.class);
        server.bean(FeePolicies.class).change(new FeePolicies.FeeSetting(TypedLateFeePolicy.none(), "10", false, 0));
        for (int i = 0; i < CLIENTS; i++) {
            boolean hasAddress = random.nextInt(20) > 0;
            boolean hasNumber = random.nextInt(4) > 0;
            ClientId id = server.client("Client " + i, hasAddress);
            if (hasNumber) {
                server.bean(ClientsService.class).keepAddress(id, null, "+44 7700 9000" + (10 + i % 90));
            }
            Shadow.Plan plan = i % 9 == 1 ? Shadow.Plan.SLOW : i % 9 == 2 ? Shadow.Plan.NONE : Shadow.Plan.USUAL;
            shadows.put(id, new Shadow(id, hasAddress, hasNumber, plan));
        }
        habits = new Habits(server, random);
        habits.begin(shadows.values());
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    @Test
    public void aYearOfTrading() {
        int off = 0;
        for (int i = 0; i < DAYS; i++) {
            LocalDate day = BEGIN.plusDays(i);
            off = off > 0 ? off - 1 : random.nextInt(45) == 0 ? 1 + random.nextInt(20) : 0;
            if (off > 0 && i < DAYS - 21) {
                missedDays++;
                continue;
            }
            morning(day);
            evening(day);
            booksAgree();
        }
        assertThat(fees).isGreaterThan(300);
        assertThat(letterCount).isGreaterThan(500);
        assertThat(undone).isGreaterThan(20);
        assertThat(missedDays).isGreaterThan(30);
        assertThat(habits.cameBack).isGreaterThan(10);
        assertThat(ofTwo).as("letters of two currencies").isGreaterThan(10);
        assertThat(texts).isGreaterThan(20);
    }

    /** The list is written, things happen, and the hour comes. */
    private void morning(LocalDate day) {
        shadows.values().forEach(s -> s.touched = false);
        server.moveTo(day, LocalTime.of(0, 10));
        catchUpInShadow(day.minusDays(1), day);
        run.catchUp();
        compare(day, Set.of());
        List<ActView> list = server.bean(ActViews.class).until(day);
        server.moveTo(day, LocalTime.of(7, 0));
        due(day).forEach(Runnable::run);
        someDecide(list, day);
        server.moveTo(day, HOUR);
        Set<ClientId> reminded = catchUpInShadow(day, day);
        run.catchUp();
        compare(day, reminded);
        listEqualsLog(list, day);
        assertThat(run.catchUp().days()).isZero();
    }

    /** What the run should do, reckoned before it does it. @return who should get a letter today */
    private Set<ClientId> catchUpInShadow(LocalDate until, LocalDate today) {
        Set<ClientId> reminded = new HashSet<>();
        for (LocalDate day = lastRun.plusDays(1); !day.isAfter(until); day = day.plusDays(1)) {
            for (Shadow s : shadows.values()) {
                fees += s.fees(day).size();
                if (!day.equals(today)) {
                    s.missed(day, BEGIN);
                } else if (s.remind(day, BEGIN)) {
                    reminded.add(s.id);
                }
            }
            lastRun = day;
        }
        return reminded;
    }

    private void compare(LocalDate day, Set<ClientId> expected) {
        Set<ClientId> actual = new HashSet<>();
        server.jdbc().sql("""
                        SELECT what_key, client_id, channel, reminder FROM message JOIN message_text t ON t.message_id = id
                         WHERE kind = 'reminder' AND made_on = :day
                        """).param("day", day).query(rs -> {
            actual.add(new ClientId(rs.getLong("client_id")));
            if (letters.add(rs.getString("what_key"))) {
                letterCount++;
                texts += "TEXT".equals(rs.getString("channel")) ? 1 : 0;
                truthful(shadows.get(new ClientId(rs.getLong("client_id"))), rs.getString("reminder"));
            }
        });
        if (!expected.isEmpty() || !actual.isEmpty()) {
            assertThat(actual)
                    .as(
                            "letters of %s; %s",
                            day,
                            run.log(Long.MAX_VALUE, 300).stream()
                                    .filter(a -> a.on().equals(day)
                                            && expected.contains(a.clientId()) != actual.contains(a.clientId()))
                                    .toList())
                    .isEqualTo(expected);
        }
    }

    /** Every row of a letter asks for exactly what is open, and no row for anything that is not. */
    private void truthful(Shadow s, String json) {
        ReminderLetter letter = server.bean(Json.class).read(json, ReminderLetter.class);
        List<String> open = new ArrayList<>();
        s.debts.stream().filter(d -> d.open > 0).forEach(d -> open.add(d.number + " " + d.due + " " + d.open));
        long sum = 0;
        for (ReminderLetter.Row row : letter.rows()) {
            long minor = row.amount().money().getAmountMinorLong();
            sum += minor;
            assertThat(open.remove(row.number() + " " + row.dueOn() + " " + minor))
                    .as("%s of %s in %s", row, s.id, open)
                    .isTrue();
        }
        ofTwo += letter.totals().size() > 1 ? 1 : 0;
        assertThat(letter.totals().stream()
                        .mapToLong(t -> t.money().getAmountMinorLong())
                        .sum())
                .isEqualTo(sum);
    }

    /** Each act of the morning's list was done, or the log says why not and something had happened to that client. */
    private void listEqualsLog(List<ActView> list, LocalDate day) {
        Map<String, LoggedAct> log = new HashMap<>();
        run.log(Long.MAX_VALUE, 2_000).stream().filter(a -> a.on().equals(day)).forEach(a -> log.put(a.key(), a));
        for (ActView act : list) {
            LoggedAct logged = log.remove(act.key());
            if (act.stop().equals("NOTHING")) {
                assertThat(logged).as("log of %s", act).isNotNull();
                boolean same = logged.outcome().equals("done")
                        && act.amount().equals(logged.done().get(0))
                        && logged.announced().equals(logged.done());
                if (!same) {
                    undone++;
                    assertThat(shadows.get(act.about().clientId()).touched)
                            .as("%s: %s", act, logged)
                            .isTrue();
                    assertThat(logged.reason()).isNotEmpty();
                }
            } else if (logged != null) {
                assertThat(logged.outcome()).isNotEqualTo("failed");
            }
        }
        log.values().forEach(extra -> {
            assertThat(shadows.get(extra.clientId()).touched)
                    .as("unannounced %s", extra)
                    .isTrue();
            assertThat(extra.outcome()).isNotIn("failed", "planned");
        });
    }

    /** Between list and run: a letter is kept back, a client is muted, a fee is waived. */
    private void someDecide(List<ActView> list, LocalDate day) {
        Decisions decisions = server.bean(Decisions.class);
        for (ActView act : list) {
            Shadow s = shadows.get(act.about().clientId());
            if (act.kind().equals("reminder")
                    && act.stop().equals("NOTHING")
                    && !s.touched
                    && random.nextInt(15) == 0) {
                decisions.keepBack(act.key(), act.about().clientId());
                s.keptBackFor = day;
                s.touched = true;
            }
        }
        Shadow one = any();
        if (random.nextInt(6) == 0
                && server.bean(quill.server.chasing.Chasing.class).of(one.id).isPresent()) {
            LocalDate until = day.plusDays(random.nextInt(20));
            server.bean(Muting.class).mute(one.id, until.toString());
            one.mutedUntil = until;
            one.touched = true;
        }
        if (random.nextInt(4) == 0) {
            waiveOne();
        }
        habits.bounce(any());
    }

    private void waiveOne() {
        List<Long> standing = server.jdbc()
                .sql("SELECT id FROM late_fee WHERE waived_on IS NULL ORDER BY id DESC LIMIT 20")
                .query(Long.class)
                .list();
        if (standing.isEmpty()) {
            return;
        }
        LateFees.StoredFee fee = server.bean(LateFees.class).fee(standing.get(random.nextInt(standing.size())));
        String number =
                server.bean(InvoicesService.class).invoice(fee.invoiceId()).number();
        Shadow s = shadows.get(fee.clientId());
        Shadow.Debt twin = s.debts.stream()
                .filter(d -> d.feeOf != null
                        && !d.waived
                        && d.number.equals(number)
                        && d.due.equals(fee.chargedOn())
                        && d.feeOf.due.equals(fee.occasion().dueOn())
                        && d.amount == fee.amount().money().getAmountMinorLong())
                .findFirst()
                .orElseThrow();
        server.bean(LateFees.class).waive(fee.id(), "as agreed on the telephone");
        s.waive(twin);
        s.touched = true;
    }

    /** Work is billed; who is billed decides how to pay, and when it is known here. */
    private void evening(LocalDate day) {
        server.moveTo(day, LocalTime.of(18, 0));
        for (int i = random.nextInt(5); i > 0; i--) {
            bill(any(), day);
        }
    }

    private void bill(Shadow s, LocalDate day) {
        if (random.nextInt(6) == 0) {
            foreign(s, day);
            return;
        }
        boolean parts = random.nextBoolean();
        int days = random.nextInt(4) == 0 ? 0 : 7 * (1 + random.nextInt(5));
        String terms = parts ? "d40%@0 rest@" + (days + 1) : "100%@" + days;
        long total = 2_000 + random.nextInt(200_000);
        Shadow.Policy policy = random.nextInt(4) == 0 ? null : habits.policy(total);
        DocumentId id = server.issue(s.id, money(total), terms, Habits.typed(policy));
        String number = server.bean(InvoicesService.class).invoice(id).number();
        Shadow.Plan plan = habits.planFor(s, id);
        if (parts) {
            long deposit = (total * 40 + 50) / 100;
            owe(s, plan, new Shadow.Debt(number, 1, day, day, deposit, null, null));
            owe(s, plan, new Shadow.Debt(number, 2, day.plusDays(days + 1L), day, total - deposit, policy, null));
        } else {
            owe(s, plan, new Shadow.Debt(number, 1, day.plusDays(days), day, total, policy, null));
        }
        s.useCredit();
        plans(s, day, days, total);
    }

    private static void owe(Shadow s, Shadow.Plan plan, Shadow.Debt debt) {
        debt.plan = plan;
        s.debts.add(debt);
    }

    /** An invoice in pounds, paid as a whole or never. */
    private void foreign(Shadow s, LocalDate day) {
        int days = 7 * random.nextInt(4);
        long total = 2_000 + random.nextInt(200_000);
        DocumentId id = server.issueIn("GBP", s.id, money(total), "100%@" + days);
        String number = server.bean(InvoicesService.class).invoice(id).number();
        Shadow.Debt debt = new Shadow.Debt(number, 1, day.plusDays(days), day, total, null, null);
        debt.foreign = true;
        owe(s, habits.planFor(s, id), debt);
        if (random.nextInt(5) > 0) {
            LocalDate paid = day.plusDays(1L + random.nextInt(days + 30));
            later.computeIfAbsent(paid, k -> new ArrayList<>()).add(() -> {
                server.pay(s.id, id, money(total), paid);
                debt.open = 0;
                s.touched = true;
            });
        }
    }

    private void plans(Shadow s, LocalDate day, int days, long total) {
        int habit = random.nextInt(10);
        if (habit == 0) {
            return; // never pays
        }
        long part = habit < 3 ? total / 2 : habit == 9 ? total + 1_000 : total;
        int delay = habit < 5 ? random.nextInt(days + 2) : days + random.nextInt(40);
        int noticed = random.nextInt(4);
        LocalDate value = day.plusDays(1L + delay);
        LocalDate known = value.plusDays(noticed);
        later.computeIfAbsent(known, k -> new ArrayList<>()).add(() -> {
            server.pay(s.id, null, money(part), value);
            s.pay(part);
        });
    }

    /** What became known up to this day; days on which the machine was off are made up for. */
    private List<Runnable> due(LocalDate day) {
        List<Runnable> all = new ArrayList<>();
        later.keySet().stream()
                .filter(d -> !d.isAfter(day))
                .sorted()
                .toList()
                .forEach(d -> all.addAll(later.remove(d)));
        return all;
    }

    private void booksAgree() {
        BooksService books = server.bean(BooksService.class);
        var byPostings = books.balancesByClient();
        Map<ClientId, Money> free = server.bean(Debts.class).freeCreditsOf(shadows.keySet(), CurrencyUnit.EUR);
        Map<ClientId, List<OpenDebt>> open = server.bean(Debts.class)
                .openByClient(
                        server.jdbc()
                                .sql("SELECT id FROM client")
                                .query((rs, n) -> new ClientId(rs.getLong(1)))
                                .list(),
                        CurrencyUnit.EUR);
        for (Shadow s : shadows.values()) {
            Money zero = Money.zero(CurrencyUnit.EUR);
            Money owed = Amounts.sum(
                    CurrencyUnit.EUR,
                    open.getOrDefault(s.id, List.of()).stream()
                            .map(OpenDebt::open)
                            .toList());
            Money balance = byPostings.getOrDefault(s.id, new TreeMap<>()).getOrDefault("EUR", zero);
            assertThat(owed.minus(free.getOrDefault(s.id, zero))).isEqualTo(balance);
            assertThat(balance.getAmountMinorLong()).as("balance of %s", s.id).isEqualTo(s.open() - s.credit);
        }
        long sum = server.jdbc()
                .sql("SELECT COALESCE(SUM(amount_minor), 0) FROM posting")
                .query(Long.class)
                .single();
        assertThat(sum).isZero();
    }

    private Shadow any() {
        List<Shadow> all = List.copyOf(shadows.values());
        return all.get(random.nextInt(all.size()));
    }

    private static String money(long minor) {
        return BigDecimal.valueOf(minor, 2).toPlainString();
    }
}
