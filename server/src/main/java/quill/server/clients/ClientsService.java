package quill.server.clients;

import java.sql.Connection;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.server.audit.Happenings;
import quill.server.business.KeptSchedules;
import quill.server.clients.ClientRepository.Stored;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ClientRows;
import quill.server.common.ConflictException;
import quill.server.common.Findable;
import quill.server.common.NotFoundException;

/** Clients: found, made, changed, merged; and locked by whoever moves their money. */
@Service
public class ClientsService {
    private static final String CHANGED = "This client was changed in another window. Look at it again.";
    private static final Pattern BETWEEN_DIGITS = Pattern.compile("[\\s()/.+-]");
    private final ClientRepository repository;
    private final Happenings happenings;
    private final List<ClientRows> rows;
    private final ApplicationEventPublisher publisher;
    private final KeptSchedules schedules;
    private final Changes changes;
    private final BusinessClock clock;

    ClientsService(
            ClientRepository repository,
            Happenings happenings,
            List<ClientRows> rows,
            ApplicationEventPublisher publisher,
            KeptSchedules schedules,
            Changes changes,
            BusinessClock clock) {
        this.repository = repository;
        this.happenings = happenings;
        this.rows = rows;
        this.publisher = publisher;
        this.schedules = schedules;
        this.changes = changes;
        this.clock = clock;
    }

    /** One client; for one that was merged into another, that one. @throws NotFoundException if there is none of that id */
    public Client client(ClientId id) {
        Stored stored = stored(id);
        return stored.mergedInto() == null
                ? stored.client()
                : stored(stored.mergedInto()).client();
    }

    /** The name of each, by id; one that was merged into another has its own still. */
    public Map<ClientId, String> names() {
        return repository.names();
    }

    private Stored stored(ClientId id) {
        named(id);
        return repository.find(id).orElseThrow(() -> new NotFoundException("There is no client " + id + "."));
    }

    /** What asks for a client has to name one. */
    private static void named(ClientId id) {
        if (id == null) {
            throw new RefusedException("clientId", "", "say which client");
        }
    }

    /** Whether it is archived. */
    public boolean isArchived(ClientId id) {
        return stored(id).archived();
    }

    /** All clients by name, the archived ones too. */
    public List<Client> all() {
        return repository.all().stream().map(Stored::client).toList();
    }

    /** Clients not archived that have this text in any part of what is known of them, by name; all where it is empty. */
    public List<Client> named(String text) {
        return named(text, Set.of(), false);
    }

    /** The same, and some others that were found by something else. @param archived those that are archived instead */
    public List<Client> named(String text, Set<ClientId> others, boolean archived) {
        String plain = text == null ? "" : text.strip().toLowerCase(Locale.ROOT);
        Optional<String> digits = digits(plain);
        return repository.all().stream()
                .filter(s -> s.archived() == archived)
                .map(Stored::client)
                .filter(c -> plain.isEmpty()
                        || others.contains(c.id())
                        || c.searchable().contains(plain)
                        || digits.filter(d -> BETWEEN_DIGITS
                                        .matcher(c.searchable())
                                        .replaceAll("")
                                        .contains(d))
                                .isPresent())
                .toList();
    }

    /** A telephone number is found however its digits are set apart; empty for what is none. */
    private static Optional<String> digits(String plain) {
        String digits = BETWEEN_DIGITS.matcher(plain).replaceAll("");
        return digits.length() > 3 && digits.chars().allMatch(Character::isDigit)
                ? Optional.of(digits)
                : Optional.empty();
    }

    LocalDate today() {
        return clock.today();
    }

    /** How many there are. */
    public int count() {
        return repository.count();
    }

    /** Several clients by id. */
    public Map<ClientId, Client> some(Collection<ClientId> ids) {
        return ids.isEmpty()
                ? Map.of()
                : repository.some(ids).stream().map(Stored::client).collect(Collectors.toMap(Client::id, c -> c));
    }

    private Client checked(Client client, Client before) {
        Client plain = client.checked(before, clock.today());
        Long schedule = plain.more().schedule();
        if (schedule != null && schedules.all().stream().noneMatch(s -> s.id() == schedule)) {
            throw new RefusedException("more.schedule", String.valueOf(schedule), "must be one of the kept schedules");
        }
        return plain;
    }

    /** Whoever has this address of e-mail, in whatever case; one that is not archived before one that is, the oldest first. */
    public Optional<Client> byEmail(String email) {
        return repository.all().stream()
                .filter(s -> s.mergedInto() == null && s.client().email().equalsIgnoreCase(email))
                .min(Comparator.comparing(Stored::archived)
                        .thenComparing(s -> s.client().id().value()))
                .map(Stored::client);
    }

    /** Makes one. */
    @Transactional
    public Client make(Client client) {
        ClientId id = repository.insert(checked(client, null));
        changes.touch(Findable.CLIENT, id.value());
        return client(id);
    }

    /** Told within the transaction that gives a client another name, for what keeps names beside its own rows. */
    public record ClientRenamed(ClientId id, String name) {}

