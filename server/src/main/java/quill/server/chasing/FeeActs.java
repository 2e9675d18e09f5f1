package quill.server.chasing;

import java.time.LocalDate;
import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.acts.Act;
import quill.core.acts.ActKey;
import quill.core.acts.ClientState;
import quill.core.id.DocumentId;
import quill.core.letter.Channel;
import quill.core.money.Amounts;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.dispatch.Slip;
import quill.server.latefees.LateFees;

/** Late fees: charging them, and saying what they are. */
@Component
class FeeActs {
    private final ChasingRepository repository;
    private final LateFees fees;
    private final BusinessClock clock;

    FeeActs(ChasingRepository repository, LateFees fees, BusinessClock clock) {
        this.repository = repository;
        this.fees = fees;
        this.clock = clock;
    }

    ActCase of(Act.Fee act) {
        return new Case(act);
    }

    String whyGone(ClientState state, ActKey key) {
        return state.debts().stream()
                .filter(d -> d.open().id() == key.whose())
                .findFirst()
                .map(d -> WhyNot.ofDebts(state, List.of(d), "it was charged already, or too little is overdue"))
                .orElse(WhyNot.PAID);
    }

    private final class Case implements ActCase {
        private final Act.Fee act;

        Case(Act.Fee act) {
            this.act = act;
        }

        @Override
        public Chasing.Outcome perform() {
            charge(act.on());
            return Chasing.Outcome.done(act);
        }

        private void charge(LocalDate day) {
            fees.charge(act.client(), act.debt().open(), act.fee(), day);
            repository.letActGo(act.key());
        }

        @Override
        public void passKeptBack() {
            // It waits for a person, however long.
        }

        @Override
        public void doNow(ActKey key, Slip slip) {
            LocalDate today = clock.today();
            if (act.fee().occasion().isAfter(today)) {
                throw new ConflictException(
                        "This fee falls on " + Texts.day(act.fee().occasion())
                                + " by the policy that is printed on the invoice; it cannot be charged before.");
            }
            charge(today);
        }

        @Override
        public void leaveOut(String why) {
            fees.leaveOut(act.client(), act.debt().open(), act.fee(), clock.today(), why);
            repository.letActGo(act.key());
            repository.lookAt(act.client());
        }

        @Override
        public boolean canDoNow(LocalDate today) {
            return act.stop() != Act.Stop.NOTHING && !act.fee().occasion().isAfter(today);
        }

        @Override
        public String words() {
            return "Late fee on " + act.debt().open().number() + " · "
                    + act.fee().why().steps().get(0);
        }

        @Override
        public String briefly() {
            return "late fee of " + Amounts.grouped(act.amount()) + " on "
                    + act.debt().open().number();
        }

        @Override
        public DocumentId notedOn() {
            return act.document();
        }

        @Override
        public String tone() {
            return null;
        }

        @Override
        public Channel way() {
            return null;
        }
    }
}
