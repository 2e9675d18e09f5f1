package quill.server.chasing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.reminder.ReminderPlan;
import quill.core.reminder.ReminderPlan.TypedPlan;
import quill.core.reminder.ReminderPlan.TypedStep;
import quill.core.reminder.ReminderStep;
import quill.server.audit.Happenings;
import quill.server.chasing.NamedPlanRepository.Chosen;
import quill.server.chasing.NamedPlanRepository.Named;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.common.Texts;
import quill.server.documents.Document;
import quill.server.documents.Documents;

/**
 * Plans under names, and which of them holds for a client or a document: the document's own choice, else its client's,
 * else the business's plan. Each choice counts from the day it was made, so that it writes to nobody about the past.
 */
@Service
public class NamedPlans {
    private static final int LONGEST_NAME = 80;
    private static final int MOST = 50;
    private final NamedPlanRepository repository;
    private final ReminderPlans plans;
    private final ChasingRepository chasing;
    private final ClientsService clients;
    private final Documents documents;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;

    NamedPlans(
            NamedPlanRepository repository,
            ReminderPlans plans,
            ChasingRepository chasing,
            ClientsService clients,
            Documents documents,
            Happenings happenings,
            Changes changes,
            BusinessClock clock) {
        this.repository = repository;
        this.plans = plans;
        this.chasing = chasing;
        this.clients = clients;
        this.documents = documents;
        this.happenings = happenings;
        this.changes = changes;
        this.clock = clock;
    }

    /** A plan under a name. @param uses by how many clients and documents */
    public record NamedPlan(long id, String name, List<TypedStep> steps, int version, int uses) {}

    /** All, by name. */
    public List<NamedPlan> all() {
        Map<Long, Integer> uses = repository.uses();
        return repository.all().stream()
                .map(p -> new NamedPlan(p.id(), p.name(), p.steps(), p.version(), uses.getOrDefault(p.id(), 0)))
                .toList();
    }

    /** Makes one. @throws RefusedException with every field that is wrong */
    @Transactional
    public NamedPlan make(String name, List<TypedStep> steps) {
        if (repository.all().size() >= MOST) {
            throw new RefusedException("name", name, "at most " + MOST + " plans");
        }
        Typed typed = read(name, steps);
        long id = repository.insert(typed.name(), typed.steps(), clock.today()).orElseThrow(() -> taken(name));
        happenings.tell(null, null, "Reminder plan “" + typed.name() + "” made");
        return one(id);
    }

    /**
     * Changes one; steps that fell before today lapse.
     *
     * @throws RefusedException with every field that is wrong
     * @throws ConflictException if another window changed it first
     */
    @Transactional
    public NamedPlan change(long id, String name, List<TypedStep> steps, int version) {
        stored(id);
        Typed typed = read(name, steps);
        int rows = repository
                .update(new Named(id, typed.name(), typed.steps(), clock.today(), version))
                .orElseThrow(() -> taken(name));
        if (rows != 1) {
            throw new ConflictException("This plan was changed in another window. Look at it again.");
        }
        happenings.tell(null, null, "Reminder plan “" + typed.name() + "” changed");
        chasing.lookAtAll();
        changes.say(null, null);
        return one(id);
    }

    /** Deletes one that nobody uses. @throws ConflictException for one in use */
    @Transactional
    public void delete(long id, int version) {
        Named plan = stored(id);
        int uses = repository.uses().getOrDefault(id, 0);
        if (uses > 0) {
            throw new ConflictException("“" + plan.name() + "” is used by " + uses
                    + (uses == 1 ? " client or document." : " clients and documents.") + " Choose another for "
                    + (uses == 1 ? "it" : "them") + " first.");
        }
        if (repository.delete(id, version) != 1) {
            throw new ConflictException("This plan was changed in another window. Look at it again.");
        }
        happenings.tell(null, null, "Reminder plan “" + plan.name() + "” deleted");
    }

    private NamedPlan one(long id) {
        return all().stream().filter(p -> p.id() == id).findFirst().orElseThrow();
    }

    private Named stored(long id) {
        return repository.find(id).orElseThrow(() -> new NotFoundException("There is no reminder plan " + id + "."));
    }

    private static RefusedException taken(String name) {
        return new RefusedException("name", name, "another plan is called so");
    }

    private record Typed(String name, List<TypedStep> steps) {}