    /** Changes one. @throws ConflictException if another window changed it first */
    @Transactional
    public Client change(Client client) {
        Client before = client(client.id());
        if (repository.update(checked(client, before)) != 1) {
            throw new ConflictException(CHANGED);
        }
        Client after = client(client.id());
        if (!after.name().equals(before.name())) {
            publisher.publishEvent(new ClientRenamed(after.id(), after.name()));
        }
        changes.say(null, client.id());
        changes.touch(Findable.CLIENT, client.id().value());
        return after;
    }

    /** Keeps another address, or another number, with a client; null leaves what is there. */
    @Transactional
    public void keepAddress(ClientId id, String email, String phone) {
        Client before = client(id);
        Client after = email == null ? before : before.withEmail(email);
        change(phone == null ? after : after.with(after.more().withPhone(phone)));
    }

    /** From now on somebody pays for a client, and gets the receipts. */
    @Transactional
    public void setPayer(ClientId id, String name, String email) {
        Client before = client(id);
        List<Contact> contacts = new ArrayList<>();
        boolean known = false;
        for (Contact c : before.more().contacts()) {
            boolean same = c.email().equalsIgnoreCase(email);
            known |= same;
            contacts.add(new Contact(c.name(), c.email(), c.phone(), c.reminders(), same));
        }
        if (!known) {
            contacts.add(new Contact(name.isBlank() ? email : name, email, "", false, true));
        }
        change(before.with(before.more().with(contacts)));
        happenings.tell(null, id, "From now on " + (name.isBlank() ? email : name) + " pays, and gets the receipts");
    }

    /** An address turned out to be wrong: another one stands wherever it stood with this client. */
    @Transactional
    public void mendAddress(ClientId id, String wrong, String right) {
        Client before = client(id);
        List<Contact> contacts = before.more().contacts().stream()
                .map(c -> c.email().equalsIgnoreCase(wrong)
                        ? new Contact(c.name(), right, c.phone(), c.reminders(), c.receipts())
                        : c)
                .toList();
        Client mended = before.with(before.more().with(contacts));
        if (before.email().equalsIgnoreCase(wrong)) {
            mended = mended.withEmail(right);
        }
        change(mended);
    }

    /** Archives one, or brings it back. Whether it owes anything is for the caller to see to. */
    @Transactional
    public void archive(ClientId id, int version, boolean archived) {
        stored(id);
        if (repository.archive(id, version, archived) != 1) {
            throw new ConflictException(CHANGED);
        }
        happenings.tell(null, id, archived ? "Archived" : "Taken out of the archive");
    }

    /** Deletes one for whom nothing was ever written. @throws ConflictException for any other: it is archived instead */
    @Transactional
    public void delete(ClientId id, int version) {
        stored(id);
        happenings.forget(id);
        try {
            if (repository.delete(id, version) != 1) {
                throw new ConflictException(CHANGED);
            }
        } catch (DataIntegrityViolationException e) {
            throw new ConflictException(
                    "Something was written, sent or paid for this client, so it stays in the books. Archive it instead.");
        }
        changes.say(null, null);
        changes.touch(Findable.CLIENT, id.value());
    }

    /**
     * Makes two records of one client into one. What was fixed on paper keeps the name that it was written to; all that
     * is owed, paid and booked stands with the second from now on.
     *
     * @throws RefusedException for a client and itself
     */
    @Transactional
    public Client merge(ClientId from, int fromVersion, ClientId into) {
        if (client(from).id().equals(client(into).id())) {
            throw new RefusedException("into", into, "these are one client already; choose another");
        }
        lockBoth(from, into);
        Client was = client(from);
        if (was.version() != fromVersion) {
            throw new ConflictException(CHANGED);
        }
        String name = client(into).name();
        rows.forEach(r -> r.move(from, into, name));
        repository.merged(from, into);
        happenings.tell(
                null,
                into,
                "Merged: all of " + was.name() + (was.email().isEmpty() ? "" : ", " + was.email())
                        + ", stands here now");
        changes.touch(Findable.CLIENT, from.value());
        changes.touch(Findable.CLIENT, into.value());
        return client(into);
    }

    /**
     * Locks a client until the transaction ends: whatever moves a client's money does so one after the other, so that
     * two payments, or a payment and a credit note, never read the same open sum. It is the first lock of all. Only at
     * READ COMMITTED does a reader see, once it has waited, what the other wrote.
     *
     * @throws ConflictException for one that was merged into another meanwhile
     * @throws IllegalStateException within a transaction of another isolation
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public Client lock(ClientId id) {
        Integer isolation = TransactionSynchronizationManager.getCurrentTransactionIsolationLevel();
        if (isolation != null && isolation != Connection.TRANSACTION_READ_COMMITTED) {
            throw new IllegalStateException("a client is locked at READ COMMITTED only, not at level " + isolation);
        }
        named(id);
        Stored stored = repository.lock(id).orElseThrow(() -> new NotFoundException("There is no client " + id + "."));
        if (stored.mergedInto() != null) {
            throw new ConflictException("This client is now a part of "
                    + stored(stored.mergedInto()).client().name() + ". Look at it there.");
        }
        return stored.client();
    }

    /** Locks two clients, always in the same order; they may be one. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void lockBoth(ClientId one, ClientId other) {
        boolean ordered = one.compareTo(other) < 0;
        lock(ordered ? one : other);
        lock(ordered ? other : one);
    }
}
