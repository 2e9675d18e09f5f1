package quill.server.collections;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.TypedDate;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.core.pay.PayingLater;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.collections.PlannedPayment.State;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.documents.Document;
import quill.server.invoices.Plans;
import quill.server.savedmethods.SavedMethod;
import quill.server.savedmethods.SavedMethods;

/**
 * What clients want to have taken on a day to come, from what is kept of them. Until then nobody is reminded of it, nor fined. It
 * ends where what it is for is paid otherwise, or where what it would be taken from is removed.
 */
@Service
@Transactional
public class PlannedPayments {
    private final PlannedRepository repository;
    private final SavedMethods methods;
    private final Debts debts;
    private final Plans plans;
    private final ClientsService clients;
    private final Happenings happenings;
    private final BusinessClock clock;

    PlannedPayments(
            PlannedRepository repository,
            SavedMethods methods,
            Debts debts,
            Plans plans,
            ClientsService clients,
            Happenings happenings,
            BusinessClock clock) {
        this.repository = repository;
        this.methods = methods;
        this.debts = debts;
        this.plans = plans;
        this.clients = clients;
        this.happenings = happenings;
        this.clock = clock;
    }

    /** The days that can be chosen for these installments. @throws ConflictException where clients cannot plan */
    PayingLater days(List<StoredInstallment> parts) {
        int days = methods.setting().laterDays();
        if (days == 0) {
            throw new ConflictException("Nothing can be planned for later on this page.");
        }
        LocalDate due = parts.stream()
                .map(StoredInstallment::dueOn)
                .filter(d -> d != null)
                .max(LocalDate::compareTo)
                .orElse(null);
        return new PayingLater(clock.today(), due, days);
    }

    /** What is open of these. @throws RefusedException naming {@code installments} */
    List<StoredInstallment> open(Document invoice, Collection<Long> installments) {
        List<StoredInstallment> all = debts.of(invoice.id()).stream()
                .filter(d -> d.open().isPositive())
                .toList();
        List<StoredInstallment> open = installments == null || installments.isEmpty()
                ? all
                : all.stream().filter(d -> installments.contains(d.id())).toList();
        if (open.isEmpty()
                || installments != null
                        && open.size() < Set.copyOf(installments).size()) {
            throw new RefusedException("installments", installments, "nothing of this is open any more");
        }
        return open;
    }

