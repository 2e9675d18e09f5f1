package quill.server.chasing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import quill.core.acts.Act;
import quill.core.acts.ActsToCome;
import quill.core.id.ClientId;
import quill.core.money.Amounts;
import quill.server.debts.Debts;

/** What no reminder goes for any more by itself: only a person can go on with it. */
@Service
public class LeftToAPerson {
    private final ChasingRepository repository;
    private final ClientStates states;
    private final ReminderPlans plans;
    private final NamedPlans named;
    private final Debts debts;

    LeftToAPerson(
            ChasingRepository repository, ClientStates states, ReminderPlans plans, NamedPlans named, Debts debts) {
        this.repository = repository;
        this.states = states;
        this.plans = plans;
        this.named = named;
        this.debts = debts;
    }

    /** Late installments of a client after the plan's last step: only a person can go on with them. */
    public record Unanswered(ClientId clientId, List<Act.Item> items) {
        /** What is open of them. */
        public Money sum() {
            return Amounts.sum(
                    items.get(0).asked().getCurrencyUnit(),
                    items.stream().map(Act.Item::asked).toList());
        }
    }

    /**
     * Of those clients who owe most, so many at the most that a glance stays quick; those who owe most first.
     *
     * @param most clients that are looked at; there may be more
     */
    public List<Unanswered> unanswered(LocalDate day, int most) {
        ActsToCome.Rules rules = plans.rules();
        OptionalInt soonest = named.lastSteps(rules.plan());
        if (soonest.isEmpty()) {
            return List.of();
        }
        // Each plan ends somewhere else; which one holds is looked at with each debt.
        int last = soonest.getAsInt();
        List<Unanswered> all = new ArrayList<>();
        for (List<ClientId> some : Chasing.inParts(clientsPast(last, day, most))) {
            states.of(some).forEach((client, read) -> {
                List<Act.Item> items = ActsToCome.unanswered(read.state(), rules, day);
                if (!items.isEmpty()) {
                    all.add(new Unanswered(client, items));
                }
            });
        }
        all.sort(Comparator.comparing((Unanswered u) -> u.sum().getAmount())
                .reversed()
                .thenComparing(Unanswered::clientId));
        return all;
    }

    /** Clients who owe something that fell due before a day and whose steps are used up, those who owe most first. */
    private List<ClientId> clientsPast(int days, LocalDate day, int most) {
        List<Debts.Late> late = debts.late(day);
        Set<Long> usedUp =
                repository.usedUp(days, late.stream().map(Debts.Late::id).toList());
        Map<ClientId, Long> owed = new HashMap<>();
        late.stream()
                .filter(d -> usedUp.contains(d.id()))
                .forEach(d -> owed.merge(d.clientId(), d.openMinor(), Math::addExact));
        return owed.entrySet().stream()
                .sorted(Map.Entry.<ClientId, Long>comparingByValue()
                        .reversed()
                        .thenComparing(Map.Entry.comparingByKey()))
                .limit(most)
                .map(Map.Entry::getKey)
                .toList();
    }

    /** Reminders that were kept back until their day had passed, and of which something is still open; latest first. */
    public List<KeptReminder> keptBack(int most) {
        return repository.passed(most).stream()
                .filter(p -> p.steps().keySet().stream()
                        .anyMatch(d -> debts.openOf(d).filter(Money::isPositive).isPresent()))
                .toList();
    }
}
