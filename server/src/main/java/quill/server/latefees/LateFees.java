package quill.server.latefees;

import java.time.LocalDate;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.Why;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.LateFee;
import quill.core.ledger.Bookings;
import quill.core.ledger.Entry;
import quill.core.ledger.OpenDebt;
import quill.core.money.Amounts;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.debts.Settling;

/** Late fees: charged once under their key, waived with a reason. */
@Service
public class LateFees {
    private final LateFeeRepository repository;
    private final Debts debts;
    private final Settling settling;
    private final BooksService books;
    private final ClientsService clients;
    private final Happenings happenings;
    private final BusinessClock clock;

    LateFees(
            LateFeeRepository repository,
            Debts debts,
            Settling settling,
            BooksService books,
            ClientsService clients,
            Happenings happenings,
            BusinessClock clock) {
        this.repository = repository;
        this.debts = debts;
        this.settling = settling;
        this.books = books;
        this.clients = clients;
        this.happenings = happenings;
        this.clock = clock;
    }

    /** An invoice of which a fee was charged, waived or let be stays: what became of it is on the record. */
    @EventListener
    void debtsLeave(Debts.DebtsLeaving leaving) {
        if (repository.any(leaving.invoiceId())) {
            throw Debts.touched();
        }
    }

    /** A fee that a payment dated before it puts up for waiving. @param paidOn value date of that payment */
    public record PutUp(StoredFee fee, LocalDate paidOn) {}

    /**
     * Charges a fee on an installment, within a transaction that has locked the client.
     *
     * @param on the day it is charged for
     * @throws org.springframework.dao.DuplicateKeyException if its key was used before
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public void charge(ClientId clientId, OpenDebt of, LateFee fee, LocalDate on) {
        String tax = tax(fee);
        String text = "Late fee on " + of.number() + ", " + Amounts.grouped(fee.amount()) + tax;
        long entry = books.book(
                Bookings.lateFee(of.document(), fee.amount(), fee.taxes()),
                text + " · overdue " + Amounts.grouped(fee.base()) + " since " + Texts.day(of.dueOn()),
                new BooksService.About(clientId, of.document(), null),
                null);
        long debt = debts.addFee(clientId, of, fee.amount(), tax.strip(), on, fee.why());
        long id = repository.insert(clientId, of, fee, on, debt, entry);
        // Client credit is counted before a fee; what is left of it after settling other debts goes towards this one.
        settling.useCredit(clientId, fee.amount().getCurrencyUnit());
        happenings.tell(
                of.document(),
                clientId,
                text + ": " + String.join("; ", fee.why().steps()),
                Happenings.About.fee(id));
    }

    /** What is said of the tax in a fee; empty where there is none. */
    private static String tax(LateFee fee) {
        return fee.taxes().isEmpty()
                ? ""
                : fee.taxes().stream()
                        .map(t -> t.tax().name() + " " + Amounts.grouped(t.amount()))
                        .collect(Collectors.joining(", ", " with ", ""));
    }

    /** A person decided not to charge a fee: its key is used up and nothing is booked. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void leaveOut(ClientId clientId, OpenDebt of, LateFee fee, LocalDate on, String why) {
        long id = repository.insert(clientId, of, fee, on, null, null);
        repository.waive(id, on, Texts.reason("reason", why));
        happenings.tell(
                of.document(),
                clientId,
                "Late fee of " + Amounts.grouped(fee.amount()) + " not charged: " + why,
                Happenings.About.fee(id));
    }

    /**
     * Waives a fee. What was paid on it becomes client credit and settles what else is open.
     *
     * @throws RefusedException without a reason
     * @throws ConflictException if it was waived already
     */
    @Transactional
    public void waive(long id, String why) {
        String reason = Texts.reason("reason", why);
        StoredFee fee = fee(id);
        clients.lock(fee.clientId());
        if (debts.of(fee.invoiceId()).stream()
                .anyMatch(d -> d.id() == fee.debtId() && d.writtenOff().isPositive())) {
            throw new ConflictException("This late fee was written off. Say first that it is owed again.");
        }
        reverse(fee(id), reason);
        settling.useCredit(fee.clientId(), CurrencyUnit.of(fee.amount().currency()));
    }

