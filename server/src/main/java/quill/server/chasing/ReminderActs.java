package quill.server.chasing;

import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import quill.core.RefusedException;
import quill.core.acts.Act;
import quill.core.acts.ActKey;
import quill.core.acts.ClientState;
import quill.core.id.DocumentId;
import quill.core.letter.Channel;
import quill.core.money.Amounts;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.dispatch.Correspondence;
import quill.server.dispatch.Reminding;
import quill.server.dispatch.Slip;

/** Reminders: sending them, what they use up, and saying what they are. */
@Component
class ReminderActs {
    private final ChasingRepository repository;
    private final Correspondence correspondence;
    private final Reminding reminding;
    private final BusinessClock clock;

    ReminderActs(
            ChasingRepository repository, Correspondence correspondence, Reminding reminding, BusinessClock clock) {
        this.repository = repository;
        this.correspondence = correspondence;
        this.reminding = reminding;
        this.clock = clock;
    }

    ActCase of(Act.Reminder act) {
        return new Case(act);
    }

    String whyGone(ClientState state, ActKey key, LocalDate day) {
        LocalDate reminded = state.remindedOn();
        if (day.equals(reminded) || clock.today().equals(reminded)) {
            return "a reminder was written to this client on that day already";
        }
        if (key.day().equals(day) && state.mutedUntil() != null) {
            return "the client is muted until " + Texts.day(state.mutedUntil());
        }
        return WhyNot.ofDebts(state, state.debts(), "no step of the plan is due any more");
    }

    private final class Case implements ActCase {
        private final Act.Reminder act;

        Case(Act.Reminder act) {
            this.act = act;
        }

        @Override
        public Chasing.Outcome perform() {
            if (!act.on().equals(clock.today())) {
                return Chasing.Outcome.notNeeded("its day has passed; the next letter says what is open then", act);
            }
            if (correspondence.wasWritten(act.key().toString())) {
                return Chasing.Outcome.notNeeded("a reminder was written to this client today already", act);
            }
            reminding.remind(act.key(), act);
            sent(act);
            return Chasing.Outcome.done(act);
        }

        /** It does not go a day later by itself: its steps are used up. It stays in sight, for a person to send after all. */
        @Override
        public void passKeptBack() {
            repository.passed(act.key(), act.on(), useUp(act));
        }

        @Override
        public void doNow(ActKey key, Slip slip) {
            Act.Reminder now = act.withoutForecast();
            ActKey todays = ActKey.reminder(act.client(), clock.today());
            if (correspondence.wasWritten(todays.toString())) {
                throw new ConflictException(
                        "This client had a reminder today; a second one goes tomorrow at the earliest.");
            }
            boolean keptBack = repository.letActGo(key) == 1;
            reminding.remindByHand(todays, now, slip, keptBack ? key : null);
            sent(now);
        }

        @Override
        public void leaveOut(String why) {
            throw new RefusedException("key", act.key(), "is no late fee; keep the reminder back instead");
        }

        @Override
        public boolean canDoNow(LocalDate today) {
            return act.stop() != Act.Stop.NO_ADDRESS;
        }

        @Override
        public String words() {
            String what = act.documents() == 1 ? act.main().number() : act.documents() + " invoices in one letter";
            long late = act.asked().stream().mapToLong(Act.Item::daysLate).max().orElse(0);
            String state = late == 0
                    ? act.step().days() < 0 ? "falls due soon" : "due today"
                    : late + (late == 1 ? " day late" : " days late");
            String more = act.sums().stream()
                    .skip(1)
                    .map(m -> " · and " + Shown.money(m))
                    .collect(Collectors.joining());
            String by = way() == Channel.TEXT ? " by text message" : "";
            return Character.toUpperCase(tone().charAt(0)) + tone().substring(1) + " reminder" + by + " · " + what
                    + " · " + state + more;
        }

        @Override
        public String briefly() {
            return "reminder of " + Texts.day(act.on()) + " over " + Amounts.grouped(act.amount());
        }

        @Override
        public DocumentId notedOn() {
            return act.items().stream()
                    .findFirst()
                    .map(i -> i.debt().document())
                    .orElse(null);
        }

        @Override
        public String tone() {
            return act.step().tone().words();
        }

        @Override
        public Channel way() {
            return act.step().way();
        }
    }

    private void sent(Act.Reminder act) {
        useUp(act);
        repository.forgetPassed(act.client());
        repository.reminded(act.client(), clock.today());
    }

    private Map<Long, Integer> useUp(Act.Reminder act) {
        Map<Long, Integer> steps = new LinkedHashMap<>();
        act.items().stream()
                .filter(i -> i.step() != null)
                .forEach(i -> steps.put(i.debt().id(), i.step().days()));
        steps.forEach(repository::useStep);
        repository.lookAt(act.client());
        return steps;
    }
}