    private Typed read(String name, List<TypedStep> steps) {
        List<Problem> problems = new ArrayList<>();
        String plain = Texts.name("name", name, LONGEST_NAME, true, problems);
        ReminderPlan plan = steps(steps, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return new Typed(plain, plan.typedSteps());
    }

    private ReminderPlan steps(List<TypedStep> typed, List<Problem> problems) {
        return ReminderPlan.read(new TypedPlan(typed, true, "09:00", false, ""), clock.today(), problems);
    }

    /** By which plan a client is reminded. */
    public PlanChoice ofClient(ClientId id) {
        return choice(repository.ofClients(List.of(id)).get(id));
    }

    /** By which plan a document is reminded of. */
    public PlanChoice ofDocument(DocumentId id) {
        return choice(repository.ofDocuments(List.of(id)).get(id));
    }

    private static PlanChoice choice(Chosen chosen) {
        if (chosen == null) {
            return PlanChoice.USUAL;
        }
        return chosen.plan() == null
                ? new PlanChoice(PlanChoice.Use.NONE, null)
                : new PlanChoice(PlanChoice.Use.NAMED, chosen.plan());
    }

    /** Chooses for a client, from today on. */
    @Transactional
    public void chooseForClient(ClientId id, PlanChoice choice) {
        clients.lock(id);
        String words = words(choice, "the business’s");
        repository.chooseForClient(id, choice, clock.today());
        chasing.lookAt(id);
        happenings.tell(null, id, "Reminder plan: " + words);
    }

    /** Chooses for a document, from today on; it may be a draft. */
    @Transactional
    public void chooseForDocument(DocumentId id, PlanChoice choice) {
        Document document =
                documents.find(id).orElseThrow(() -> new NotFoundException("There is no document " + id + "."));
        if (document.clientId() != null) {
            clients.lock(document.clientId());
            chasing.lookAt(document.clientId());
        }
        String words = words(choice, "its client’s");
        repository.chooseForDocument(id, choice, clock.today());
        happenings.tell(id, document.clientId(), "Reminder plan: " + words);
    }

    private String words(PlanChoice choice, String usual) {
        if (choice == null || choice.use() == null) {
            throw new RefusedException("use", null, "must be USUAL, NAMED or NONE");
        }
        return switch (choice.use()) {
            case USUAL -> usual;
            case NONE -> "none";
            case NAMED -> {
                if (choice.plan() == null) {
                    throw new RefusedException("plan", null, "say which plan");
                }
                yield repository
                        .find(choice.plan())
                        .orElseThrow(() -> new RefusedException("plan", choice.plan(), "must be one of the plans"))
                        .name();
            }
        };
    }

    /** Which plan holds for each document of some clients; null for the business's, whose hour and days off hold for all. */
    BiFunction<ClientId, DocumentId, ReminderPlan> holding(
            Collection<ClientId> clientIds, Collection<DocumentId> documentIds) {
        Map<ClientId, Chosen> byClient = repository.ofClients(clientIds);
        Map<DocumentId, Chosen> byDocument = repository.ofDocuments(documentIds);
        if (byClient.isEmpty() && byDocument.isEmpty()) {
            return (client, document) -> null;
        }
        ReminderPlan usual = plans.rules().plan();
        Map<Long, Held> named = repository.all().stream().collect(Collectors.toMap(Named::id, this::held));
        return (client, document) -> {
            Chosen chosen = byDocument.getOrDefault(document, byClient.get(client));
            return chosen == null ? null : plan(usual, chosen, named.get(chosen.plan()));
        };
    }

    /** A plan's steps, read. @param since the day from which they hold */
    private record Held(List<ReminderStep> steps, LocalDate since) {}

    private Held held(Named plan) {
        return new Held(steps(plan.steps(), new ArrayList<>()).steps(), plan.since());
    }

    private static ReminderPlan plan(ReminderPlan usual, Chosen chosen, Held named) {
        if (named == null) {
            return usual.with(List.of(), chosen.since());
        }
        LocalDate since = chosen.since().isAfter(named.since()) ? chosen.since() : named.since();
        return usual.with(named.steps(), since);
    }

    /** The soonest of the last steps of all plans, in days; empty where none has a step. */
    OptionalInt lastSteps(ReminderPlan usual) {
        return Stream.concat(Stream.of(usual.steps()), repository.all().stream().map(p -> held(p).steps()))
                .filter(s -> !s.isEmpty())
                .mapToInt(s -> s.get(s.size() - 1).days())
                .min();
    }

    /** The plan that holds for a document, and what it is called. */
    ReminderPlan holdingFor(Document document) {
        ClientId client = document.clientId();
        ReminderPlan own = holding(client == null ? List.of() : List.of(client), List.of(document.id()))
                .apply(client, document.id());
        return own == null ? plans.rules().plan() : own;
    }

    /** What the plan that holds for a document is called. */
    String calledFor(Document document) {
        PlanChoice own = ofDocument(document.id());
        PlanChoice choice =
                own.use() == PlanChoice.Use.USUAL && document.clientId() != null ? ofClient(document.clientId()) : own;
        return switch (choice.use()) {
            case USUAL -> "the business’s plan";
            case NONE -> "no plan";
            case NAMED -> stored(choice.plan()).name();
        };
    }
}
