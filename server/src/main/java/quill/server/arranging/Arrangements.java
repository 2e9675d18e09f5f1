package quill.server.arranging;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.core.ledger.DebtKind;
import quill.core.money.Amounts;
import quill.core.money.DecimalMark;
import quill.core.quote.InstallmentOffer;
import quill.core.schedule.Due;
import quill.core.schedule.Installment;
import quill.core.schedule.Rearranging;
import quill.core.schedule.ScheduleMaking;
import quill.core.schedule.Term;
import quill.core.schedule.TypedTerm;
import quill.server.audit.Happenings;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.common.TypedMark;
import quill.server.debts.AgreedTerms;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.dispatch.ArrangedLetters;
import quill.server.dispatch.Slip;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;

/** What is still to come of an issued invoice, agreed anew with its client, and milestones that the work reaches. */
@Service
public class Arrangements {
    private final InvoicesService invoices;
    private final Debts debts;
    private final AgreedTerms terms;
    private final ArrangedLetters letters;
    private final ClientsService clients;
    private final Happenings happenings;
    private final BusinessClock clock;

    Arrangements(
            InvoicesService invoices,
            Debts debts,
            AgreedTerms terms,
            ArrangedLetters letters,
            ClientsService clients,
            Happenings happenings,
            BusinessClock clock) {
        this.invoices = invoices;
        this.debts = debts;
        this.terms = terms;
        this.letters = letters;
        this.clients = clients;
        this.happenings = happenings;
        this.clock = clock;
    }

    /**
     * How what is open shall be paid from now on.
     *
     * @param why as typed, for the record; may be empty
     * @param open what was open when it was written, so that nothing else is split; null where nobody looked
     */
    public record Rearrangement(
            List<TypedTerm> schedule,
            String why,
            @Schema(nullable = true) String open) {
        /** Missing terms are none. */
        public Rearrangement {
            schedule = schedule == null ? List.of() : List.copyOf(schedule);
        }
    }

    /** An invoice that is open, with the installments that can be agreed anew. */
    private record Open(Document invoice, List<Rearranging.Standing> installments) {
        private Money sum() {
            return Rearranging.sum(installments);
        }

        private AgreedTerms.Owner owner() {
            return new AgreedTerms.Owner(invoice.clientId(), invoice.id(), invoice.number());
        }
    }

    private Open open(DocumentId id) {
        Document invoice = invoices.invoice(id);
        if (invoice.isDraft() || invoice.voidedOn() != null) {
            throw new ConflictException("Only an issued invoice has installments to rearrange.");
        }
        Map<Long, Due> waits = terms.waitsOf(id);
        List<Rearranging.Standing> installments = debts.of(id).stream()
                .filter(d -> d.kind() == DebtKind.INSTALLMENT && d.open().isPositive())
                .map(d -> new Rearranging.Standing(d.id(), d.amount(), d.open(), d.dueOn(), waits.get(d.id())))
                .toList();
        if (installments.isEmpty()) {
            throw new RefusedException("schedule", "", "no installment is open, so there is nothing to rearrange");
        }
        return new Open(invoice, installments);
    }

    /** What is open of an invoice's installments, and how it would be paid. Stores nothing. */
    @Transactional(readOnly = true)
    public List<Installment> look(DocumentId id, Rearrangement wanted) {
        Open open = open(id);
        return ScheduleMaking.make(open.sum(), clock.today(), read(wanted, open));
    }

    /** What of an invoice's installments can be agreed anew. @param now how it is agreed, to begin from */
    public record ToArrange(Money sum, List<TypedTerm> now) {}

    /** What of an invoice's installments can be agreed anew. @throws RefusedException where none is open */
    @Transactional(readOnly = true)
    public ToArrange toArrange(DocumentId id) {
        Open open = open(id);
        DecimalMark mark = TypedMark.current();
        return new ToArrange(
                open.sum(),
                open.installments().stream()
                        .map(s -> s.typed(clock.today()).typed(mark))
                        .toList());
    }

