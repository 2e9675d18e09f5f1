package quill.server.debts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
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
import quill.core.ledger.Appropriation;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.ledger.OpenDebt;
import quill.core.money.Amounts;
import quill.core.schedule.Installment;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Json;

/**
 * Installments and late fees, and which money settles them. Every method that writes expects the client to be locked by the caller's
 * transaction, books the entry and the appropriation together, and says which invoices changed.
 */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class Debts {
    private final DebtRepository repository;
    private final WaitingCredit waiting;
    private final BooksService books;
    private final BusinessService business;
    private final BusinessClock clock;
    private final Json json;
    private final ApplicationEventPublisher publisher;

    Debts(
            DebtRepository repository,
            WaitingCredit waiting,
            BooksService books,
            BusinessService business,
            BusinessClock clock,
            Json json,
            ApplicationEventPublisher publisher) {
        this.repository = repository;
        this.waiting = waiting;
        this.books = books;
        this.business = business;
        this.clock = clock;
        this.json = json;
        this.publisher = publisher;
    }

    /** Told within the transaction that changes what is open on an invoice. */
    public record DebtsChanged(DocumentId invoiceId, ClientId clientId) {}

    /** Whether debts and postings say the same of a client. */
    public record Agreement(Money byInstallments, Money byPostings) {
        /** Whether they agree. */
        public boolean holds() {
            return byInstallments.isEqual(byPostings);
        }
    }

    /** Stores the schedule of an invoice at issue. */
    public void add(ClientId clientId, DocumentId invoiceId, String number, List<Installment> schedule) {
        schedule.forEach(i -> repository.insert(clientId, invoiceId, number, i, json.write(i.why())));
        publisher.publishEvent(new DebtsChanged(invoiceId, clientId));
    }

    /** Adds a late fee to what is owed on an invoice; due on the day it is charged. @return the debt's id */
    public long addFee(ClientId clientId, DocumentId invoiceId, Money fee, String note, LocalDate chargedOn, Why why) {
        long id = repository.insertFee(invoiceId, fee, note, chargedOn, json.write(why));
        publisher.publishEvent(new DebtsChanged(invoiceId, clientId));
        return id;
    }

    /** Takes a late fee back: what was paid on it becomes client credit, and the fee is credited whole. */
    public void creditFee(ClientId clientId, DocumentId invoiceId, long debtId) {
        releaseAll(clientId, repository.settlersOfDebt(debtId));
        repository.creditFee(debtId, clock.today());
        publisher.publishEvent(new DebtsChanged(invoiceId, clientId));
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
        return json.read(installment.whyJson(), Why.class);
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

    /** Notes that a payment, or client credit where there is no payment, settles these debts by this entry. */
    public void settle(ClientId clientId, Long paymentId, List<Appropriation.Part> parts, long entryId) {
        for (Appropriation.Part part : parts) {
            repository.appropriate(paymentId, part.debt().id(), part.amount(), entryId);
            repository.settle(part.debt().id(), part.amount(), clock.today());
        }
        changed(clientId, parts);
    }

    /** Says of a payment that it is dated before the day on which it was booked. */
    public void paidEarlier(long paymentId, LocalDate paidOn, List<Appropriation.Part> parts, long entryId) {
        List<Long> settled = parts.stream().map(p -> p.debt().id()).toList();
        publisher.publishEvent(new PaidEarlier(paymentId, paidOn, entryId, settled));
    }

    /** Credit that this draft, and nothing else, will use when it is issued; nothing waits where it is not above zero. */
    public void letWait(DocumentId draftId, ClientId clientId, Money credit) {
        if (credit.isPositive()) {
            waiting.add(draftId, clientId, credit);
        }
    }

    /** The draft is issued, or will never be: its credit waits no longer, and settles what is open. */
    public void waitNoLonger(DocumentId draftId) {
        Optional<WaitingCredit.Waiting> credit = waiting.of(draftId);
        waiting.remove(draftId);
        credit.ifPresent(c -> useCredit(c.clientId(), c.currency()));
    }

    /** Whose credit waits for a draft, if any does. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Optional<ClientId> whoseCreditWaits(DocumentId draftId) {
        return waiting.of(draftId).map(WaitingCredit.Waiting::clientId);
    }

    /** What of a client's credit waits for a draft that replaces an invoice: never more than there is. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Money waitingCreditOf(ClientId clientId, CurrencyUnit currency) {
        Money zero = Money.zero(currency);
        Money credit = books.creditOf(clientId, currency);
        Money held = waiting.of(List.of(clientId), currency).getOrDefault(clientId, zero);
        return Amounts.min(held, credit.isNegative() ? zero : credit);
    }

    /** Credit that can settle what is open, by client: all but what waits. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Map<ClientId, Money> freeCreditsOf(Collection<ClientId> clientIds, CurrencyUnit currency) {
        Map<ClientId, Money> held = waiting.of(clientIds, currency);
        Map<ClientId, Money> free = new HashMap<>();
        books.creditsOf(clientIds, currency).forEach((client, credit) -> {
            Money rest = credit.minus(held.getOrDefault(client, Money.zero(currency)));
            free.put(client, rest.isNegative() ? Money.zero(currency) : rest);
        });
        return free;
    }

    /**
     * Client credit settles what is open, by the standard order; nothing happens where there is none.
     *
     * @return what it settled
     */
    public List<Appropriation.Part> useCredit(ClientId clientId, CurrencyUnit currency) {
        Money credit = freeCreditsOf(List.of(clientId), currency).getOrDefault(clientId, Money.zero(currency));
        List<OpenDebt> open = open(clientId, currency);
        if (!credit.isPositive() || open.isEmpty()) {
            return List.of();
        }
        Appropriation used = Appropriation.of(credit, open, Set.of(), order());
        long entry = books.book(
                Bookings.creditUsed(used.parts()),
                "Client credit used, " + Amounts.grouped(used.settled()) + numbers(used.parts()),
                new BooksService.About(clientId, null, null),
                null);
        settle(clientId, null, used.parts(), entry);
        return used.parts();
    }

    /** What a payment settles at this moment. */
    public List<Appropriation.Part> settledBy(long paymentId) {
        return repository.settledBy(paymentId);
    }

    private void unsettle(ClientId clientId, Long paymentId, List<Appropriation.Part> parts, long entryId) {
        for (Appropriation.Part part : parts) {
            repository.appropriate(paymentId, part.debt().id(), part.amount().negated(), entryId);
            repository.settle(part.debt().id(), part.amount().negated(), clock.today());
        }
        changed(clientId, parts);
    }

    /** Takes back what a payment settles that was recorded wrongly, under the entry that undoes it. */
    public void undone(ClientId clientId, long paymentId, List<Appropriation.Part> parts, long entryId) {
        unsettle(clientId, paymentId, parts, entryId);
        publisher.publishEvent(new PaidEarlier.Undone(paymentId));
    }

    /** Where more credit was used than there is (a payment was undone), the latest uses are taken back. */
    public void coverCredit(ClientId clientId, CurrencyUnit currency) {
        Money missing = books.creditOf(clientId, currency).negated();
        if (!missing.isPositive()) {
            return;
        }
        List<Appropriation.Part> released = new ArrayList<>();
        for (Appropriation.Part use : repository.creditUsesNewestFirst(clientId, currency)) {
            Money part = Amounts.min(missing, use.amount());
            if (part.isPositive()) {
                released.add(new Appropriation.Part(use.debt(), part));
                missing = missing.minus(part);
            }
        }
        if (!released.isEmpty()) {
            release(clientId, null, released);
        }
    }

    /**
     * All that settles an invoice becomes client credit, then its installments are credited whole.
     *
     * @return by how much the invoice's debts fell
     */
    public Money creditWhole(ClientId clientId, DocumentId invoiceId, CurrencyUnit currency) {
        releaseAll(clientId, repository.settlersOf(invoiceId));
        List<StoredInstallment> all = of(invoiceId);
        repository.creditWhole(invoiceId, clock.today());
        publisher.publishEvent(new DebtsChanged(invoiceId, clientId));
        return Amounts.sum(currency, all.stream().map(StoredInstallment::open).toList());
    }

    /**
     * Lowers an invoice's open installments by a sum, from the last one backwards. Late fees stay.
     *
     * @return how much of it they took; the rest found nothing open
     */
    public Money creditPart(ClientId clientId, DocumentId invoiceId, Money sum) {
        List<StoredInstallment> installments = new ArrayList<>(of(invoiceId));
        Collections.reverse(installments);
        Money left = sum;
        for (StoredInstallment i : installments) {
            Money part = Amounts.min(left, i.open());
            if (!i.fee() && part.isPositive()) {
                repository.creditPart(i.id(), part, clock.today());
                left = left.minus(part);
            }
        }
        publisher.publishEvent(new DebtsChanged(invoiceId, clientId));
        return sum.minus(left);
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
        return repository.payersOf(invoiceId);
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
    }

    /** For an invoice that cannot go back any more. */
    public static ConflictException touched() {
        return new ConflictException("Something was paid, credited or charged on this invoice already;"
                + " only a credit note takes it back.");
    }

    private void releaseAll(ClientId clientId, Map<Long, List<Appropriation.Part>> settlers) {
        settlers.forEach((paymentId, parts) -> {
            if (!parts.isEmpty()) {
                release(clientId, paymentId == 0 ? null : paymentId, parts);
            }
        });
    }

    private void release(ClientId clientId, Long paymentId, List<Appropriation.Part> parts) {
        Entry entry = Bookings.creditReleased(parts);
        Money sum = Amounts.sum(
                parts.get(0).amount().getCurrencyUnit(),
                parts.stream().map(Appropriation.Part::amount).toList());
        long id = books.book(
                entry,
                "Client credit again, " + Amounts.grouped(sum) + numbers(parts),
                new BooksService.About(clientId, null, null),
                null);
        unsettle(clientId, paymentId, parts, id);
    }

    /** A client's balance by its open installments less its credit and deposits, and by its postings alone. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Agreement agreement(ClientId clientId, CurrencyUnit currency) {
        Money open = Amounts.sum(
                currency, open(clientId, currency).stream().map(OpenDebt::open).toList());
        Money byInstallments =
                open.minus(books.creditOf(clientId, currency)).minus(books.depositsOf(clientId, currency));
        return new Agreement(byInstallments, books.balanceOf(clientId, currency));
    }

    private void changed(ClientId clientId, List<Appropriation.Part> parts) {
        Set<DocumentId> invoices = new TreeSet<>();
        parts.forEach(p -> invoices.add(p.debt().document()));
        invoices.forEach(id -> publisher.publishEvent(new DebtsChanged(id, clientId)));
    }

    private static String numbers(List<Appropriation.Part> parts) {
        return " · "
                + parts.stream().map(p -> p.debt().number()).distinct().limit(6).collect(Collectors.joining(", "));
    }
}
