package quill.server.chasing;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.context.event.EventListener;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.acts.Act;
import quill.core.acts.ActKey;
import quill.core.acts.ActKind;
import quill.core.acts.ActsToCome;
import quill.core.acts.ClientState;
import quill.core.id.ClientId;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.common.Texts;
import quill.server.dispatch.CallingBack;
import quill.server.dispatch.ReminderExpired;
import quill.server.dispatch.Slip;

/** What a person decides about acts to come: keep one back, let it go, do it now, mute a client or an invoice. */
@Service
public class Decisions {
    private static final int FAR = 400;

    private final ChasingRepository repository;
    private final Chasing chasing;
    private final ReminderPlans plans;
    private final ClientsService clients;
    private final Happenings happenings;
    private final BusinessClock clock;

    Decisions(
            ChasingRepository repository,
            Chasing chasing,
            ReminderPlans plans,
            ClientsService clients,
            Happenings happenings,
            BusinessClock clock) {
        this.repository = repository;
        this.chasing = chasing;
        this.plans = plans;
        this.clients = clients;
        this.happenings = happenings;
        this.clock = clock;
    }

    /** Keeps one act back. @throws ConflictException where it is done, or kept back, already */
    @Transactional
    public void keepBack(String key, ClientId clientId) {
        keepBack(known(key), clientId);
    }

    private void keepBack(ActKey key, ClientId clientId) {
        clients.lock(clientId);
        Act act = find(key, clientId);
        String what = chasing.inHand(act).briefly();
        try {
            repository.keepBackAct(
                    new ChasingRepository.KeptBack(key, clientId, what, Happenings.who(), clock.today()));
        } catch (DuplicateKeyException e) {
            throw new ConflictException("That is kept back already.");
        }
        note(act, "Kept back: " + what);
    }

    /** Lets an act go that was kept back; it is done when it comes up. */
    @Transactional
    public void letGo(String typed, ClientId clientId) {
        ActKey key = known(typed);
        clients.lock(clientId);
        if (repository.letActGo(key) != 1) {
            throw new ConflictException("That is not kept back any more.");
        }
        repository.lookAt(clientId);
        note(find(key, clientId), "No longer kept back");
    }

    /**
     * Does an act now: a letter before its day, or a fee that waits for review or was kept back.
     *
     * @param slip how a letter goes, this once, or null
     * @throws ConflictException where the client had a reminder today, or the fee's day has not come
     */
    @Transactional
    public void doNow(String typed, ClientId clientId, Slip slip) {
        ActKey key = known(typed);
        clients.lock(clientId);
        Act act = repository.passed(key).map(p -> takeUp(p, clientId)).orElseGet(() -> find(key, clientId));
        chasing.inHand(act).doNow(key, slip);
    }

    /** What a reminder asks for today that was kept back until its day had passed: its steps are due again. */
    private Act takeUp(KeptReminder kept, ClientId clientId) {
        LocalDate today = clock.today();
        if (!kept.clientId().equals(clientId)) {
            throw new NotFoundException("This client has no act of the key " + kept.key() + ".");
        }
        kept.steps().forEach(repository::useStepAgain);
        return ActsToCome.of(chasing.stateOf(clientId), plans.rules(), today, today).stream()
                .filter(a -> a.kind() == ActKind.REMINDER)
                .findFirst()
                .orElseThrow(
                        () -> new ConflictException(
                                "Nothing is to be asked of this client today; what it was about is paid, or reminded of since."));
    }

    /** A person has dealt with a reminder that was kept back until its day had passed: it does not go. */
    @Transactional
    public void letItBe(String typed, ClientId clientId) {
        ActKey key = known(typed);
        clients.lock(clientId);
        KeptReminder kept = repository
                .passed(key)
                .filter(p -> p.clientId().equals(clientId))
                .orElseThrow(() -> new ConflictException("That is not kept back any more."));
        repository.letActGo(key);
        happenings.tell(null, clientId, "Not sent: " + kept.what());
    }

    /** What a reminder had used up is due again, and what had been kept back before is kept back again. */
    @EventListener
    void calledBack(CallingBack.ReminderCalledBack letter) {
        ReminderExpired unsent = letter.letter();
        LocalDate keptOn =
                letter.keptBackAct() == null ? null : letter.keptBackAct().day();
        if (keptOn == null || !keptOn.isBefore(clock.today())) {
            chasing.reminderExpired(unsent);
            if (keptOn != null
                    && toCome(chasing.stateOf(unsent.clientId()), letter.keptBackAct())
                            .isPresent()) {
                keepBack(letter.keptBackAct(), unsent.clientId());
            }
            return;
        }
        // Its day had passed before: its steps stay used up, and it is in sight again.
        chasing.notAsked(unsent);
        repository.keepBackAct(new ChasingRepository.KeptBack(
                letter.keptBackAct(),
                unsent.clientId(),
                "reminder of " + Texts.day(keptOn),
                Happenings.who(),
                clock.today()));
        repository.passed(letter.keptBackAct(), keptOn, unsent.steps());
    }

    /** Decides that a fee under review is not charged; its key is used up. */
    @Transactional
    public void leaveOut(String key, ClientId clientId, String why) {
        clients.lock(clientId);
        chasing.inHand(find(known(key), clientId)).leaveOut(why);
    }

    private Act find(ActKey key, ClientId clientId) {
        ClientState state = chasing.stateOf(clientId);
        return toCome(state, key)
                .orElseThrow(() -> new ConflictException(
                        "Nothing is to be done there any more: " + chasing.whyGone(state, key, clock.today()) + "."));
    }

    private Optional<Act> toCome(ClientState state, ActKey key) {
        return comingUp(state).filter(a -> a.key().equals(key)).findFirst();
    }

    private Stream<Act> comingUp(ClientState state) {
        // Before today's run its acts are met today; after it, what has come up since is met tomorrow.
        LocalDate today = clock.today();
        return Stream.of(today, today.plusDays(1))
                .flatMap(from -> ActsToCome.of(state, plans.rules(), from, from.plusDays(FAR)).stream());
    }

    /** @throws NotFoundException for what cannot be a key */
    private static ActKey known(String key) {
        return ActKey.read(key)
                .orElseThrow(() -> new NotFoundException("There is no act to come with the key " + key + "."));
    }

    private void note(Act act, String what) {
        happenings.tell(chasing.inHand(act).notedOn(), act.client(), what);
    }

    /** Fees whose day has come and that wait for a person. */
    public List<Act> waitingForReview() {
        LocalDate today = clock.today();
        return chasing.toCome(today, today).stream()
                .filter(a -> a.stop() == Act.Stop.REVIEW)
                .toList();
    }
}