    private List<Term> read(Rearrangement wanted, Open open) {
        if (wanted.schedule().isEmpty()) {
            throw new RefusedException("schedule", "", "say in which installments it is to be paid");
        }
        DecimalMark mark = TypedMark.current();
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit currency = open.sum().getCurrencyUnit();
        List<TypedTerm> typed =
                wanted.schedule().stream().map(t -> t.plain(mark)).toList();
        List<Term> read = Term.readAll(typed, currency, clock.today(), problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return read;
    }

    /**
     * Rearranges what is open, and tells the client.
     *
     * @return the letter's key; null where the client has no address
     * @throws ConflictException if something else is open by now than what was looked at
     */
    @Transactional
    public String rearrange(DocumentId id, Rearrangement wanted, Slip slip) {
        clients.lock(open(id).invoice().clientId());
        Open open = open(id);
        if (wanted.open() != null && !wanted.open().equals(Amounts.plain(open.sum()))) {
            throw new ConflictException("Meanwhile " + Amounts.grouped(open.sum())
                    + " is open of these installments. Look at them again; nothing was changed.");
        }
        List<Problem> problems = new ArrayList<>();
        String why = Texts.text("why", wanted.why(), 300, false, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        List<Term> then = read(wanted, open);
        return agree(
                open,
                then,
                "Installments rearranged: " + Amounts.grouped(open.sum()) + " that is open, in " + count(then.size())
                        + (why.isEmpty() ? "" : ". " + why),
                "As agreed, " + Shown.money(open.sum()) + " of it is to be paid in other installments than before.",
                slip);
    }

    private String agree(Open open, List<Term> then, String said, String change, Slip slip) {
        DocumentId id = open.invoice().id();
        List<Rearranging.Change> changes = Rearranging.of(open.installments(), then, clock.today());
        Map<Long, StoredInstallment> were =
                debts.of(id).stream().collect(Collectors.toMap(StoredInstallment::id, d -> d));
        terms.rearrange(open.owner(), changes);
        happenings.tell(id, open.invoice().clientId(), said);
        return letters.tell(
                invoices.invoice(id),
                change,
                open.installments().stream()
                        .map(s -> before(s, were.get(s.debt())))
                        .toList(),
                slip);
    }

    /** What an invoice would be paid in, were so many installments picked of what it offers. Stores nothing. */
    @Transactional(readOnly = true)
    public List<Installment> look(Document invoice, InstallmentOffer offer, int count) {
        return offer.in(count, open(invoice.id()).sum(), clock.today());
    }

    /**
     * Keeps what the client picked of an invoice's offer, and tells it. The caller has locked the client, and noted that
     * nothing was picked before.
     *
     * @param seen what was open when it was picked
     * @throws ConflictException if something else is open by now
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public void pick(DocumentId id, InstallmentOffer offer, int count, Money seen) {
        Open open = open(id);
        if (!open.sum().isEqual(seen)) {
            throw new ConflictException("Meanwhile " + Amounts.grouped(open.sum())
                    + " is open. Look at the installments again; nothing was picked.");
        }
        List<Problem> problems = new ArrayList<>();
        List<Term> then = Term.readAll(offer.terms(count), seen.getCurrencyUnit(), clock.today(), problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        agree(
                open,
                then,
                "The client picked " + count + " monthly installments",
                "As you picked on its page, " + Shown.money(seen) + " of it is to be paid in " + count
                        + " monthly installments.",
                Slip.PLAIN);
    }

    private static String count(int parts) {
        return parts == 1 ? "one part" : parts + " parts";
    }

    private AgreedTerms.Earlier before(Rearranging.Standing was, StoredInstallment stored) {
        return new AgreedTerms.Earlier(stored.position(), was.open(), was.dueOn(), null, clock.today());
    }

    /**
     * The work has reached a milestone: what waits for it falls due, and the client is told.
     *
     * @param on today or before
     * @return the letter's key; null where the client has no address
     */
    @Transactional
    public String reach(long milestoneId, LocalDate on, Slip slip) {
        Document invoice = lockOf(milestoneId);
        AgreedTerms.Milestone milestone = terms.milestone(milestoneId);
        LocalDate day = on == null ? clock.today() : on;
        if (day.isAfter(clock.today()) || day.isBefore(invoice.issuedOn())) {
            throw new RefusedException(
                    "on", day, "must be a day from " + Texts.day(invoice.issuedOn()) + ", the day of issue, to today");
        }
        terms.reach(owner(invoice), milestone, day);
        happenings.tell(
                invoice.id(), invoice.clientId(), "Milestone “" + milestone.name() + "” reached on " + Texts.day(day));
        return letters.tell(
                invoices.invoice(invoice.id()),
                "The work has reached “" + milestone.name() + "” on " + Texts.day(day) + ".",
                List.of(),
                slip);
    }

    /** It was not reached after all. @throws ConflictException once anything was paid on what waits for it */
    @Transactional
    public String unreach(long milestoneId, Slip slip) {
        Document invoice = lockOf(milestoneId);
        AgreedTerms.Milestone milestone = terms.milestone(milestoneId);
        terms.unreach(owner(invoice), milestone);
        happenings.tell(invoice.id(), invoice.clientId(), "Milestone “" + milestone.name() + "” not reached after all");
        return letters.tell(
                invoices.invoice(invoice.id()),
                "“" + milestone.name() + "” was not reached after all; what waits for it is not due yet.",
                List.of(),
                slip);
    }

    private Document lockOf(long milestoneId) {
        Document invoice = invoices.invoice(terms.milestone(milestoneId).documentId());
        if (invoice.isDraft() || invoice.voidedOn() != null) {
            throw new ConflictException("Only an issued invoice has milestones to reach.");
        }
        clients.lock(invoice.clientId());
        return invoices.invoice(invoice.id());
    }

    private static AgreedTerms.Owner owner(Document invoice) {
        return new AgreedTerms.Owner(invoice.clientId(), invoice.id(), invoice.number());
    }
}
