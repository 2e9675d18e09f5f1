package quill.server.debts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import org.joda.money.Money;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Why;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.DebtKind;
import quill.core.ledger.OpenDebt;
import quill.core.schedule.Due;
import quill.core.schedule.Installment;
import quill.core.schedule.Rearranging;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Json;
import quill.server.common.NotFoundException;
import quill.server.common.Texts;

/**
 * What was agreed of debts, and is agreed anew: another day, another amount, a milestone reached. What was agreed before
 * stays on record. Every method expects the client to be locked by the caller's transaction.
 */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class AgreedTerms {
    private final DebtRepository debts;
    private final DebtTermRepository terms;
    private final MilestoneRepository milestones;
    private final BusinessClock clock;
    private final Json json;
    private final ApplicationEventPublisher publisher;

    AgreedTerms(
            DebtRepository debts,
            DebtTermRepository terms,
            MilestoneRepository milestones,
            BusinessClock clock,
            Json json,
            ApplicationEventPublisher publisher) {
        this.debts = debts;
        this.terms = terms;
        this.milestones = milestones;
        this.clock = clock;
        this.json = json;
        this.publisher = publisher;
    }

    /** Told within the transaction that agrees debts anew: what counts from their due dates counts anew. */
    public record AgreedAnew(DocumentId documentId, ClientId clientId, List<Long> debtIds) {}

    /** Whose debts, and on what. */
    public record Owner(ClientId clientId, DocumentId documentId, String number) {}

    /** A milestone that installments wait for. @param reachedOn null until then @param undoable whether nothing was paid since */
    public record Milestone(long id, DocumentId documentId, String name, LocalDate reachedOn, boolean undoable) {}

    /** What was agreed of an installment before. @param until the day on which that was agreed anew */
    public record Earlier(int position, Money amount, LocalDate dueOn, LocalDate from, LocalDate until) {}

    /** Keeps a schedule that was rearranged. */
    public void rearrange(Owner owner, List<Rearranging.Change> changes) {
        List<Long> ids = new ArrayList<>();
        for (Rearranging.Change change : changes) {
            if (change instanceof Rearranging.Change.Kept kept) {
                DebtRepository.Awaited awaited =
                        milestones.awaited(owner.documentId(), kept.then().due());
                terms.agree(kept.debt(), kept.amount(), kept.then().dueOn(), awaited);
                keep(
                        kept.debt(),
                        kept.amount(),
                        kept.then().dueOn(),
                        kept.then().why());
                ids.add(kept.debt());
            } else if (change instanceof Rearranging.Change.Added added) {
                ids.add(add(owner, added.then()));
            } else if (change instanceof Rearranging.Change.Ended ended) {
                end(ended);
                ids.add(ended.debt());
            }
        }
        publisher.publishEvent(new AgreedAnew(owner.documentId(), owner.clientId(), ids));
        publisher.publishEvent(new Debts.DebtsChanged(owner.documentId(), owner.clientId()));
    }

    private long add(Owner owner, Installment then) {
        DebtRepository.New debt = new DebtRepository.New(
                owner.clientId(),
                owner.documentId(),
                owner.number(),
                DebtKind.INSTALLMENT,
                null,
                then.amount(),
                then.dueOn(),
                OpenDebt.orderOf(then.dueOn()),
                "",
                json.write(then.why()),
                milestones.awaited(owner.documentId(), then.due()));
        return debts.insert(debt, terms.nextPlace(owner.documentId()), clock.today());
    }

    private void end(Rearranging.Change.Ended ended) {
        if (ended.amount().isZero()) {
            terms.replace(ended.debt(), clock.today());
        } else {
            terms.cut(ended.debt(), ended.amount(), clock.today());
            keep(ended.debt(), ended.amount(), null, Why.of("what was paid on it; the rest was rearranged"));
        }
    }

    private void keep(long debt, Money amount, LocalDate dueOn, Why why) {
        terms.note(debt, clock.today(), dueOn, amount, json.write(why));
    }

    /** A document's milestones, in the order in which they were named. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public List<Milestone> milestones(DocumentId documentId) {
        return milestones.of(documentId).stream().map(this::milestone).toList();
    }

    /** The next milestone of each document of which nothing with a day is open any more. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public List<Milestone> next() {
        return milestones.next().stream().map(this::milestone).toList();
    }

    private Milestone milestone(MilestoneRepository.Row row) {
        boolean undoable = row.reachedOn() != null
                && milestones.waiting(row.id()).stream().noneMatch(MilestoneRepository.Waiting::touched);
        return new Milestone(row.id(), row.documentId(), row.name(), row.reachedOn(), undoable);
    }

    /** @throws NotFoundException if there is none of that id */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Milestone milestone(long id) {
        return milestones
                .find(id)
                .map(this::milestone)
                .orElseThrow(() -> new NotFoundException("There is no milestone " + id + "."));
    }

    /**
     * The work has reached a milestone: the days of what waits for it count from then.
     *
     * @throws ConflictException if it was reached already
     */
    public void reach(Owner owner, Milestone milestone, LocalDate on) {
        if (!milestones.reach(milestone.id(), on)) {
            throw new ConflictException("“" + milestone.name() + "” was marked as reached already.");
        }
        date(owner, milestone, on);
    }

    /**
     * It was not reached after all.
     *
     * @throws ConflictException once anything was paid, credited or charged on what waits for it
     */
    public void unreach(Owner owner, Milestone milestone) {
        if (!milestone.undoable()) {
            throw new ConflictException(
                    milestone.reachedOn() == null
                            ? "“" + milestone.name() + "” is not marked as reached."
                            : "Something was paid, credited or charged on what was due at “" + milestone.name()
                                    + "”; it stays reached.");
        }
        milestones.unreach(milestone.id());
        date(owner, milestone, null);
    }

    private void date(Owner owner, Milestone milestone, LocalDate on) {
        List<Long> ids = new ArrayList<>();
        for (MilestoneRepository.Waiting waiting : milestones.waiting(milestone.id())) {
            LocalDate due = on == null ? null : on.plusDays(waiting.days());
            Why why = on == null
                    ? Why.of("the milestone was not reached after all")
                    : Why.of("the milestone “" + milestone.name() + "” was reached on " + Texts.day(on));
            terms.date(waiting.debtId(), due);
            terms.noteDate(waiting.debtId(), clock.today(), due, json.write(why));
            ids.add(waiting.debtId());
        }
        publisher.publishEvent(new AgreedAnew(owner.documentId(), owner.clientId(), ids));
        publisher.publishEvent(new Debts.DebtsChanged(owner.documentId(), owner.clientId()));
    }

    /** For what the debts of a document wait that have no day yet. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Map<Long, Due> waitsOf(DocumentId documentId) {
        return milestones.waitsOf(documentId);
    }

    /** What was agreed of a document's installments before, in their order and oldest first. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public List<Earlier> earlier(DocumentId documentId) {
        return terms.earlier(documentId);
    }

    /** The day on which debts were last agreed anew; those that stand as first agreed are not in it. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Map<Long, LocalDate> agreedAnewOn(Collection<Long> debtIds) {
        return debtIds.isEmpty() ? Map.of() : terms.agreedAnewOn(debtIds);
    }
}
