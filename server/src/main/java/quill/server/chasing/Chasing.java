package quill.server.chasing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.acts.Act;
import quill.core.acts.ActKey;
import quill.core.acts.ActsToCome;
import quill.core.acts.ClientState;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.PageKey;
import quill.server.debts.AgreedTerms;
import quill.server.debts.Debts;
import quill.server.dispatch.ReminderExpired;
import quill.server.latefees.FeePolicies;

/** What is to come for clients, and doing it: the list that Today shows is the list that the daily run performs. */
@Service
public class Chasing {
    private static final int AT_ONCE = 400;
    /** Of so many clients the day's list is written in one transaction. */
    private static final int LISTED_AT_ONCE = 100;

    private static final int PART = 40;
    private static final PageKey FIRST = new PageKey(LocalDate.of(1900, 1, 1), 0);
    private final ChasingRepository repository;
    private final ClientStates states;
    private final ReminderPlans plans;
    private final ClientsService clients;
    private final ActsByKind acts;
    private final BusinessClock clock;

    Chasing(
            ChasingRepository repository,
            ClientStates states,
            ReminderPlans plans,
            ClientsService clients,
            ActsByKind acts,
            BusinessClock clock) {
        this.repository = repository;
        this.states = states;
        this.plans = plans;
        this.clients = clients;
        this.acts = acts;
        this.clock = clock;
    }

    /** What became of an act. @param act as it stands now, or null where nothing is to be done any more */
    public record Outcome(Result outcome, String reason, Act act) {
        static Outcome done(Act act) {
            return new Outcome(Result.DONE, "", act);
        }

        static Outcome notNeeded(String reason, Act act) {
            return new Outcome(Result.NOT_NEEDED, reason, act);
        }
    }

    @EventListener
    void debtsChanged(Debts.DebtsChanged change) {
        repository.lookAt(change.clientId());
    }

    /** Debts have other days: no step for them was used yet, and no letter about them was stern. */
    @EventListener
    void agreedAnew(AgreedTerms.AgreedAnew change) {
        repository.forgetSteps(change.debtIds());
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
            .thenComparing(Act::kind)
            .thenComparing(Act::client)
            .thenComparing(a -> a.key().toString());

    /** Clients for whom anything may come up by a day, in parts that are quickly read. */
    public List<List<ClientId>> partsOf(LocalDate day) {
        return inParts(repository.clientsToLookAt(day), LISTED_AT_ONCE);
    }

    /**
     * The day's acts of some clients; those for whom nothing comes up are not looked at again before something may.
     * Within the caller's transaction.
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public List<Act> planOf(LocalDate day, List<ClientId> some) {
        ActsToCome.Rules rules = plans.rules();
        Map<ClientId, ClientStates.Read> read = states.of(some);
        List<Act> acts = new ArrayList<>();
        read.values().forEach(r -> acts.addAll(ActsToCome.of(r.state(), rules, day, day)));
        lookAgain(read, rules);
        acts.sort(ORDER);
        return acts;
    }

    /** Clients whose books changed, in parts: whoever asks what is to come has to look at each of them meanwhile. */
    public List<List<ClientId>> changed() {
        return inParts(repository.changedClients(), LISTED_AT_ONCE);
    }

    /** Notes of some clients whose books changed when something may come up again. */
    @Transactional
    public void lookAgainAt(List<ClientId> some) {
        lookAgain(states.of(some), plans.rules());
    }

    private void lookAgain(Map<ClientId, ClientStates.Read> read, ActsToCome.Rules rules) {
        read.forEach((client, r) -> repository.lookAgain(
                client, ActsToCome.nextDay(r.state(), rules).orElse(null), r.changeNo()));
    }

    static List<List<ClientId>> inParts(Collection<ClientId> ids) {
        return inParts(ids, AT_ONCE);
    }

    private static List<List<ClientId>> inParts(Collection<ClientId> ids, int size) {
        List<ClientId> all = List.copyOf(ids);
        List<List<ClientId>> parts = new ArrayList<>();
        for (int i = 0; i < all.size(); i += size) {
            parts.add(all.subList(i, Math.min(all.size(), i + size)));
        }
        return parts;
    }

    /**
     * Locks some clients, in ascending order, and reads once what their acts of a day rest on; within the caller's
     * transaction.
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public Locked lock(Collection<ClientId> clientIds, LocalDate day) {
        List<ClientId> ascending = clientIds.stream().distinct().sorted().toList();
        ascending.forEach(clients::lock);
        Map<ClientId, ClientState> read = new HashMap<>();
        states.of(ascending).forEach((id, r) -> read.put(id, r.state()));
        return new Locked(day, plans.rules(), read);
    }

    /** Clients in hand, for acts of one kind: another kind's acts change what these rest on. */
    public final class Locked {
        private final LocalDate day;
        private final ActsToCome.Rules rules;
        private final Map<ClientId, ClientState> read;
        private final Map<ClientId, Map<ActKey, Act>> acts = new HashMap<>();

        private Locked(LocalDate day, ActsToCome.Rules rules, Map<ClientId, ClientState> read) {
            this.day = day;
            this.rules = rules;
            this.read = read;
        }

        /** Performs an act of the day's list; where it is not needed any more nothing is done, and the outcome says why. */
        public Outcome perform(ClientId clientId, ActKey key) {
            Act act = acts.computeIfAbsent(clientId, this::actsOf).get(key);
            if (act == null) {
                return new Outcome(Result.NOT_NEEDED, whyGone(state(clientId), key, day), null);
            }
            ActCase its = inHand(act);
            if (act.stop() == Act.Stop.NOTHING) {
                return its.perform();
            }
            if (act.stop() == Act.Stop.KEPT_BACK) {
                its.passKeptBack();
            }
            return new Outcome(Result.KEPT_BACK, act.stop().words(), act);
        }

        /** One whom nobody ever looked at is looked at now. */
        private ClientState state(ClientId clientId) {
            return read.computeIfAbsent(clientId, Chasing.this::stateOf);
        }

        private Map<ActKey, Act> actsOf(ClientId clientId) {
            return ActsToCome.of(state(clientId), rules, day, day).stream().collect(Collectors.toMap(Act::key, a -> a));
        }
    }

    /** What is particular to the kind of an act. */
    public ActCase inHand(Act act) {
        return acts.of(act);
    }

    /** Why an act is not to be done any more. */
    String whyGone(ClientState state, ActKey key, LocalDate day) {
        return acts.whyGone(state, key, day);
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
                        KeptUntil.isOn(r.keptBackUntil(), clock.today()),
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
