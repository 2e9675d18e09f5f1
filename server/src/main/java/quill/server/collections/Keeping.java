package quill.server.collections;

import java.util.UUID;
import java.util.function.BooleanSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.collections.MethodRequest.State;
import quill.server.common.ConflictException;
import quill.server.processor.CardProcessor;
import quill.server.processor.Processors;
import quill.server.savedmethods.Agreed;
import quill.server.savedmethods.SavedMethods;
import quill.server.ways.WaysService;

/** Keeps what clients were asked for, on the processor's own page: it is asked what came of that until it has an end. */
@Service
public class Keeping {
    private static final Logger LOG = LoggerFactory.getLogger(Keeping.class);
    private final MethodRequestRepository repository;
    private final MethodRequests requests;
    private final SavedMethods methods;
    private final Processors processors;
    private final WaysService ways;
    private final ClientsService clients;
    private final TransactionTemplate transaction;

    Keeping(
            MethodRequestRepository repository,
            MethodRequests requests,
            SavedMethods methods,
            Processors processors,
            WaysService ways,
            ClientsService clients,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.requests = requests;
        this.methods = methods;
        this.processors = processors;
        this.ways = ways;
        this.clients = clients;
        this.transaction = transaction;
    }

    /**
     * The client is about to give one.
     *
     * @param agreed as ticked
     * @return the address of the processor's page
     * @throws ConflictException where it was given or is asked no more, or the processor does not answer
     */
    String begin(String token, Agreed agreed) {
        MethodRequest found = requests.byToken(token);
        checkAsked(found);
        askQuietly(found);
        WaysService.Taking keeping = ways.keeping(found.clientId())
                .orElseThrow(() -> new ConflictException("No card or mandate can be kept just now. Try again later."));
        MethodRequest.Begun begun = transaction.execute(s -> {
            MethodRequest now = repository.lock(found.id()).orElseThrow();
            checkAsked(now);
            // Two windows share one page of the processor's, so that what is kept in either is found.
            MethodRequest.Begun one = now.begun() != null
                            && now.begun().processor() == keeping.by().id()
                    ? now.begun()
                    : new MethodRequest.Begun(keeping.by().id(), "quill-" + UUID.randomUUID(), null);
            repository.begin(now.id(), one, agreed);
            return one;
        });
        try {
            CardProcessor.Keeping opened = processors
                    .connect(begun.processor(), false)
                    .openKeeping(
                            begun.key(),
                            "Kept for later",
                            requests.page(found) + "?back=1",
                            CardProcessor.Taking.of(keeping.ways()));
            transaction.executeWithoutResult(
                    s -> repository.opened(found.id(), begun.key(), opened.id(), opened.keepAt()));
            return opened.keepAt();
        } catch (CardProcessor.NoAnswer e) {
            LOG.warn("keeping {} has no answer yet: {}", begun.key(), e.getMessage());
            throw new ConflictException("The card company does not answer just now. Nothing was kept; try again.");
        }
    }

    private static void checkAsked(MethodRequest r) {
        if (r.state() != State.ASKED) {
            throw new ConflictException(
                    r.state() == State.GIVEN
                            ? "This was given already. Thank you; nothing more is needed."
                            : "This is asked for no more. Nothing was kept.");
        }
    }

    /** Asks the processor now, for somebody who is back from its page. @return as it stands then */
    MethodRequest back(String token) {
        askQuietly(requests.byToken(token));
        return requests.byToken(token);
    }

    /** Finds what was kept by somebody who never came back. */
    public void askAll(BooleanSupplier stop) {
        for (MethodRequest r : repository.begun()) {
            if (stop.getAsBoolean()) {
                return;
            }
            askQuietly(r);
        }
    }

    private void askQuietly(MethodRequest r) {
        if (r.state() != State.ASKED || r.begun() == null || r.begun().number() == null) {
            return;
        }
        try {
            processors
                    .connect(r.begun().processor(), false)
                    .askKeeping(r.begun().number())
                    .filter(k -> k.kept() != null)
                    .ifPresent(k -> kept(r, k.kept()));
        } catch (CardProcessor.NoAnswer e) {
            LOG.debug("the processor does not answer about keeping {}", r.id(), e);
        }
    }

    private void kept(MethodRequest r, CardProcessor.Kept kept) {
        Happenings.asClient(
                clients.client(r.clientId()).name(),
                () -> transaction.executeWithoutResult(s -> {
                    clients.lock(r.clientId());
                    MethodRequest now = repository.lock(r.id()).orElseThrow();
                    long method = methods.keep(r.clientId(), r.begun().processor(), kept, now.agreed());
                    repository.end(r.id(), State.GIVEN, method);
                }));
    }
}
