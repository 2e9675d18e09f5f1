package quill.server.chasing;

import java.time.LocalDate;
import org.springframework.stereotype.Component;
import quill.core.acts.Act;
import quill.core.acts.ActKey;
import quill.core.acts.ClientState;

/** Who does, logs and words an act: one bean for each kind. */
@Component
class ActsByKind {
    private final Act.Kinds<ActCase> cases;
    private final FeeActs fees;
    private final ReminderActs reminders;

    ActsByKind(FeeActs fees, ReminderActs reminders) {
        this.fees = fees;
        this.reminders = reminders;
        this.cases = new Act.Kinds<>() {
            @Override
            public ActCase fee(Act.Fee act) {
                return fees.of(act);
            }

            @Override
            public ActCase reminder(Act.Reminder act) {
                return reminders.of(act);
            }
        };
    }

    ActCase of(Act act) {
        return act.as(cases);
    }

    /** Why an act that was announced for a day is not needed any more. For people only; decides nothing. */
    String whyGone(ClientState state, ActKey key, LocalDate day) {
        return switch (key.kind()) {
            case FEE -> fees.whyGone(state, key);
            case REMINDER -> reminders.whyGone(state, key, day);
        };
    }
}
