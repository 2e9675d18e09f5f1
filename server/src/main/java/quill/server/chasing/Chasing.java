package quill.server.chasing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.acts.Act;
import quill.core.acts.ActsToCome;
import quill.core.acts.ClientState;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.PageKey;
import quill.server.debts.Debts;
import quill.server.dispatch.Correspondence;
import quill.server.dispatch.ReminderExpired;
import quill.server.dispatch.Reminding;
import quill.server.dispatch.Slip;
import quill.server.latefees.FeePolicies;
import quill.server.latefees.LateFees;

/** What is to come for clients, and doing it: the list that Today shows is the list that the daily run performs. */
@Service
public class Chasing {
    private static final int AT_ONCE = 400;
    private static final int PART = 40;
    private static final PageKey FIRST = new PageKey(LocalDate.of(1900, 1, 1), 0);
    private final ChasingRepository repository;
    private final ClientStates states;
    private final ReminderPlans plans;
    private final ClientsService clients;
    private final LateFees fees;
    private final Correspondence correspondence;
    private final Reminding reminding;
    private final BusinessClock clock;

    Chasing(
            ChasingRepository repository,
            ClientStates states,
            ReminderPlans plans,
            ClientsService clients,
            LateFees fees,
            Correspondence correspondence,
            Reminding reminding,
            BusinessClock clock) {
        this.repository = repository;
        this.states = states;
        this.plans = plans;
        this.clients = clients;
        this.fees = fees;
        this.correspondence = correspondence;
        this.reminding = reminding;
        this.clock = clock;
    }

    /** What became of an act. @param act as it stands now, or null where nothing is to be done any more */
    public record Outcome(Result outcome, String reason, Act act) {
        static Outcome done(Act act) {
            return new Outcome(Result.DONE, "", act);
        }
    }

    @EventListener
    void debtsChanged(Debts.DebtsChanged change) {
        repository.lookAt(change.clientId());
    }

    /** A letter never left and its day has passed: its steps are due again, and the client was not reminded that day. */
    @EventListener
    void reminderExpired(ReminderExpired letter) {
        letter.steps().forEach(repository::useStepAgain);
        notAsked(letter);
    }

    /** A letter never left: nobody was asked by it, and the client was not reminded that day. */
    void notAsked(ReminderExpired letter) {
        letter.asked().forEach(repository::notAsked);
        repository.notReminded(letter.clientId(), letter.writtenOn());
        repository.lookAt(letter.clientId());
    }

    @EventListener
    void policiesChanged(FeePolicies.PoliciesChanged change) {
        repository.lookAtAll();
    }

    /** Every act from one day to another over all clients, by day, fees before reminders. */
    public List<Act> toCome(LocalDate from, LocalDate to) {
        return toCome(repository.clientsToLookAt(to), from, to);
    }

    /** Acts of a part of the clients. @param next where the rest begins, or null where this was all */
    public record Page(List<Act> acts, String next) {}

    /**
     * Acts from one day to another, of as many clients as come up with so many of them, those with the soonest first.
     *
     * @param after what the page before said in {@code next}, or null for the first
     */
    public Page page(LocalDate from, LocalDate to, String after, int most) {
        PageKey key = after == null || after.isEmpty() ? FIRST : PageKey.of(after);
        ActsToCome.Rules rules = plans.rules();
        List<Act> acts = new ArrayList<>();
        List<PageKey> some;
        do {
            some = repository.clientsToLookAt(to, key, PART);
            states.of(some.stream().map(PageKey::id).map(ClientId::new).toList())
                    .values()
                    .forEach(r -> acts.addAll(ActsToCome.of(r.state(), rules, from, to)));
            key = some.isEmpty() ? key : some.get(some.size() - 1);
        } while (some.size() == PART && acts.size() < most);
        acts.sort(ORDER);
        return new Page(acts, some.size() == PART ? key.toString() : null);
    }

    /** The same for some clients. */
    public List<Act> toCome(Collection<ClientId> clientIds, LocalDate from, LocalDate to) {
        ActsToCome.Rules rules = plans.rules();
        List<Act> acts = new ArrayList<>();
        for (List<ClientId> some : inParts(clientIds)) {
            states.of(some).values().forEach(r -> acts.addAll(ActsToCome.of(r.state(), rules, from, to)));
        }
        acts.sort(ORDER);
        return acts;
    }

    private static final Comparator<Act> ORDER = Comparator.comparing(Act::on)
            .thenComparing(a -> a instanceof Act.Reminder)
            .thenComparing(Act::client)
            .thenComparing(Act::key);

    /** The day's acts; clients for whom nothing comes up are not looked at again before something may. */
    public List<Act> planOf(LocalDate day) {
        ActsToCome.Rules rules = plans.rules();
        List<Act> acts = new ArrayList<>();
        for (List<ClientId> some : inParts(repository.clientsToLookAt(day))) {
            Map<ClientId, ClientStates.Read> read = states.of(some);
            read.values().forEach(r -> acts.addAll(ActsToCome.of(r.state(), rules, day, day)));
            lookAgain(read, rules);
        }
        acts.sort(ORDER);
        return acts;
    }

