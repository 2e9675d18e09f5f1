package quill.server.dailyrun;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.RefusedException;
import quill.core.acts.Act;
import quill.core.id.DocumentId;
import quill.core.letter.Channel;
import quill.core.money.Amounts;
import quill.server.business.BusinessService;
import quill.server.cardorders.CardOrders;
import quill.server.chasing.Chasing;
import quill.server.chasing.ReminderPlans;
import quill.server.chasing.Result;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Shown;
import quill.server.running.Round;

/**
 * Does by itself what is to come, once a day at the business's hour: asks the processor, charges fees, sends reminders.
 * Each act is done in a transaction of its own, under a key that is used once, and is noted in the log in that same
 * transaction: a run that was cut off goes on where it was. Days that were missed are run one by one.
 */
@Service
public class DailyRun {
    private static final Logger LOG = LoggerFactory.getLogger(DailyRun.class);
    private static final int LONGEST_GAP = 400;
    private final RunRepository repository;
    private final Chasing chasing;
    private final ReminderPlans plans;
    private final CardOrders orders;
    private final BusinessService business;
    private final Changes changes;
    private final BusinessClock clock;
    private final TransactionTemplate transaction;
    private final ReentrantLock running = new ReentrantLock();

    DailyRun(
            RunRepository repository,
            Chasing chasing,
            ReminderPlans plans,
            CardOrders orders,
            BusinessService business,
            Changes changes,
            BusinessClock clock,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.chasing = chasing;
        this.plans = plans;
        this.orders = orders;
        this.business = business;
        this.changes = changes;
        this.clock = clock;
        this.transaction = transaction;
    }

    /** What a run came to. */
    public record Summary(int days, int fees, int reminders) {}

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
                return new Summary(0, 0, 0);
            }
            Summary sum = catchUpTo(clock.today(), LocalTime.now(clock), stop);
            chasing.lookAtChanged();
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
        Summary sum = new Summary(0, 0, 0);
        if (last.isBefore(until)) {
            orders.askAboutAll(Round.Deadline.in(Round.LONGEST).or(stop));
        }
        for (LocalDate day = last.plusDays(1); !day.isAfter(until) && !stop.getAsBoolean(); day = day.plusDays(1)) {
            Summary one = run(day, today, stop);
            sum = new Summary(sum.days() + 1, sum.fees() + one.fees(), sum.reminders() + one.reminders());
        }
        if (!hourHasCome && !repository.hasDay(today)) {
            transaction.executeWithoutResult(s -> announce(today, true));
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

    /** Writes the day's list. @param morning whether this is the list that the day begins with */
    private void announce(LocalDate day, boolean morning) {
        if (!repository.hasDay(day)) {
            repository.beginDay(day, clock.instant());
        }
        boolean past = day.isBefore(clock.today());
        for (Act act : chasing.planOf(day)) {
            // A letter of a day that has passed is not sent late: the next one says what is open then. One that was
            // kept back for that day uses up its steps all the same.
            boolean wanted = act instanceof Act.Fee || !past || act.stop() == Act.Stop.KEPT_BACK;
            boolean news = act.stop() == Act.Stop.NOTHING || act.isNew();
            if (wanted && news) {
                repository.plan(new RunRepository.NewAct(
                        day,
                        act.key(),
                        act instanceof Act.Fee ? "fee" : "reminder",
                        act.client(),
                        invoiceOf(act),
                        act.amount(),
                        words(act),
                        morning));
            }
        }
    }

    private Summary run(LocalDate day, LocalDate today, BooleanSupplier stop) {
        boolean announced = repository.hasDay(day);
        transaction.executeWithoutResult(s -> announce(day, !announced));
        int fees = 0;
        int reminders = 0;
        for (LoggedAct act : repository.planned(day)) {
            if (stop.getAsBoolean()) {
                return new Summary(0, fees, reminders);
            }
            boolean done = perform(act, day);
            fees += done && "fee".equals(act.kind()) ? 1 : 0;
            reminders += done && "reminder".equals(act.kind()) ? 1 : 0;
        }
        transaction.executeWithoutResult(s -> repository.finishDay(day, clock.instant()));
        changes.say(null, null);
        if (fees + reminders > 0) {
            LOG.info(
                    "run of {}{}: {} fee(s), {} reminder(s)", day, day.equals(today) ? "" : " (late)", fees, reminders);
        }
        return new Summary(1, fees, reminders);
    }

    /** One act in one transaction: what it does and what the log says of it are stored together or not at all. */
    private boolean perform(LoggedAct act, LocalDate day) {
        try {
            return Boolean.TRUE.equals(transaction.execute(s -> {
                Chasing.Outcome outcome = chasing.perform(act.clientId(), act.key(), day);
                boolean done = outcome.outcome() == Result.DONE;
                repository.end(
                        act.id(),
                        done ? outcome.act().amount() : null,
                        outcome.outcome(),
                        done ? changed(act, outcome.act()) : outcome.reason());
                return done;
            }));
        } catch (RuntimeException e) {
            LOG.error("act {} of {} failed", act.key(), day, e);
            transaction.executeWithoutResult(s -> repository.end(act.id(), null, Result.FAILED, reasonOf(e)));
            return false;
        }
    }

    /** In words for a person: what a rule refuses says it itself; nothing of the code is shown. */
    private static String reasonOf(RuntimeException e) {
        return e instanceof RefusedException || e instanceof ConflictException
                ? e.getMessage()
                : "Something went wrong here; the log of the application says what. It comes up again with the next run.";
    }

    /** How the act differs from what was announced, for the log. */
    private static String changed(LoggedAct logged, Act act) {
        Amount announced = logged.announced();
        if (announced == null) {
            return "came up after the day's list was written";
        }
        return announced.money().equals(act.amount())
                ? ""
                : "announced with " + Amounts.grouped(announced.money()) + "; what is open changed since";
    }

    static DocumentId invoiceOf(Act act) {
        return act instanceof Act.Fee fee
                ? fee.debt().open().document()
                : ((Act.Reminder) act).main().document();
    }

    /** An act in a few words. */
    public static String words(Act act) {
        if (act instanceof Act.Fee fee) {
            return "Late fee on " + fee.debt().open().number() + " · "
                    + fee.fee().why().steps().get(0);
        }
        Act.Reminder r = (Act.Reminder) act;
        String what = r.documents() == 1 ? r.main().number() : r.documents() + " invoices in one letter";
        long late = r.asked().stream().mapToLong(Act.Item::daysLate).max().orElse(0);
        String state = late == 0
                ? r.step().days() < 0 ? "falls due soon" : "due today"
                : late + (late == 1 ? " day late" : " days late");
        String tone = r.step().tone().words();
        String more =
                r.sums().stream().skip(1).map(m -> " · and " + Shown.money(m)).collect(Collectors.joining());
        String way = r.step().way() == Channel.TEXT ? " by text message" : "";
        return Character.toUpperCase(tone.charAt(0)) + tone.substring(1) + " reminder" + way + " · " + what + " · "
                + state + more;
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
