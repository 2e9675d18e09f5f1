package quill.server.clients;

import java.sql.Connection;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;

/** Clients: found, made, changed; and locked by whoever moves their money. */
@Service
public class ClientsService {
    private final ClientRepository repository;
    private final BusinessClock clock;

    ClientsService(ClientRepository repository, BusinessClock clock) {
        this.repository = repository;
        this.clock = clock;
    }

    /** One client. @throws NotFoundException if there is none of that id */
    public Client client(long id) {
        return repository.find(id).orElseThrow(() -> new NotFoundException("There is no client " + id + "."));
    }

    /** All clients by name. */
    public List<Client> all() {
        return repository.all();
    }

    /** Clients whose name or address has this text, by name; all where it is empty. */
    public List<Client> named(String text) {
        return named(text, Set.of());
    }

    /** The same, and some others that were found by something else. */
    public List<Client> named(String text, Set<Long> others) {
        String plain = text == null ? "" : text.strip().toLowerCase(java.util.Locale.ROOT);
        return plain.isEmpty()
                ? all()
                : all().stream()
                        .filter(c -> others.contains(c.id())
                                || (c.name() + " " + c.email())
                                        .toLowerCase(java.util.Locale.ROOT)
                                        .contains(plain))
                        .toList();
    }

    /** How many there are. */
    public int count() {
        return repository.count();
    }

    /** Several clients by id. */
    public Map<Long, Client> some(Collection<Long> ids) {
        return ids.isEmpty() ? Map.of() : repository.some(ids).stream().collect(Collectors.toMap(Client::id, c -> c));
    }

    /** Makes one. */
    @Transactional
    public Client make(Client client) {
        return client(repository.insert(client.checked(null, clock.today())));
    }

    /** Changes one. @throws ConflictException if another window changed it first */
    @Transactional
    public Client change(Client client) {
        Client before = client(client.id());
        if (repository.update(client.checked(before, clock.today())) != 1) {
            throw new ConflictException("This client was changed in another window. Look at it again.");
        }
        return client(client.id());
    }

    /**
     * Locks a client until the transaction ends: whatever moves a client's money does so one after the other, so that
     * two payments, or a payment and a credit note, never read the same open sum. It is the first lock of all. Only at
     * READ COMMITTED does a reader see, once it has waited, what the other wrote.
     *
     * @throws IllegalStateException within a transaction of another isolation
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public Client lock(long id) {
        Integer isolation = TransactionSynchronizationManager.getCurrentTransactionIsolationLevel();
        if (isolation != null && isolation != Connection.TRANSACTION_READ_COMMITTED) {
            throw new IllegalStateException("a client is locked at READ COMMITTED only, not at level " + isolation);
        }
        return repository.lock(id).orElseThrow(() -> new NotFoundException("There is no client " + id + "."));
    }
}