    /**
     * Notes of clients whose books changed when something may come up again: until then whoever asks what is to come
     * has to look at each of them.
     */
    @Transactional
    public void lookAtChanged() {
        ActsToCome.Rules rules = plans.rules();
        inParts(repository.changedClients()).forEach(some -> lookAgain(states.of(some), rules));
    }

    private void lookAgain(Map<ClientId, ClientStates.Read> read, ActsToCome.Rules rules) {
        read.forEach((client, r) -> repository.lookAgain(
                client, ActsToCome.nextDay(r.state(), rules).orElse(null), r.changeNo()));
    }

    static List<List<ClientId>> inParts(Collection<ClientId> ids) {
        List<ClientId> all = List.copyOf(ids);
        List<List<ClientId>> parts = new ArrayList<>();
        for (int i = 0; i < all.size(); i += AT_ONCE) {
            parts.add(all.subList(i, Math.min(all.size(), i + AT_ONCE)));
        }
        return parts;
    }

    /**
     * Performs one act of a day's plan, within the caller's transaction. What it rests on is read again under the
     * client's lock: where it is not needed any more nothing is done, and the outcome says why.
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public Outcome perform(ClientId clientId, String key, LocalDate day) {
        clients.lock(clientId);
        ClientState state = stateOf(clientId);
        Optional<Act> found = ActsToCome.of(state, plans.rules(), day, day).stream()
                .filter(a -> a.key().equals(key))
                .findFirst();
        if (found.isEmpty()) {
            return new Outcome(Result.NOT_NEEDED, WhyNot.of(state, key, day, clock.today()), null);
        }
        Act act = found.get();
        if (act.stop() != Act.Stop.NOTHING) {
            if (act.stop() == Act.Stop.KEPT_BACK && act instanceof Act.Reminder reminder) {
                // A letter that was kept back on its day does not go a day later by itself: its steps are used up. It
                // stays in sight, so that a person can send it after all.
                repository.passed(key, day, useUp(reminder));
            }
            return new Outcome(Result.KEPT_BACK, act.stop().words(), act);
        }
        return act instanceof Act.Fee fee ? charge(fee) : remind((Act.Reminder) act);
    }

    private Outcome charge(Act.Fee act) {
        fees.charge(act.client(), act.debt().open(), act.fee(), act.on());
        repository.letActGo(act.key());
        return Outcome.done(act);
    }

    private Outcome remind(Act.Reminder act) {
        LocalDate today = clock.today();
        String key = Act.Reminder.key(act.client(), today);
        if (!act.on().equals(today)) {
            return new Outcome(Result.NOT_NEEDED, "its day has passed; the next letter says what is open then", act);
        }
        if (correspondence.wasWritten(key)) {
            return new Outcome(Result.NOT_NEEDED, "a reminder was written to this client today already", act);
        }
        send(key, act);
        return Outcome.done(act);
    }

    private void send(String key, Act.Reminder act) {
        reminding.remind(key, act);
        sent(act);
    }

    /** Writes a letter that a person sends and notes what it uses up, within a transaction that locked the client. */
    void sendByHand(String key, Act.Reminder act, Slip slip, String keptBackAct) {
        reminding.remindByHand(key, act, slip, keptBackAct);
        sent(act);
    }

    private void sent(Act.Reminder act) {
        useUp(act);
        repository.forgetPassed(act.client());
        act.asked().forEach(i -> repository.asked(i.debt().id(), act.step().tone()));
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

    ClientState stateOf(ClientId clientId) {
        ClientStates.Read read = states.of(List.of(clientId)).get(clientId);
        if (read == null) {
            repository.lookAt(clientId);
            read = states.of(List.of(clientId)).get(clientId);
        }
        return read.state();
    }

    /** What keeps a client's or an invoice's letters back. */
    public Optional<ClientChasing> of(ClientId clientId) {
        Map<ClientId, ChasingRepository.Row> rows = repository.rows(List.of(clientId));
        return Optional.ofNullable(rows.get(clientId))
                .map(r -> new ClientChasing(
                        r.mutedUntil(),
                        r.keptBackUntil() != null && !r.keptBackUntil().isBefore(clock.today()),
                        KeptUntil.shown(r.keptBackUntil()),
                        r.remindedOn()));
    }

    /**
     * What holds for a client.
     *
     * @param mutedUntil last day on which no reminder goes, or null
     * @param keptBackUntil last day on which everything is kept back; null where that has no end, or it is not
     */
    public record ClientChasing(
            LocalDate mutedUntil, boolean keptBack, LocalDate keptBackUntil, LocalDate remindedOn) {}

    /** Last day on which an invoice is not reminded of, or empty. */
    public Optional<LocalDate> mutedUntil(DocumentId invoiceId) {
        return Optional.ofNullable(repository.mutedInvoices(List.of(invoiceId)).get(invoiceId));
    }
}
