package quill.server.debts;

import java.time.LocalDate;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Why;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Agreement;
import quill.core.ledger.Appropriation;
import quill.core.ledger.DebtKind;
import quill.core.ledger.Lot;
import quill.core.ledger.OpenDebt;
import quill.core.money.Amounts;
import quill.core.schedule.Installment;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Json;

/** What is owed, what settles it, and what of a client's money is here. What changes it is in {@link Settling}. */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class Debts {
    private final DebtRepository repository;
    private final SettlementRepository settlements;
    private final MilestoneRepository milestones;
    private final BooksService books;
    private final BusinessService business;
    private final BusinessClock clock;
    private final Json json;
    private final ApplicationEventPublisher publisher;

    Debts(
            DebtRepository repository,
            SettlementRepository settlements,
            MilestoneRepository milestones,
            BooksService books,
            BusinessService business,
            BusinessClock clock,
            Json json,
            ApplicationEventPublisher publisher) {
        this.repository = repository;
        this.settlements = settlements;
        this.milestones = milestones;
        this.books = books;
        this.business = business;
        this.clock = clock;
        this.json = json;
        this.publisher = publisher;
    }

    /** Told within the transaction that changes what is open on an invoice. */
    public record DebtsChanged(DocumentId invoiceId, ClientId clientId) {}

    /** Stores the schedule of an invoice at issue. One without a day is settled after all that has one. */
    public void add(ClientId clientId, DocumentId invoiceId, String number, List<Installment> schedule) {
        for (Installment i : schedule) {
            DebtRepository.New debt = new DebtRepository.New(
                    clientId,
                    invoiceId,
                    number,
                    i.deposit() ? DebtKind.DEPOSIT : DebtKind.INSTALLMENT,
                    null,
                    i.amount(),
                    i.dueOn(),
                    OpenDebt.orderOf(i.dueOn()),
                    "",
                    json.write(i.why()),
                    milestones.awaited(invoiceId, i.due()));
            repository.insert(debt, i.position(), clock.today());
        }
        publisher.publishEvent(new DebtsChanged(invoiceId, clientId));
    }

    /**
     * Adds a late fee to what is owed on an invoice; due on the day it is charged.
     *
     * @param of what it is charged on
     * @return the debt's id
     */
    public long addFee(ClientId clientId, OpenDebt of, Money fee, String note, LocalDate chargedOn, Why why) {
        DebtRepository.New debt = new DebtRepository.New(
                clientId,
                of.document(),
                of.number(),
                DebtKind.LATE_FEE,
                of.id(),
                fee,
                chargedOn,
                chargedOn,
                note,
                json.write(why),
                null);
        long id = repository.insert(debt, null, clock.today());
        publisher.publishEvent(new DebtsChanged(of.document(), clientId));
        return id;
    }

    /** What is open of one debt; empty where there is none of that id. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Optional<Money> openOf(long debtId) {
        return repository.openOf(debtId);
    }

    /** Open invoices of several clients, with every debt on them, by invoice. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Map<DocumentId, List<StoredInstallment>> onOpenInvoicesOf(Collection<ClientId> clientIds) {
        return clientIds.isEmpty() ? Map.of() : ofAll(repository.openInvoicesOf(clientIds));
    }

    /** The order in which money settles debts here. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Comparator<OpenDebt> order() {
        boolean feesFirst = business.find().map(b -> b.habits().feesFirst()).orElse(false);
        return feesFirst ? OpenDebt.FEES_FIRST : OpenDebt.ORDER;
    }

    /** An invoice's installments in order. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public List<StoredInstallment> of(DocumentId invoiceId) {
        return repository.of(List.of(invoiceId));
    }

    /** Installments of several invoices, by invoice. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Map<DocumentId, List<StoredInstallment>> ofAll(Collection<DocumentId> invoiceIds) {
        return invoiceIds.isEmpty()
                ? Map.of()
                : repository.of(invoiceIds).stream().collect(Collectors.groupingBy(StoredInstallment::invoiceId));
    }

    /** How an installment's amount was reached. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Why whyOf(StoredInstallment installment) {
        return json.read(repository.whyOf(installment.id()), Why.class);
    }

    /** A client's open debts in the order in which money settles them. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public List<OpenDebt> open(ClientId clientId, CurrencyUnit currency) {
        return repository.open(clientId, currency).stream().sorted(order()).toList();
    }

    /** Open debts of several clients, by client. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Map<ClientId, List<OpenDebt>> openByClient(Collection<ClientId> clientIds, CurrencyUnit currency) {
        return clientIds.isEmpty() ? Map.of() : repository.openByClient(clientIds, currency);
    }

    /** What of a client's credit waits for a draft that replaces an invoice. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Money waitingCreditOf(ClientId clientId, CurrencyUnit currency) {
        return settlements.credits(List.of(clientId), currency, true).getOrDefault(clientId, Money.zero(currency));
    }

    /** Credit that can settle what is open, by client: all but what waits. Clients without any are not in it. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Map<ClientId, Money> freeCreditsOf(Collection<ClientId> clientIds, CurrencyUnit currency) {
        return settlements.credits(clientIds, currency, false);
    }

    /** What a payment settles at this moment by itself; what its credit does is not in it. */
    public List<Appropriation.Part> settledBy(long paymentId) {
        return Appropriation.byDebt(settlements.directlyBy(paymentId).stream()
                .map(s -> new Appropriation.Part(s.debt(), s.amount()))
                .toList());
    }

    /** Told within the transaction that removes an invoice's installments, before they go. */
    public record DebtsLeaving(DocumentId invoiceId, List<Long> debtIds) {}

    /** A debt that is late, who owes it, and what of it is open in minor units of its currency. */
    public record Late(long id, ClientId clientId, long openMinor) {}

    /** All that is open and fell due before a day. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public List<Late> late(LocalDate before) {
        return repository.late(before);
    }

    /** Payments that settled any of an invoice, those too that were taken back since. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public List<Long> payersOf(DocumentId invoiceId) {
        return settlements.payersOf(invoiceId);
    }

    /**
     * Removes the installments of an invoice that goes back to a draft or is voided.
     *
     * @throws ConflictException where anything was ever paid, credited or charged on it; a listener of what leaves may
     *     know of more
     */
    public void remove(DocumentId invoiceId) {
        if (!repository.untouched(invoiceId)) {
            throw touched();
        }
        publisher.publishEvent(new DebtsLeaving(
                invoiceId, of(invoiceId).stream().map(StoredInstallment::id).toList()));
        repository.remove(invoiceId);
        milestones.forget(invoiceId);
    }

    /** For an invoice that cannot go back any more. */
    public static ConflictException touched() {
        return new ConflictException("Something was paid, credited or charged on this invoice already;"
                + " only a credit note takes it back.");
    }

    /** What a client owes by what is kept of its debts and credit, and by the postings alone. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Agreement agreement(ClientId clientId, CurrencyUnit currency) {
        Money zero = Money.zero(currency);
        Money open = Amounts.sum(
                currency, open(clientId, currency).stream().map(OpenDebt::open).toList());
        Map<Lot.Kind, Money> left = settlements.left(clientId, currency).stream()
                .collect(Collectors.toMap(Lot::kind, Lot::left, Money::plus));
        return new Agreement(
                open,
                left.getOrDefault(Lot.Kind.CREDIT, zero),
                left.getOrDefault(Lot.Kind.DEPOSIT, zero),
                books.balanceOf(clientId, currency));
    }
}
