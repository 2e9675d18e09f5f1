package quill.core.acts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.joda.money.Money;
import quill.core.acts.ActsToCome.Debt;
import quill.core.ledger.Appropriation;
import quill.core.ledger.OpenDebt;
import quill.core.money.Amounts;
import quill.core.reminder.ReminderPlan;

/** A client's debts as they would stand after the acts that were planned so far, if nobody pays and nobody steps in. */
final class Forecast {
    private final ClientState state;
    private final ActsToCome.Rules rules;
    private final List<Debt> debts;
    private LocalDate remindedOn;
    private long nextId = -1;

    Forecast(ClientState state, ActsToCome.Rules rules) {
        this.state = state;
        this.rules = rules;
        this.debts = new ArrayList<>(state.debts());
        this.remindedOn = state.remindedOn();
    }

    ClientState state() {
        return state;
    }

    ActsToCome.Rules rules() {
        return rules;
    }

    /** As they stand just now. */
    List<Debt> debts() {
        return List.copyOf(debts);
    }

    /** Whether anything is open of an installment, or of a fee on it. */
    boolean isOwed(Debt d) {
        return d.open().open().isPositive()
                || debts.stream()
                        .anyMatch(f ->
                                f.feeOf() == d.open().id() && f.open().open().isPositive());
    }

    /** What can be asked of each debt: open, less in transit, less what client credit covers in the standard order. */
    Map<Long, Money> asked() {
        Map<Long, Money> asked = new HashMap<>();
        List<OpenDebt> left = new ArrayList<>();
        for (Debt d : debts) {
            Money rest = d.open().open().minus(Amounts.min(d.open().open(), d.inTransit()));
            if (rest.isPositive()) {
                asked.put(d.open().id(), rest);
                left.add(d.open().withOpen(rest));
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

    ReminderPlan planOf(Debt d) {
        return d.plan() == null ? rules.plan() : d.plan();
    }

    /** What keeps any act from being done, whatever its kind. */
    Act.Stop held(ActKey key, LocalDate day) {
        if (state.keptBackActs().contains(key)) {
            return Act.Stop.KEPT_BACK;
        }
        if (state.isKeptBackOn(day)) {
            return Act.Stop.CLIENT_KEPT_BACK;
        }
        return rules.areKeptBackOn(day) ? Act.Stop.ALL_KEPT_BACK : Act.Stop.NOTHING;
    }

    boolean wasRemindedBy(LocalDate day) {
        return Until.holds(remindedOn, day);
    }

    void reminded(LocalDate day) {
        remindedOn = day;
    }

    void replace(long id, UnaryOperator<Debt> change) {
        debts.replaceAll(d -> d.open().id() == id ? change.apply(d) : d);
    }

    void add(Debt debt) {
        debts.add(debt);
    }

    /** For a debt that is not charged yet; below zero. */
    long newId() {
        return nextId--;
    }
}
