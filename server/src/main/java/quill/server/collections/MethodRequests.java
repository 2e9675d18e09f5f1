package quill.server.collections;

import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.server.QuillSettings;
import quill.server.audit.Happenings;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.collections.MethodRequest.State;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.common.RandomText;
import quill.server.dispatch.MethodLetters;
import quill.server.savedmethods.SavedMethods;
import quill.server.ways.WaysService;

/** Cards and mandates that clients are asked for before anything is due. */
@Service
public class MethodRequests {
    private static final int BYTES = 24;
    private final MethodRequestRepository repository;
    private final SavedMethods methods;
    private final MethodLetters letters;
    private final WaysService ways;
    private final ClientsService clients;
    private final Happenings happenings;
    private final QuillSettings settings;
    private final BusinessClock clock;

    MethodRequests(
            MethodRequestRepository repository,
            SavedMethods methods,
            MethodLetters letters,
            WaysService ways,
            ClientsService clients,
            Happenings happenings,
            QuillSettings settings,
            BusinessClock clock) {
        this.repository = repository;
        this.methods = methods;
        this.letters = letters;
        this.ways = ways;
        this.clients = clients;
        this.happenings = happenings;
        this.settings = settings;
        this.clock = clock;
    }

    /** Whether an address leads to one. */
    public boolean isRequest(String token) {
        return repository.byToken(token).isPresent();
    }

    /** The one of an address. @throws NotFoundException where there is none */
    MethodRequest byToken(String token) {
        return repository
                .byToken(token)
                .orElseThrow(() -> new NotFoundException("This link leads nowhere. Ask the sender for a new one."));
    }

    /** What a client is asked by now. */
    Optional<MethodRequest> asked(ClientId id) {
        return repository.asked(id);
    }

    /** The address of its page. */
    String page(MethodRequest r) {
        return settings.publicUrl() + "/p/" + r.token();
    }

    /**
     * Asks a client; asked already, it is the same request, and no second letter goes.
     *
     * @return whether a letter goes: a client without an address is shown the page otherwise
     * @throws ConflictException where no card or mandate can be kept
     */
    @Transactional
    public boolean ask(ClientId id) {
        clients.lock(id);
        ways.keeping(id)
                .orElseThrow(() ->
                        new ConflictException("No card processor takes money, so no card or mandate can be kept."));
        if (!methods.setting().offered()) {
            throw new ConflictException("Cards and mandates are not kept. Switch that on among your ways to pay.");
        }
        Client client = clients.client(id);
        MethodRequest r = repository.asked(id).orElseGet(() -> {
            long made = repository.insert(
                    new MethodRequest(0, id, RandomText.of(BYTES), State.ASKED, clock.today(), null, null, null));
            happenings.tell(null, id, "Asked for a card or mandate to keep");
            return repository.find(made).orElseThrow();
        });
        return letters.ask(r.id(), client, page(r));
    }

    /** Asks no more. @throws NotFoundException for what this client is not asked by */
    @Transactional
    public void withdraw(ClientId of, long id) {
        MethodRequest r = repository
                .find(id)
                .filter(one -> one.clientId().equals(of))
                .orElseThrow(() -> new NotFoundException("Nothing such is asked for."));
        clients.lock(r.clientId());
        if (repository.end(id, State.WITHDRAWN, null) == 1) {
            letters.withdrawn(id);
            happenings.tell(null, r.clientId(), "No longer asked for a card or mandate");
        }
    }
}
