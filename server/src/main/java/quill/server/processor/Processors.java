package quill.server.processor;

import jakarta.annotation.PostConstruct;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import quill.server.QuillSettings;
import quill.server.processor.ProcessorRepository.Stored;

/**
 * The card processors that are set up. One of them may stand in the settings file, with its credentials; where the file
 * names none any more, that one is as good as absent.
 */
@Service
public class Processors {
    /** Where processors send their events, with a key of each at its end. */
    public static final String EVENTS = "/api/hooks/processor";

    private static final String OF_THE_FILE = "settings";
    private final ProcessorRepository repository;
    private final List<ProcessorAdapter> adapters;
    private final Sealing sealing;
    private final QuillSettings.Processor file;
    private final TransactionTemplate transaction;
    private final Map<String, CardProcessor> connections = new ConcurrentHashMap<>();

    Processors(
            ProcessorRepository repository,
            List<ProcessorAdapter> adapters,
            Sealing sealing,
            QuillSettings settings,
            TransactionTemplate transaction) {
        this.repository = repository;
        this.adapters = adapters;
        this.sealing = sealing;
        this.file = settings.processor();
        this.transaction = transaction;
    }

    /** The one of the settings file is there from the first start on: for money, as whoever wrote it there wants. */
    @PostConstruct
    void takeOver() {
        transaction.executeWithoutResult(s -> {
            if (file.isSet() && repository.all().stream().noneMatch(Stored::fromSettings)) {
                repository.insert(new Stored(
                        0, "The counting house", CountingHouse.KIND, ProcessorMode.ON, OF_THE_FILE, true, null, "", 0));
            }
        });
    }

    /** One that is set up. @param missing why it takes no money; empty where it does */
    public record SetUp(long id, String name, ProcessorMode mode, String missing) {
        /** Whether it takes payments on trial, and nothing else. */
        public boolean isTest() {
            return mode == ProcessorMode.TEST;
        }
    }

    /** The ids of all of them, in the order in which they were set up. */
    public List<Long> ids() {
        return kept().stream().map(Stored::id).toList();
    }

    List<Stored> kept() {
        return repository.all().stream()
                .filter(s -> !s.fromSettings() || file.isSet())
                .toList();
    }

    Optional<Stored> kept(long id) {
        return kept().stream().filter(s -> s.id() == id).findFirst();
    }

    private SetUp setUp(Stored s) {
        String missing = credentials(s).isEmpty()
                ? "the credentials of " + s.name() + " cannot be read"
                : switch (s.mode()) {
                    case OFF -> s.name() + ", which takes cards, is switched off";
                    case TEST -> s.name() + ", which takes cards, is only being tested";
                    case ON -> "";
                };
        return new SetUp(s.id(), s.name(), s.mode(), missing);
    }

    /**
     * The one through which a way goes: the one that it names; else the first that is on, else the first that is tested,
     * else the first. Empty where none is set up.
     *
     * @param named its id as typed; empty for none
     */
    public Optional<SetUp> through(String named) {
        List<Stored> all = kept();
        return all.stream()
                .filter(p -> String.valueOf(p.id()).equals(named))
                .findFirst()
                .or(() -> first(all, ProcessorMode.ON))
                .or(() -> first(all, ProcessorMode.TEST))
                .or(() -> all.stream().findFirst())
                .map(this::setUp);
    }

    private static Optional<Stored> first(List<Stored> all, ProcessorMode mode) {
        return all.stream().filter(p -> p.mode() == mode).findFirst();
    }

    /** Those that are being tested. */
    public Set<Long> inTest() {
        return kept().stream()
                .filter(p -> p.mode() == ProcessorMode.TEST)
                .map(Stored::id)
                .collect(Collectors.toSet());
    }

    /**
     * One to ask.
     *
     * @throws CardProcessor.NoAnswer if it is set up no more, or its credentials cannot be read
     */
    public CardProcessor connect(long id, boolean test) {
        Stored stored =
                kept(id).orElseThrow(() -> new CardProcessor.NoAnswer("processor " + id + " is not set up", null));
        Credentials credentials = credentials(stored)
                .orElseThrow(() -> new CardProcessor.NoAnswer("its credentials cannot be read", null));
        return connections.computeIfAbsent(
                id + " " + stored.version() + " " + test,
                key -> adapter(stored.kind()).connect(credentials, test));
    }

    /** How a processor is used from now on: orders that were opened otherwise are withdrawn. */
    public record Switched(long processor, ProcessorMode mode) {}

    /** An event, with the processor that it is from. */
    public record Heard(long processor, ProcessorAdapter.Heard event) {}

    /** Reads an event that came to the address with this end; empty where nobody of ours sent it. */
    public Optional<Heard> heard(String hookKey, ProcessorAdapter.Event event) {
        return kept().stream()
                .filter(s -> s.hookKey().equals(hookKey))
                .findFirst()
                .flatMap(s -> credentials(s)
                        .flatMap(c -> adapter(s.kind()).heard(c, event))
                        .map(h -> new Heard(s.id(), h)));
    }

    List<ProcessorAdapter> adapters() {
        return adapters;
    }

    ProcessorAdapter adapter(String kind) {
        return adapters.stream()
                .filter(a -> a.kind().equals(kind))
                .findFirst()
                .orElseThrow(() -> new IllegalStateException("no adapter for " + kind));
    }

    Optional<Credentials> credentials(Stored s) {
        if (s.fromSettings()) {
            return Optional.of(new Credentials(Map.of(
                    CountingHouse.ADDRESS, file.url(),
                    CountingHouse.API_KEY, file.apiKey(),
                    CountingHouse.EVENT_SECRET, file.webhookSecret())));
        }
        return sealing.open(s.sealed());
    }
}
