package quill.core.acts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.joda.money.Money;
import quill.core.latefee.LateFee;
import quill.core.latefee.LateFeePolicy;
import quill.core.ledger.Appropriation;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Standing;
import quill.core.letter.Channel;
import quill.core.money.Amounts;
import quill.core.reminder.ReminderPlan;
import quill.core.reminder.ReminderStep;
import quill.core.reminder.ReminderStep.Tone;

/**
 * What the daily run will do for a client, day by day, if nobody pays and nobody steps in: fees first, then reminders.
 * The run itself performs the list of its day, so that what is announced and what is done come from one place.
 */
public final class ActsToCome {
    private final ClientState state;
    private final Rules rules;
    private final List<Debt> debts;
    private LocalDate remindedOn;
    private long nextForecastId = -1;

    private ActsToCome(ClientState state, Rules rules) {
        this.state = state;
        this.rules = rules;
        this.debts = new ArrayList<>(state.debts());
        this.remindedOn = state.remindedOn();
    }

    /**
     * The business's rules.
     *
     * @param reviewFees whether a person decides about each fee
     * @param allKeptUntil the last day on which nothing at all is done by itself; null where it is
     */
    public record Rules(ReminderPlan plan, boolean reviewFees, LocalDate allKeptUntil) {
        boolean areKeptBackOn(LocalDate day) {
            return allKeptUntil != null && !day.isAfter(allKeptUntil);
        }
    }

    /**
     * A debt with all that reminders and fees depend on.
     *
     * @param first its first amount
     * @param inTransit what an unfinished payment is bringing
     * @param issuedOn day of issue of its invoice; steps up to that day are used up
     * @param mutedUntil last day on which its invoice is not reminded of, or null
     * @param usedThrough days of the latest step used up, or null
     * @param fees charged on it so far
     * @param feeOf for a late fee the key of its installment, else 0
     * @param lastTone of the latest letter that asked for it, or null
     * @param plan by which it is reminded of; null for the business's
     */
    public record Debt(
            OpenDebt open,
            boolean deposit,
            Money first,
            Money inTransit,
            LocalDate issuedOn,
            LocalDate mutedUntil,
            Integer usedThrough,
            LateFeePolicy policy,
            List<LateFee.Charged> fees,
            long feeOf,
            Tone lastTone,
            ReminderPlan plan) {
        /** Copies the fees. */
        public Debt {
            fees = List.copyOf(fees);
        }

        private boolean isMutedOn(LocalDate day) {
            return mutedUntil != null && !day.isAfter(mutedUntil);
        }

        private LateFee.Overdue overdue(Money base) {
            return new LateFee.Overdue(first, open.dueOn(), deposit, base, fees);
        }

        private Money zero() {
            return Money.zero(first.getCurrencyUnit());
        }

        boolean isLateOn(LocalDate day) {
            return open.dueOn().isBefore(day);
        }

        private Debt with(Integer used, List<LateFee.Charged> charged, Tone last) {
            return new Debt(
                    open, deposit, first, inTransit, issuedOn, mutedUntil, used, policy, charged, feeOf, last, plan);
        }
    }

    /** Every act from one day to another, both included, in the order in which they will be done. */
    public static List<Act> of(ClientState state, Rules rules, LocalDate from, LocalDate to) {
        return new ActsToCome(state, rules).over(from, to);
    }

    /**
     * The next day on which anything may come up, whatever stands in its way; it may lie in the past. Nothing comes up
     * before it unless the client's books change.
     */
    public static Optional<LocalDate> nextDay(ClientState state, Rules rules) {
        return new ActsToCome(state, rules).next();
    }

    /**
     * Late installments for which the plan's last step is used up, and of which something is to be asked on a day: only a
     * person can go on with them. Those that are muted on that day rest.
     */
    public static List<Act.Item> unanswered(ClientState state, Rules rules, LocalDate day) {
        ActsToCome now = new ActsToCome(state, rules);
        if (!rules.plan().on() || state.isMutedOn(day)) {
            return List.of();
        }
        Map<Long, Money> asked = now.asked();
        return state.debts().stream()
                .filter(d -> d.feeOf() == 0 && d.isLateOn(day) && d.usedThrough() != null && !d.isMutedOn(day))
                .filter(d -> asked.getOrDefault(d.open().id(), d.zero()).isPositive())
                .filter(d -> now.planOf(d)
                        .nextDay(d.open().dueOn(), d.issuedOn(), d.usedThrough())
                        .isEmpty())
                .sorted((a, b) -> state.order().compare(a.open(), b.open()))
                .map(d -> new Act.Item(
                        d.open(),
                        asked.get(d.open().id()),
                        Standing.daysLate(d.open().dueOn(), day),
                        null))
                .toList();
    }

