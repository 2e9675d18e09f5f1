package quill.server.savedmethods;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.pay.CardExpiry;
import quill.core.pay.PayingLater;
import quill.core.pay.WayToPay;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.processor.CardProcessor;
import quill.server.processor.Processors;
import quill.server.savedmethods.SavedMethod.State;

/**
 * Cards and mandates that clients let be kept. What is removed is used no more from that moment on; the processor is told until
 * it has heard.
 */
@Service
public class SavedMethods {
    private static final Logger LOG = LoggerFactory.getLogger(SavedMethods.class);
    private final SavedMethodRepository repository;
    private final Processors processors;
    private final ClientsService clients;
    private final Happenings happenings;
    private final Changes changes;
    private final ApplicationEventPublisher publisher;
    private final TransactionTemplate transaction;
    private final BusinessClock clock;

    SavedMethods(
            SavedMethodRepository repository,
            Processors processors,
            ClientsService clients,
            Happenings happenings,
            Changes changes,
            ApplicationEventPublisher publisher,
            TransactionTemplate transaction,
            BusinessClock clock) {
        this.repository = repository;
        this.processors = processors;
        this.clients = clients;
        this.happenings = happenings;
        this.changes = changes;
        this.publisher = publisher;
        this.transaction = transaction;
        this.clock = clock;
    }

    /**
     * What the business wants.
     *
     * @param offered whether clients are offered to keep a card or a mandate
     * @param laterDays how long after it is due a client may plan a payment; 0 for not at all
     * @param version 0 before it was first kept
     */
    public record SavedSetting(boolean offered, int laterDays, int version) {}

    /** As it is kept, or usual: not at all. */
    public SavedSetting setting() {
        return repository.setting().orElse(new SavedSetting(false, 14, 0));
    }

    /**
     * Changes it. What is kept stays kept.
     *
     * @throws RefusedException naming {@code laterDays}
     * @throws ConflictException if another window changed it first
     */
    @Transactional
    public SavedSetting change(SavedSetting typed) {
        if (typed.laterDays() < 0 || typed.laterDays() > PayingLater.MOST_DAYS) {
            throw new RefusedException(
                    "laterDays",
                    typed.laterDays(),
                    "must be from 0, for not at all, to " + PayingLater.MOST_DAYS + " days");
        }
        if (!repository.keep(typed)) {
            throw new ConflictException("What may be kept was changed in another window. Look at it again.");
        }
        happenings.tell(
                null, null, typed.offered() ? "Cards and mandates are kept" : "Cards and mandates are not kept");
        return setting();
    }

    /** One. @throws NotFoundException where there is none */
    public SavedMethod find(long id) {
        return repository.find(id).orElseThrow(SavedMethods::unknown);
    }

    /** One of a client that can be used today. @throws NotFoundException where it is none of theirs @throws ConflictException where it is removed, or has expired */
    public SavedMethod usable(ClientId clientId, long id) {
        SavedMethod method =
                repository.find(id).filter(m -> m.clientId().equals(clientId)).orElseThrow(SavedMethods::unknown);
        if (!method.isUsable(clock.today())) {
            throw new ConflictException(
                    method.state() == State.USABLE
                            ? method.with().words() + " has expired. Nothing was taken."
                            : method.with().words() + " is not kept any more. Nothing was taken.");
        }
        return method;
    }

    private static NotFoundException unknown() {
        return new NotFoundException("There is no such saved card or mandate.");
    }

    /** Those of a client that were not removed, expired ones too; the latest first. */
    public List<SavedMethod> ofClient(ClientId clientId) {
        return repository.ofClient(clientId);
    }

    /** Cards that end soon, or have ended, of all clients. */
    @Transactional(readOnly = true)
    public List<SavedMethod> ending() {
        return repository.in(State.USABLE).stream()
                .filter(m -> m.with().expires() != null && m.with().expires().isNear(clock.today()))
                .toList();
    }

    /** Keeps one, once for each token; within the caller's transaction. @return its id */
    @Transactional(propagation = Propagation.MANDATORY)
    public long keep(ClientId clientId, long processor, CardProcessor.Kept kept, Agreed agreed) {
        Optional<SavedMethod> before = repository.byToken(processor, kept.method());
        if (before.isPresent()) {
            return before.get().id();
        }
        SavedMethod.With with = new SavedMethod.With(
                kept.isDebit() ? WayToPay.BANK_DEBIT : WayToPay.CARD,
                kept.name(),
                kept.lastFour(),
                CardExpiry.read(kept.expiry()).orElse(null));
        long id = repository.insert(
                new SavedMethod(0, clientId, processor, kept.method(), with, State.USABLE, agreed, clock.today()));
        happenings.tell(null, clientId, with.words() + " is kept for later: “" + agreed.words() + "”");
        changes.say(null, clientId);
        return id;
    }

    /** One was removed: what was planned with it is not taken. Told within the transaction that removes it. */
    public record Removed(long id, ClientId clientId) {}

    /** Removes one: it is not used from now on. Removed before, it stays removed. */
    public void remove(ClientId clientId, long id) {
        transaction.executeWithoutResult(s -> {
            clients.lock(clientId);
            SavedMethod method = find(id);
            if (!method.clientId().equals(clientId)) {
                throw unknown();
            }
            if (repository.move(id, State.REMOVING, Set.of(State.USABLE)) == 1) {
                publisher.publishEvent(new Removed(id, clientId));
                happenings.tell(null, clientId, method.with().words() + " is not kept any more");
                changes.say(null, clientId);
            }
        });
        forgetQuietly(find(id));
    }

    /** Tells processors what they are to forget, and have not heard of yet. */
    public void forgetAll(BooleanSupplier stop) {
        for (SavedMethod m : repository.in(State.REMOVING)) {
            if (stop.getAsBoolean()) {
                return;
            }
            forgetQuietly(m);
        }
    }

    private void forgetQuietly(SavedMethod m) {
        try {
            processors.connect(m.processor(), false).forget(m.token());
            transaction.executeWithoutResult(s -> repository.move(m.id(), State.REMOVED, Set.of(State.REMOVING)));
        } catch (CardProcessor.NoAnswer e) {
            LOG.debug("the processor does not answer about what it is to forget", e);
        }
    }
}
