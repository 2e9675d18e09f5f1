package quill.core.acts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.joda.money.Money;
import quill.core.latefee.LateFee;
import quill.core.latefee.LateFeePolicy;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Standing;
import quill.core.reminder.ReminderPlan;
import quill.core.reminder.ReminderStep.Tone;

/**
 * What the daily run will do for a client, day by day, if nobody pays and nobody steps in: each kind in its turn.
 * The run itself performs the list of its day, so that what is announced and what is done come from one place.
 */
public final class ActsToCome {
    private static final List<ActPlanner> PLANNERS =
            Arrays.stream(ActKind.values()).map(ActPlanner::of).toList();

    private ActsToCome() {}

    /**
     * The business's rules.
     *
     * @param reviewFees whether a person decides about each fee
     * @param allKeptUntil the last day on which nothing at all is done by itself; null where it is
     */
    public record Rules(ReminderPlan plan, boolean reviewFees, LocalDate allKeptUntil) {
        boolean areKeptBackOn(LocalDate day) {
            return Until.holds(allKeptUntil, day);
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

        boolean isMutedOn(LocalDate day) {
            return Until.holds(mutedUntil, day);
        }

        LateFee.Overdue overdue(Money base) {
            return new LateFee.Overdue(first, open.dueOn(), deposit, base, fees);
        }

        Money zero() {
            return Money.zero(first.getCurrencyUnit());
        }

        /** Without a date it is neither reminded of nor fined. */
        boolean hasDate() {
            return open.dueOn() != null;
        }

        boolean isLateOn(LocalDate day) {
            return Standing.isLate(open.dueOn(), day);
        }

        Debt with(Integer used, List<LateFee.Charged> charged, Tone last) {
            return new Debt(
                    open, deposit, first, inTransit, issuedOn, mutedUntil, used, policy, charged, feeOf, last, plan);
        }
    }

    /** Every act from one day to another, both included, in the order in which they will be done. */
    public static List<Act> of(ClientState state, Rules rules, LocalDate from, LocalDate to) {
        return over(new Forecast(state, rules), from, to);
    }

    /**
     * The next day on which anything may come up, whatever stands in its way; it may lie in the past. Nothing comes up
     * before it unless the client's books change.
     */
    public static Optional<LocalDate> nextDay(ClientState state, Rules rules) {
        return next(new Forecast(state, rules));
    }

    /**
     * Late installments for which the plan's last step is used up, and of which something is to be asked on a day: only a
     * person can go on with them. Those that are muted on that day rest.
     */
    public static List<Act.Item> unanswered(ClientState state, Rules rules, LocalDate day) {
        Forecast now = new Forecast(state, rules);
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

    private static List<Act> over(Forecast ahead, LocalDate from, LocalDate to) {
        List<Act> acts = new ArrayList<>();
        LocalDate day = from;
        while (!day.isAfter(to)) {
            for (ActPlanner planner : PLANNERS) {
                acts.addAll(planner.on(day, ahead));
            }
            LocalDate following = day.plusDays(1);
            Optional<LocalDate> next = next(ahead);
            if (next.isEmpty()) {
                break;
            }
            day = next.get().isAfter(following) ? next.get() : following;
        }
        return acts;
    }

    private static Optional<LocalDate> next(Forecast ahead) {
        return ahead.debts().stream()
                .filter(d -> d.feeOf() == 0 && d.hasDate() && ahead.isOwed(d))
                .flatMap(d -> PLANNERS.stream().map(p -> p.nextDay(d, ahead)))
                .flatMap(Optional::stream)
                .min(LocalDate::compareTo);
    }
}
