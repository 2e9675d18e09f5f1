package quill.core.acts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.joda.money.Money;
import quill.core.acts.ActsToCome.Debt;
import quill.core.ledger.Standing;
import quill.core.letter.Channel;
import quill.core.reminder.ReminderStep;

/** Reminders to come: one a day at most, with the sternest step that is due and all that is open. */
final class ReminderPlanner implements ActPlanner {
    @Override
    public List<Act.Reminder> on(LocalDate day, Forecast ahead) {
        Optional<Act.Reminder> act = reminder(day, ahead);
        act.filter(a -> a.stop() != Act.Stop.MUTED).ifPresent(a -> foresee(a, ahead));
        return act.stream().toList();
    }

    @Override
    public Optional<LocalDate> nextDay(Debt d, Forecast ahead) {
        return ahead.planOf(d).nextDay(d.open().dueOn(), d.issuedOn(), d.usedThrough());
    }

    private static Optional<Act.Reminder> reminder(LocalDate day, Forecast ahead) {
        if (ahead.wasRemindedBy(day)) {
            return Optional.empty();
        }
        ClientState state = ahead.state();
        List<Debt> debts = ahead.debts();
        Map<Long, Money> asked = ahead.asked();
        Map<Long, ReminderStep> steps = new HashMap<>();
        for (Debt d : debts) {
            ReminderStep step = d.isMutedOn(day) ? null : stepOf(d, asked, day, ahead);
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
                fresh |= ahead.planOf(d).dayOf(step, d.open().dueOn()).equals(day);
                sternest = sterner(sternest, step);
            }
            boolean mayBeListed = step != null || (Standing.isDue(d.open().dueOn(), day) && !d.isMutedOn(day));
            if (mayBeListed && listed && sum.isPositive()) {
                items.add(new Act.Item(
                        d.open().withOpen(sum),
                        sum,
                        Math.max(0, Standing.daysLate(d.open().dueOn(), day)),
                        step));
            } else if (step != null) {
                items.add(new Act.Item(d.open().withOpen(d.zero()), d.zero(), 0, step));
            }
        }
        if (sternest == null || (state.isMutedOn(day) && !fresh)) {
            return Optional.empty();
        }
        return Optional.of(new Act.Reminder(day, state.client(), sternest, items, stop(day, sternest, ahead), fresh));
    }

    /** Of two that are as stern, the one that goes by mail: it says more. */
    private static ReminderStep sterner(ReminderStep one, ReminderStep other) {
        if (one == null || other.tone().compareTo(one.tone()) > 0) {
            return other;
        }
        return other.tone() == one.tone() && one.way() != Channel.MAIL && other.way() == Channel.MAIL ? other : one;
    }

    /** The step that is due for an installment of which, or of whose fees, anything is still to be asked. */
    private static ReminderStep stepOf(Debt d, Map<Long, Money> asked, LocalDate day, Forecast ahead) {
        boolean open = asked.getOrDefault(d.open().id(), d.zero()).isPositive()
                || ahead.debts().stream()
                        .anyMatch(f -> f.feeOf() == d.open().id()
                                && asked.getOrDefault(f.open().id(), f.zero()).isPositive());
        return d.feeOf() != 0 || !d.hasDate() || !open
                ? null
                : ahead.planOf(d)
                        .dueOn(day, d.open().dueOn(), d.issuedOn(), d.usedThrough())
                        .orElse(null);
    }

    private static Act.Stop stop(LocalDate day, ReminderStep step, Forecast ahead) {
        ClientState state = ahead.state();
        Act.Stop held = ahead.held(ActKey.reminder(state.client(), day), day);
        if (held != Act.Stop.NOTHING) {
            return held;
        }
        return state.isMutedOn(day) ? Act.Stop.MUTED : state.reach().getOrDefault(step.way(), Act.Stop.NOTHING);
    }

    private static void foresee(Act.Reminder act, Forecast ahead) {
        ahead.reminded(act.on());
        boolean written = act.stop() == Act.Stop.NOTHING;
        act.items()
                .forEach(i -> ahead.replace(
                        i.debt().id(),
                        d -> d.with(
                                i.step() == null
                                        ? d.usedThrough()
                                        : Integer.valueOf(i.step().days()),
                                d.fees(),
                                written && i.asked().isPositive() ? act.step().tone() : d.lastTone())));
    }
}
