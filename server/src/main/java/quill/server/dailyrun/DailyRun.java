package quill.server.dailyrun;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.RefusedException;
import quill.core.acts.Act;
import quill.core.acts.ActKey;
import quill.core.acts.ActKind;
import quill.core.id.ClientId;
import quill.core.money.Sums;
import quill.server.business.BusinessService;
import quill.server.chasing.Chasing;
import quill.server.chasing.ReminderPlans;
import quill.server.chasing.Result;
import quill.server.clearing.AskingAround;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.running.Round;

/**
 * Does by itself what is to come, once a day at the business's hour: asks the processor, charges fees, sends reminders.
 * Acts are done a few in a transaction, each under a key that is used once, and are noted in the log in that same
 * transaction: a run that was cut off goes on where it was. Days that were missed are run one by one.
 */
@Service
public class DailyRun {
    private static final Logger LOG = LoggerFactory.getLogger(DailyRun.class);
    private static final int LONGEST_GAP = 400;
    /** Acts of so many clients are done in one transaction, unless it takes too long: a payment waits no longer. */
    private static final int CLIENTS_AT_ONCE = 20;

    private static final Duration AT_ONCE = Duration.ofMillis(200);
    private final RunRepository repository;
    private final Chasing chasing;
    private final ReminderPlans plans;
    private final AskingAround rounds;
    private final BusinessService business;
    private final Changes changes;
    private final BusinessClock clock;
    private final TransactionTemplate transaction;
    private final ReentrantLock running = new ReentrantLock();

    DailyRun(
            RunRepository repository,
            Chasing chasing,
            ReminderPlans plans,
            AskingAround rounds,
            BusinessService business,
            Changes changes,
            BusinessClock clock,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.chasing = chasing;
        this.plans = plans;
        this.rounds = rounds;
        this.business = business;
        this.changes = changes;
        this.clock = clock;
        this.transaction = transaction;
    }

    /** What a run came to. @param done how many acts of each kind */
    public record Summary(int days, Map<ActKind, Integer> done) {
        static final Summary NOTHING = new Summary(0, Map.of());

        /** How many acts of a kind. */
        public int of(ActKind kind) {
            return done.getOrDefault(kind, 0);
        }

        /** Both together. */
        public Summary plus(Summary other) {
            Map<ActKind, Integer> both = new EnumMap<>(ActKind.class);
            both.putAll(done);
            other.done.forEach((kind, count) -> both.merge(kind, count, Integer::sum));
            return new Summary(days + other.days, both);
        }
    }

    /** Runs what is due unless a run is under way; what is left when it is told to stop waits for the next round. */
    void tick(BooleanSupplier stop) {
        if (running.tryLock()) {
            try {
                catchUp(stop);
            } finally {
                running.unlock();
            }
        }
    }

    /** Runs every day that is due and was not run; waits for a run that is under way, and then finds nothing left. */
    public Summary catchUp() {
        return catchUp(() -> false);
    }

    private Summary catchUp(BooleanSupplier stop) {
        running.lock();
        try {
            if (business.find().isEmpty()) {
                return Summary.NOTHING;
            }
            Summary sum = catchUpTo(clock.today(), LocalTime.now(clock), stop);
            SideBySide.each(chasing.changed(), chasing::lookAgainAt);
            return sum;
        } finally {
            running.unlock();
        }
    }

    private Summary catchUpTo(LocalDate today, LocalTime now, BooleanSupplier stop) {
        plans.begin();
        LocalDate last = repository.lastFinished().orElseGet(() -> firstDay(today));
        if (last.isBefore(today.minusDays(LONGEST_GAP))) {
            LOG.warn("no run since {}; only the last {} days are caught up", last, LONGEST_GAP);
            last = today.minusDays(LONGEST_GAP);
        }
        boolean hourHasCome = !now.isBefore(plans.rules().plan().hour());
        LocalDate until = hourHasCome ? today : today.minusDays(1);
        Summary sum = Summary.NOTHING;
        if (last.isBefore(until)) {
            rounds.all(Round.Deadline.in(Round.LONGEST).or(stop));
        }
        for (LocalDate day = last.plusDays(1); !day.isAfter(until) && !stop.getAsBoolean(); day = day.plusDays(1)) {
            sum = sum.plus(run(day, today, stop));
        }
        if (!hourHasCome && !repository.hasDay(today)) {
            announce(today, true);
            changes.say(null, null);
        }
        return sum;
    }

    /** Nothing before the first start is caught up. */
    private LocalDate firstDay(LocalDate today) {
        LocalDate yesterday = today.minusDays(1);
        transaction.executeWithoutResult(s -> {
            repository.beginDay(yesterday, clock.instant());
            repository.finishDay(yesterday, clock.instant());
        });
        return yesterday;
    }

    /**
     * Writes the day's list, part by part: whoever is paid meanwhile waits for one part at most. The day counts as
     * announced once all of it is written.
     *
     * @param morning whether this is the list that the day begins with
     */
    private void announce(LocalDate day, boolean morning) {
        SideBySide.each(
                chasing.partsOf(day), some -> transaction.executeWithoutResult(s -> announce(day, morning, some)));
        transaction.executeWithoutResult(s -> {
            if (!repository.hasDay(day)) {
                repository.beginDay(day, clock.instant());
            }
        });
    }

    private void announce(LocalDate day, boolean morning, List<ClientId> some) {
        for (Act act : chasing.planOf(day, some)) {
            if (act.isListedOn(clock.today())) {
                String words = chasing.inHand(act).words();
                repository.plan(new RunRepository.NewAct(
                        day, act.key(), act.kind(), act.client(), act.document(), act.sums(), words, morning));
            }
        }
    }