    /** Waives all fees of an invoice that is taken back, within a transaction that has locked the client. */
    @Transactional(propagation = Propagation.MANDATORY)
    public void waiveAllOf(DocumentId invoiceId, String why) {
        repository.ofInvoice(invoiceId).stream().filter(f -> f.waived() == null).forEach(f -> reverse(f, why));
    }

    private void reverse(StoredFee fee, String reason) {
        if (fee.waived() != null || repository.waive(fee.id(), clock.today(), reason) != 1) {
            throw new ConflictException("This late fee was waived already, on "
                    + Texts.day(fee.waived().on()) + ": " + fee.waived().why() + ". Nothing was changed.");
        }
        Money amount = fee.amount().money();
        long entry = books.reverse(
                fee.entryId(),
                Entry.Event.LATE_FEE_WAIVED,
                "Late fee waived, " + Amounts.grouped(amount) + " · " + reason,
                new BooksService.About(fee.clientId(), fee.invoiceId(), null));
        settling.waiveFee(fee.clientId(), fee.debtId(), entry);
        happenings.tell(
                fee.invoiceId(),
                fee.clientId(),
                "Late fee of " + Amounts.grouped(amount) + " waived: " + reason,
                Happenings.About.fee(fee.id()));
    }

    /** A person has looked at a fee that was put up for waiving, and it stands. */
    @Transactional
    public void letStand(long id) {
        StoredFee fee = fee(id);
        if (repository.letStand(id) != 1) {
            throw new ConflictException("That was decided already.");
        }
        happenings.tell(
                fee.invoiceId(),
                fee.clientId(),
                "Late fee of " + Amounts.grouped(fee.amount().money()) + " stands",
                Happenings.About.fee(id));
    }

    /** One fee. @throws NotFoundException if there is none of that id */
    public StoredFee fee(long id) {
        return repository.find(id).orElseThrow(() -> new NotFoundException("There is no late fee " + id + "."));
    }

    /** Fees on an invoice, oldest first. */
    public List<StoredFee> ofInvoice(DocumentId invoiceId) {
        return repository.ofInvoice(invoiceId);
    }

    /** Fees on these installments, oldest first. */
    public List<StoredFee> onInstallments(Collection<Long> installmentIds) {
        return installmentIds.isEmpty() ? List.of() : repository.onInstallments(installmentIds);
    }

    /** Fees that stand although a payment dated before them has come since; a person decides. */
    public List<PutUp> putUpForWaiving() {
        Map<Long, PutUp> first = new LinkedHashMap<>();
        repository.questioned().stream()
                .filter(q -> q.paid().putsUp(q.fee().chargedOn(), q.fee().entryId()))
                .forEach(q -> first.putIfAbsent(
                        q.fee().id(), new PutUp(q.fee(), q.paid().paidOn())));
        return List.copyOf(first.values());
    }

    /** For what a fee is: the so-manieth on an installment, for what was due on a day. */
    public record Occasion(long installmentId, LocalDate dueOn, int sequence) {}

    /** Taken back, or never charged. */
    public record Waived(LocalDate on, String why) {}

    /**
     * A fee as stored.
     *
     * @param debtId null where it was never charged
     * @param fee what the policy came to
     * @param amount what was asked for, any tax that was added included
     * @param waived null while it stands
     */
    public record StoredFee(
            long id,
            Occasion occasion,
            DocumentId invoiceId,
            ClientId clientId,
            Long debtId,
            Amount base,
            Amount fee,
            Amount amount,
            Why why,
            LocalDate chargedOn,
            Long entryId,
            Waived waived) {
        /** As the core counts it. */
        public LateFee.Charged charged() {
            return new LateFee.Charged(occasion.dueOn, occasion.sequence, fee.money(), waived != null);
        }
    }
}