    private List<Act> over(LocalDate from, LocalDate to) {
        List<Act> acts = new ArrayList<>();
        LocalDate day = from;
        while (!day.isAfter(to)) {
            acts.addAll(on(day));
            LocalDate following = day.plusDays(1);
            Optional<LocalDate> next = next();
            if (next.isEmpty()) {
                break;
            }
            day = next.get().isAfter(following) ? next.get() : following;
        }
        return acts;
    }

    private Optional<LocalDate> next() {
        return debts.stream()
                .filter(d -> d.feeOf() == 0 && isOwed(d))
                .flatMap(d -> Stream.of(
                        d.open().open().isPositive()
                                ? LateFee.nextDay(d.overdue(d.open().open()), d.policy())
                                : Optional.<LocalDate>empty(),
                        planOf(d).nextDay(d.open().dueOn(), d.issuedOn(), d.usedThrough())))
                .flatMap(Optional::stream)
                .min(LocalDate::compareTo);
    }

    /** Whether anything is open of an installment, or of a fee on it. */
    private boolean isOwed(Debt d) {
        return d.open().open().isPositive()
                || debts.stream()
                        .anyMatch(f ->
                                f.feeOf() == d.open().id() && f.open().open().isPositive());
    }

    private List<Act> on(LocalDate day) {
        List<Act> acts = new ArrayList<>();
        Map<Long, Money> asked = asked();
        for (Debt debt : List.copyOf(debts)) {
            Money base = asked.getOrDefault(debt.open().id(), debt.zero());
            if (debt.feeOf() == 0) {
                LateFee.on(day, debt.overdue(base), debt.policy()).ifPresent(fee -> {
                    Act.Fee act = new Act.Fee(day, state.client(), debt, fee, feeStop(debt, fee, day));
                    acts.add(act);
                    foresee(act);
                });
            }
        }
        reminder(day).ifPresent(act -> {
            acts.add(act);
            if (act.stop() != Act.Stop.MUTED) {
                foresee(act);
            }
        });
        return acts;
    }

    /** What can be asked of each debt: open, less in transit, less what client credit covers in the standard order. */
    private Map<Long, Money> asked() {
        Map<Long, Money> asked = new HashMap<>();
        List<OpenDebt> left = new ArrayList<>();
        for (Debt d : debts) {
            Money rest = d.open().open().minus(Amounts.min(d.open().open(), d.inTransit()));
            if (rest.isPositive()) {
                asked.put(d.open().id(), rest);
                left.add(with(d.open(), rest));
            }
        }
        for (Money credit : state.credits()) {
            List<OpenDebt> same = left.stream()
                    .filter(d -> d.open().getCurrencyUnit().equals(credit.getCurrencyUnit()))
                    .toList();
            if (credit.isPositive() && !same.isEmpty()) {
                Appropriation.of(credit, same, Set.of(), state.order())
                        .parts()
                        .forEach(p -> asked.merge(p.debt().id(), p.amount(), Money::minus));
            }
        }
        return asked;
    }

    private static OpenDebt with(OpenDebt d, Money open) {
        return new OpenDebt(d.id(), d.document(), d.number(), d.position(), d.fee(), d.dueOn(), open);
    }

    private Act.Stop feeStop(Debt debt, LateFee fee, LocalDate day) {
        Act.Stop held = held(Act.Fee.key(debt, fee), day);
        return held == Act.Stop.NOTHING && rules.reviewFees() ? Act.Stop.REVIEW : held;
    }

    private ReminderPlan planOf(Debt d) {
        return d.plan() == null ? rules.plan() : d.plan();
    }

    private Act.Stop held(String key, LocalDate day) {
        if (state.keptBackActs().contains(key)) {
            return Act.Stop.KEPT_BACK;
        }
        if (state.isKeptBackOn(day)) {
            return Act.Stop.CLIENT_KEPT_BACK;
        }
        return rules.areKeptBackOn(day) ? Act.Stop.ALL_KEPT_BACK : Act.Stop.NOTHING;
    }