    private Summary run(LocalDate day, LocalDate today, BooleanSupplier stop) {
        boolean announced = repository.hasDay(day);
        announce(day, !announced);
        Map<ActKind, Integer> done = new ConcurrentHashMap<>();
        Map<String, List<LoggedAct>> kinds = repository.planned(day).stream()
                .collect(Collectors.groupingBy(LoggedAct::kind, LinkedHashMap::new, Collectors.toList()));
        for (List<LoggedAct> kind : kinds.values()) {
            // What one client's acts of a kind rest on is changed by another kind's acts, never by another client's.
            if (!SideBySide.all(byClients(kind), some -> performAll(some, day, done, stop))) {
                return new Summary(1, done);
            }
        }
        transaction.executeWithoutResult(s -> repository.finishDay(day, clock.instant()));
        changes.say(null, null);
        if (!done.isEmpty()) {
            LOG.info("run of {}{}: {}", day, day.equals(today) ? "" : " (late)", done);
        }
        return new Summary(1, done);
    }

    /** Acts of one kind in parts, each of a few clients with all that theirs is. */
    private static List<List<LoggedAct>> byClients(List<LoggedAct> kind) {
        List<List<LoggedAct>> parts = new ArrayList<>();
        Set<ClientId> clients = new HashSet<>();
        int from = 0;
        for (int at = 0; at < kind.size(); at++) {
            if (clients.add(kind.get(at).clientId()) && clients.size() > CLIENTS_AT_ONCE) {
                parts.add(kind.subList(from, at));
                clients = new HashSet<>(Set.of(kind.get(at).clientId()));
                from = at;
            }
        }
        parts.add(kind.subList(from, kind.size()));
        return parts;
    }

    /** @return false where it was told to stop before all was dealt with */
    private boolean performAll(List<LoggedAct> some, LocalDate day, Map<ActKind, Integer> done, BooleanSupplier stop) {
        for (int next = 0; next < some.size(); ) {
            if (stop.getAsBoolean()) {
                return false;
            }
            next += perform(some.subList(next, some.size()), day, done);
        }
        return true;
    }

    /**
     * Some acts in one transaction, as long as it stays short: what they do and what the log says of them are stored
     * together or not at all. Where one of them fails, each is done by itself, so that only that one fails.
     *
     * @return how many were dealt with: at least one
     */
    private int perform(List<LoggedAct> some, LocalDate day, Map<ActKind, Integer> done) {
        try {
            List<Result> results = transaction.execute(s -> perform(some, day));
            long did = results.stream().filter(r -> r == Result.DONE).count();
            if (did > 0) {
                done.merge(ActKind.of(some.get(0).kind()).orElseThrow(), (int) did, Integer::sum);
            }
            return results.size();
        } catch (RuntimeException e) {
            LoggedAct first = some.get(0);
            if (some.size() > 1) {
                LOG.warn("acts of {} from {} on are done one by one: {}", day, first.key(), e.toString());
                some.forEach(act -> perform(List.of(act), day, done));
            } else {
                LOG.error("act {} of {} failed", first.key(), day, e);
                transaction.executeWithoutResult(
                        s -> repository.end(first.id(), List.of(), Result.FAILED, reasonOf(e)));
            }
            return some.size();
        }
    }

    private List<Result> perform(List<LoggedAct> some, LocalDate day) {
        Round.Deadline end = Round.Deadline.in(AT_ONCE);
        Chasing.Locked clients =
                chasing.lock(some.stream().map(LoggedAct::clientId).toList(), day);
        List<Result> results = new ArrayList<>();
        for (LoggedAct act : some) {
            if (!results.isEmpty() && end.hasPassed()) {
                break;
            }
            Chasing.Outcome outcome =
                    clients.perform(act.clientId(), ActKey.read(act.key()).orElseThrow());
            boolean isDone = outcome.outcome() == Result.DONE;
            repository.end(
                    act.id(),
                    isDone ? outcome.act().sums() : List.of(),
                    outcome.outcome(),
                    isDone ? changed(act, outcome.act()) : outcome.reason());
            results.add(outcome.outcome());
        }
        return results;
    }

    /** In words for a person: what a rule refuses says it itself; nothing of the code is shown. */
    private static String reasonOf(RuntimeException e) {
        return e instanceof RefusedException || e instanceof ConflictException
                ? e.getMessage()
                : "Something went wrong here; the log of the application says what. It comes up again with the next run.";
    }

    /** How the act differs from what was announced, for the log. */
    private static String changed(LoggedAct logged, Act act) {
        List<Money> announced = logged.announced().stream().map(Amount::money).toList();
        if (announced.isEmpty()) {
            return "came up after the day's list was written";
        }
        return announced.equals(act.sums())
                ? ""
                : "announced with " + Sums.grouped(announced) + "; what is open changed since";
    }

    /** The day whose run comes next: today until its run is finished. */
    public LocalDate nextDay() {
        LocalDate today = clock.today();
        Optional<LocalDate> last = repository.lastFinished();
        return last.isPresent() && !last.get().isBefore(today) ? today.plusDays(1) : today;
    }

    /** The log, newest first, from before an id. */
    public List<LoggedAct> log(long before, int most) {
        return repository.log(before, most);
    }

    /** Acts of the last two weeks that went wrong. */
    public List<LoggedAct> failed() {
        return repository.failed(clock.today().minusDays(14));
    }
}