    /**
     * Plans what is open of these installments for a day.
     *
     * @param shown the sum that the client saw
     * @param on as typed
     * @return its id
     * @throws RefusedException naming {@code on}, with what is allowed
     * @throws ConflictException where something else is open by now, or is planned already
     */
    long plan(Document invoice, List<Long> installments, Money shown, SavedMethod from, String on) {
        clients.lock(invoice.clientId());
        plans.checkAccepted(invoice);
        List<StoredInstallment> parts = open(invoice, installments);
        Money sum = Amounts.sum(
                shown.getCurrencyUnit(),
                parts.stream().map(StoredInstallment::open).toList());
        if (!sum.isEqual(shown)) {
            throw new ConflictException("What is open has changed: it is " + Shown.money(sum) + " now. Look again.");
        }
        List<Problem> problems = new ArrayList<>();
        LocalDate day = TypedDate.read("on", on, problems);
        if (day == null && problems.isEmpty()) {
            problems.add(new Problem("on", "", "choose a day"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        days(parts).check(day);
        if (from.with().expires() != null && from.with().expires().isOver(day)) {
            throw new RefusedException(
                    "on",
                    on,
                    "must be up to " + Texts.day(from.with().expires().lastDay()) + ", when this card expires");
        }
        Map<Long, Money> wanted =
                parts.stream().collect(Collectors.toMap(StoredInstallment::id, StoredInstallment::open));
        for (PlannedPayment p : repository.ofDocument(invoice.id())) {
            if (p.parts().keySet().stream().anyMatch(wanted::containsKey)) {
                throw new ConflictException(Shown.money(p.amount()) + " is planned for " + Texts.day(p.on())
                        + " already. Take that back first.");
            }
        }
        long id = repository.insert(
                new PlannedPayment(
                        0,
                        invoice.id(),
                        invoice.clientId(),
                        from.id(),
                        sum,
                        new TreeMap<>(wanted),
                        day,
                        State.PLANNED,
                        ""),
                clock.today());
        happenings.tell(
                invoice.id(),
                invoice.clientId(),
                "Planned for " + Texts.day(day) + ": " + Shown.money(sum) + " from "
                        + from.with().words());
        return id;
    }

    /** Takes one back. @throws ConflictException from its day on @throws NotFoundException for one of another document */
    void takeBack(DocumentId document, long id) {
        PlannedPayment p = repository
                .find(id)
                .filter(one -> one.documentId().equals(document))
                .orElseThrow(() -> new NotFoundException("Nothing such is planned."));
        clients.lock(p.clientId());
        if (!PayingLater.canBeTakenBack(p.on(), clock.today())) {
            throw new ConflictException("Its day has come; it could be taken back until the day before.");
        }
        end(p, "taken back");
    }

    private void end(PlannedPayment p, String why) {
        if (repository.end(p.id(), State.OVER, why) == 1) {
            happenings.tell(
                    p.documentId(),
                    p.clientId(),
                    "No longer planned for " + Texts.day(p.on()) + ": " + Shown.money(p.amount()) + " (" + why + ")");
        }
    }

    @EventListener
    void removed(SavedMethods.Removed removed) {
        repository.withMethod(removed.id()).forEach(p -> end(p, "what it was to be taken from is not kept any more"));
    }

    /** What it was for is paid otherwise, credited or arranged anew. */
    @EventListener
    void debtsChanged(Debts.DebtsChanged change) {
        List<PlannedPayment> planned = repository.ofDocument(change.invoiceId());
        if (!planned.isEmpty()) {
            Map<Long, Money> open = debts.of(change.invoiceId()).stream()
                    .collect(Collectors.toMap(StoredInstallment::id, StoredInstallment::open));
            planned.stream()
                    .filter(p -> p.parts().entrySet().stream()
                            .anyMatch(part -> !open.containsKey(part.getKey())
                                    || !open.get(part.getKey()).isEqual(part.getValue())))
                    .forEach(p -> end(p, "something else is open by now"));
        }
    }

    @EventListener
    void debtsLeave(Debts.DebtsLeaving leaving) {
        repository.ofDocument(leaving.invoiceId()).forEach(p -> end(p, "what it was for is asked for no more"));
    }

    /** What is planned of each debt of some clients. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Map<Long, Money> inTransit(Collection<ClientId> clientIds) {
        return repository.byDebt(clientIds);
    }

    List<PlannedPayment> ofDocument(DocumentId id) {
        return repository.ofDocument(id);
    }

    List<PlannedPayment> ofClient(ClientId id) {
        return repository.ofClient(id);
    }

    /** Those in a state, whichever comes first at the top. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public List<PlannedPayment> all(State state) {
        return repository.all(state);
    }

    /** One. @throws NotFoundException where there is none */
    @Transactional(propagation = Propagation.SUPPORTS)
    public PlannedPayment find(long id) {
        return repository.find(id).orElseThrow(() -> new NotFoundException("Nothing such is planned."));
    }

    /** What it is to be taken from, in words. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public String from(PlannedPayment p) {
        return methods.find(p.methodId()).with().words();
    }

    List<PlannedPayment> due() {
        return repository.due(clock.today());
    }

    void taken(long id) {
        repository.taken(id);
    }

    void failed(PlannedPayment p, String why) {
        if (repository.end(p.id(), State.FAILED, Texts.fit(why, 300)) == 1) {
            happenings.tell(
                    p.documentId(),
                    p.clientId(),
                    "Planned for " + Texts.day(p.on()) + ", and not taken: " + Shown.money(p.amount()) + ". " + why);
        }
    }

    void seen(long id) {
        repository.seen(id);
    }
}