    private Optional<Act.Reminder> reminder(LocalDate day) {
        if (remindedOn != null && !day.isAfter(remindedOn)) {
            return Optional.empty();
        }
        Map<Long, Money> asked = asked();
        Map<Long, ReminderStep> steps = new HashMap<>();
        for (Debt d : debts) {
            ReminderStep step = d.isMutedOn(day) ? null : stepOf(d, asked, day);
            if (step != null) {
                steps.put(d.open().id(), step);
            }
        }
        Set<Long> apart = Apart.of(debts, steps, day);
        List<Act.Item> items = new ArrayList<>();
        ReminderStep sternest = null;
        boolean fresh = false;
        for (Debt d : debts.stream()
                .sorted((a, b) -> state.order().compare(a.open(), b.open()))
                .toList()) {
            boolean listed = !apart.contains(d.open().id());
            Money sum = asked.getOrDefault(d.open().id(), d.zero());
            ReminderStep step = steps.get(d.open().id());
            if (step != null && listed) {
                fresh |= planOf(d).dayOf(step, d.open().dueOn()).equals(day);
                sternest = sterner(sternest, step);
            }
            boolean mayBeListed = step != null || (!d.open().dueOn().isAfter(day) && !d.isMutedOn(day));
            if (mayBeListed && listed && sum.isPositive()) {
                items.add(new Act.Item(
                        with(d.open(), sum),
                        sum,
                        Math.max(0, Standing.daysLate(d.open().dueOn(), day)),
                        step));
            } else if (step != null) {
                items.add(new Act.Item(with(d.open(), d.zero()), d.zero(), 0, step));
            }
        }
        if (sternest == null || (state.isMutedOn(day) && !fresh)) {
            return Optional.empty();
        }
        return Optional.of(new Act.Reminder(day, state.client(), sternest, items, reminderStop(day, sternest), fresh));
    }

    /** Of two that are as stern, the one that goes by mail: it says more. */
    private static ReminderStep sterner(ReminderStep one, ReminderStep other) {
        if (one == null || other.tone().compareTo(one.tone()) > 0) {
            return other;
        }
        return other.tone() == one.tone() && one.way() != Channel.MAIL && other.way() == Channel.MAIL ? other : one;
    }

    /** The step that is due for an installment of which, or of whose fees, anything is still to be asked. */
    private ReminderStep stepOf(Debt d, Map<Long, Money> asked, LocalDate day) {
        boolean open = asked.getOrDefault(d.open().id(), d.zero()).isPositive()
                || debts.stream()
                        .anyMatch(f -> f.feeOf() == d.open().id()
                                && asked.getOrDefault(f.open().id(), f.zero()).isPositive());
        return d.feeOf() != 0 || !open
                ? null
                : planOf(d)
                        .dueOn(day, d.open().dueOn(), d.issuedOn(), d.usedThrough())
                        .orElse(null);
    }

    private Act.Stop reminderStop(LocalDate day, ReminderStep step) {
        Act.Stop held = held(Act.Reminder.key(state.client(), day), day);
        if (held != Act.Stop.NOTHING) {
            return held;
        }
        if (state.isMutedOn(day)) {
            return Act.Stop.MUTED;
        }
        return state.reach().getOrDefault(step.way(), Act.Stop.NOTHING);
    }

    private void foresee(Act.Fee act) {
        boolean charged = act.stop() == Act.Stop.NOTHING;
        replace(act.debt().open().id(), d -> {
            List<LateFee.Charged> fees = new ArrayList<>(d.fees());
            fees.add(new LateFee.Charged(
                    d.open().dueOn(), act.fee().sequence(), act.fee().fee(), !charged));
            return d.with(d.usedThrough(), fees, d.lastTone());
        });
        if (charged) {
            OpenDebt of = act.debt().open();
            OpenDebt fee = new OpenDebt(
                    nextForecastId--, of.document(), of.number(), of.position(), true, act.on(), act.amount());
            debts.add(new Debt(
                    fee,
                    false,
                    act.amount(),
                    act.debt().zero(),
                    act.debt().issuedOn(),
                    act.debt().mutedUntil(),
                    null,
                    LateFeePolicy.none(act.debt().zero()),
                    List.of(),
                    of.id(),
                    null,
                    act.debt().plan()));
        }
    }

    private void foresee(Act.Reminder act) {
        remindedOn = act.on();
        boolean written = act.stop() == Act.Stop.NOTHING;
        act.items()
                .forEach(i -> replace(
                        i.debt().id(),
                        d -> d.with(
                                i.step() == null
                                        ? d.usedThrough()
                                        : Integer.valueOf(i.step().days()),
                                d.fees(),
                                written && i.asked().isPositive() ? act.step().tone() : d.lastTone())));
    }

    private void replace(long id, java.util.function.UnaryOperator<Debt> change) {
        debts.replaceAll(d -> d.open().id() == id ? change.apply(d) : d);
    }
}
