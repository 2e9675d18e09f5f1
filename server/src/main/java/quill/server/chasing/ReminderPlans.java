package quill.server.chasing;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.acts.ActsToCome;
import quill.core.reminder.ReminderPlan;
import quill.core.reminder.ReminderPlan.TypedPlan;
import quill.server.audit.Happenings;
import quill.server.business.PublicHolidays;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.latefees.FeePolicies;

/** The business's reminder plan, and whether everything is kept back. */
@Service
public class ReminderPlans {
    private static final int YEARS_AHEAD = 3;
    private final PlanRepository repository;
    private final ChasingRepository chasing;
    private final FeePolicies policies;
    private final PublicHolidays holidays;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;

    ReminderPlans(
            PlanRepository repository,
            ChasingRepository chasing,
            FeePolicies policies,
            PublicHolidays holidays,
            Happenings happenings,
            Changes changes,
            BusinessClock clock) {
        this.repository = repository;
        this.chasing = chasing;
        this.policies = policies;
        this.holidays = holidays;
        this.happenings = happenings;
        this.changes = changes;
        this.clock = clock;
    }

    /**
     * The plan as typed.
     *
     * @param allKeptUntil the last day on which everything is kept back; null where it has no end, or is not
     * @param version 0 before it was first kept
     */
    public record PlanSetting(
            TypedPlan plan,
            boolean allKeptBack,
            @Schema(nullable = true) LocalDate allKeptUntil,
            int version) {}

    /** The plan; the usual one where none was kept yet. */
    public PlanSetting setting() {
        return repository
                .find()
                .map(p -> new PlanSetting(
                        p.plan(),
                        KeptUntil.isOn(p.allKeptUntil(), clock.today()),
                        KeptUntil.shown(p.allKeptUntil()),
                        p.version()))
                .orElseGet(() -> new PlanSetting(TypedPlan.usual(), false, null, 0));
    }

    /** The rules that decide what is to come. */
    public ActsToCome.Rules rules() {
        PlanRepository.Stored stored = stored();
        ReminderPlan plan = ReminderPlan.read(stored.plan(), stored.since(), new ArrayList<>());
        String country = stored.plan().holidaysOf();
        if (stored.plan().offRestDays() && !country.isEmpty()) {
            int year = clock.today().getYear();
            plan = plan.withHolidays(holidays.of(country, year - 1, year + YEARS_AHEAD));
        }
        return new ActsToCome.Rules(plan, policies.setting().review(), stored.allKeptUntil());
    }

    /** Until one is kept, the usual plan counts from today. Reading it writes nothing. */
    private PlanRepository.Stored stored() {
        return repository.find().orElseGet(() -> new PlanRepository.Stored(TypedPlan.usual(), clock.today(), null, 0));
    }

    /** Keeps the usual plan where there is none: it counts from that day on, so nobody is reminded of the time before. */
    @Transactional
    public void begin() {
        if (repository.find().isEmpty()) {
            repository.insert(TypedPlan.usual(), clock.today());
        }
    }

    /**
     * Changes the plan. Steps that fell before today lapse, so that a changed plan writes to nobody about the past.
     *
     * @throws RefusedException with every field that is wrong
     * @throws ConflictException if another window changed it first
     */
    @Transactional
    public PlanSetting change(TypedPlan typed, int version) {
        if (typed == null) {
            throw new RefusedException("plan", "", "send the whole plan");
        }
        List<Problem> problems = new ArrayList<>();
        ReminderPlan read = ReminderPlan.read(typed, clock.today(), problems);
        if (!typed.holidaysOf().isEmpty() && !holidays.knows(typed.holidaysOf())) {
            problems.add(new Problem("holidaysOf", typed.holidaysOf(), "no public holidays are known of this country"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        TypedPlan plan = new TypedPlan(
                read.typedSteps(), typed.on(), typed.hour(), typed.offRestDays(), typed.holidays(), typed.holidaysOf());
        boolean kept = version == 0
                ? repository.insert(plan, clock.today())
                : repository.update(plan, clock.today(), version) == 1;
        if (!kept) {
            throw new ConflictException("The reminder plan was changed in another window. Look at it again.");
        }
        chasing.lookAtAll();
        changes.say(null, null);
        return setting();
    }

    /**
     * Keeps everything back, or lets it go again.
     *
     * @param until the last day of it; empty or null until a person lets it go
     */
    @Transactional
    public void keepAllBack(boolean keptBack, String until) {
        LocalDate end = keptBack ? KeptUntil.read(until, clock.today()) : null;
        begin();
        repository.keepAllBack(end);
        happenings.tell(null, null, KeptUntil.words(end));
    }
}
