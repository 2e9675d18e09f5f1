package quill.server.debts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.ToLongFunction;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.document.CreditTotals;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Appropriation;
import quill.core.ledger.ClientLedger;
import quill.core.ledger.DepositsBack;
import quill.core.ledger.Lot;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Receipt;
import quill.core.ledger.Settlement;
import quill.core.ledger.Step;
import quill.core.ledger.TakingBack;
import quill.core.money.Amounts;
import quill.server.common.BusinessClock;

/**
 * Whatever changes what a client owes, or what of its money is here: each asks the core's ledger, and keeps what that
 * decided. Every method expects the client to be locked by the caller's transaction.
 */
@Service
@Transactional(propagation = Propagation.MANDATORY)
public class Settling {
    private final DebtRepository repository;
    private final SettlementRepository settlements;
    private final LedgerWriter writer;
    private final Debts debts;
    private final BusinessClock clock;
    private final ApplicationEventPublisher publisher;

    Settling(
            DebtRepository repository,
            SettlementRepository settlements,
            LedgerWriter writer,
            Debts debts,
            BusinessClock clock,
            ApplicationEventPublisher publisher) {
        this.repository = repository;
        this.settlements = settlements;
        this.writer = writer;
        this.debts = debts;
        this.clock = clock;
        this.publisher = publisher;
    }

    /**
     * Takes a late fee back: what was paid on it becomes client credit, and the fee is taken off whole.
     *
     * @param entryId by which it was taken back
     */
    public void waiveFee(ClientId clientId, long debtId, long entryId) {
        OpenDebt fee = repository.find(debtId);
        List<Settlement> standing = settlements.ofDebt(debtId);
        TakingBack ledger = new TakingBack(ledger(clientId, fee.open().getCurrencyUnit()));
        writer.keep(clientId, ledger.waive(fee, standing), clock.today(), step -> entryId);
    }

    /** How all stands of a client in a currency. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public ClientLedger ledger(ClientId clientId, CurrencyUnit currency) {
        return ClientLedger.of(
                currency, repository.open(clientId, currency), settlements.left(clientId, currency), debts.order());
    }

    /** The same with the lots, empty ones too, out of which documents took something. */
    private ClientLedger withDrawn(ClientId clientId, CurrencyUnit currency, List<Step.Draw> drawn) {
        List<Lot> lots = new ArrayList<>(
                settlements.lots(drawn.stream().map(Step.Draw::lot).collect(Collectors.toSet())));
        lots.addAll(settlements.left(clientId, currency));
        return ClientLedger.of(currency, repository.open(clientId, currency), lots, debts.order());
    }

    /** Keeps what the ledger decided about money that moved. @param own as {@link LedgerWriter} asks it */
    public void keep(ClientId clientId, ClientLedger.Decision decision, LocalDate valueOn, ToLongFunction<Step> own) {
        writer.keep(clientId, decision, valueOn, own);
    }

    /** Takes back what was recorded wrongly. @param own books the entry that undoes it */
    public List<Appropriation.Part> undo(ClientId clientId, Receipt money, ToLongFunction<Step> own) {
        List<Appropriation.Part> settling = debts.settledBy(money.movement());
        takeBack(clientId, money, TakingBack::undo, own);
        return settling;
    }

    /** The payer's bank took a payment back, or what was left of it. @param own books the entry */
    public void chargeBack(ClientId clientId, Receipt money, ToLongFunction<Step> own) {
        takeBack(clientId, money, TakingBack::chargeBack, own);
    }

    /** A bank debit came back after it had been certain. @param own books the entry */
    public void returned(ClientId clientId, Receipt money, ToLongFunction<Step> own) {
        takeBack(clientId, money, TakingBack::returned, own);
    }

    private interface Deciding {
        ClientLedger.Decision decide(TakingBack ledger, Receipt money, TakingBack.Standing standing);
    }

    private TakingBack.Standing standing(ClientId clientId, CurrencyUnit currency, long movement) {
        return new TakingBack.Standing(
                settlements.ofMovement(movement),
                () -> others(settlements.covered(clientId, currency), movement),
                () -> others(settlements.paid(clientId, currency), movement));
    }

    private static List<Settlement> others(List<Settlement> all, long movement) {
        return all.stream().filter(s -> !s.source().is(movement)).toList();
    }

    private void takeBack(ClientId clientId, Receipt money, Deciding how, ToLongFunction<Step> own) {
        CurrencyUnit currency = money.amount().getCurrencyUnit();
        TakingBack.Standing standing = standing(clientId, currency, money.movement());
        writer.keep(
                clientId, how.decide(new TakingBack(ledger(clientId, currency)), money, standing), clock.today(), own);
        publisher.publishEvent(new PaidEarlier.Undone(money.movement()));
    }

    /** What a payment settles by itself. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public List<Appropriation.Part> settledBy(long movement) {
        return debts.settledBy(movement);
    }

    /** What a payment's bank opened of each debt when it took the payment back. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Map<Long, Money> chargedBack(long movement) {
        return settlements.chargedBack(movement);
    }

    /** Nothing more is on its way to these debts: whatever rests on that looks again. */
    public void reviewed(ClientId clientId, Set<Long> ids) {
        ids.stream()
                .map(id -> repository.find(id).document())
                .distinct()
                .forEach(d -> publisher.publishEvent(new Debts.DebtsChanged(d, clientId)));
    }

    /** Debts that were opened when a payment went back, or a part of it. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Set<Long> openedByGoing(long movement) {
        return settlements.openedByGoing(movement);
    }

    /** Takes a deposit back that was recorded wrongly. @param own books the entry that undoes it */
    public void undoDeposit(ClientId clientId, Receipt money, ToLongFunction<Step> own) {
        List<Step.Draw> drawn = settlements.drawnOf(money.movement());
        DepositsBack ledger =
                new DepositsBack(withDrawn(clientId, money.amount().getCurrencyUnit(), drawn));
        writer.keep(clientId, ledger.undo(money, drawn), clock.today(), own);
    }

    /** What is prepaid comes out of deposits held, under the entry of the invoice's issue. */
    public void deduct(ClientId clientId, DocumentId invoiceId, Money prepaid, long entryId) {
        if (prepaid.isPositive()) {
            ClientLedger.Decision decision =
                    ledger(clientId, prepaid.getCurrencyUnit()).deduct(invoiceId, prepaid);
            writer.keep(clientId, decision, clock.today(), step -> entryId);
        }
    }

    /** @throws quill.core.RefusedException naming {@code prepaid} where less is held */
    @Transactional(propagation = Propagation.SUPPORTS)
    public void checkDeposits(ClientId clientId, Money prepaid) {
        if (prepaid.isPositive()) {
            ledger(clientId, prepaid.getCurrencyUnit()).deduct(DocumentId.NEW, prepaid);
        }
    }

    /** What an invoice deducted is held again, under the entry that takes the invoice back. */
    public void putBack(ClientId clientId, DocumentId invoiceId, long entryId) {
        List<Step.Draw> drawn = settlements.drawnBy(invoiceId);
        if (!drawn.isEmpty()) {
            CurrencyUnit currency = drawn.get(0).amount().getCurrencyUnit();
            Money all =
                    Amounts.sum(currency, drawn.stream().map(Step.Draw::amount).toList());
            ClientLedger ledger = withDrawn(clientId, currency, drawn);
            writer.keep(clientId, ledger.putBack(drawn, all), clock.today(), step -> entryId);
        }
    }

    /**
     * A credit note takes back a whole invoice: all that settles it becomes client credit. Its late fees were waived
     * before.
     *
     * @param own books the note's entry
     */
    public void creditWhole(ClientId clientId, TakingBack.Note note, ToLongFunction<Step> own) {
        CurrencyUnit currency = note.deposits().getCurrencyUnit();
        TakingBack.Standing standing = new TakingBack.Standing(
                settlements.ofDocument(note.invoice()),
                () -> settlements.covered(clientId, currency).stream()
                        .filter(s -> !note.invoice().equals(s.debt().document()))
                        .toList());
        List<Step.Draw> drawn = settlements.drawnBy(note.invoice());
        ClientLedger.Decision decision = new TakingBack(withDrawn(clientId, currency, drawn))
                .creditWhole(note, repository.debts(note.invoice()), standing, drawn);
        writer.keep(clientId, decision, clock.today(), own);
        publisher.publishEvent(new Debts.DebtsChanged(note.invoice(), clientId));
    }

    /**
     * A credit note takes back a part of an invoice: off its open installments from the last one backwards. Late fees stay;
     * what finds nothing open is client credit.
     *
     * @param own books the note's entry
     */
    public void creditPart(ClientId clientId, TakingBack.Note note, ToLongFunction<Step> own) {
        CurrencyUnit currency = note.deposits().getCurrencyUnit();
        List<OpenDebt> installments =
                repository.debts(note.invoice()).stream().filter(d -> !d.fee()).toList();
        ClientLedger.Decision decision = new TakingBack(ledger(clientId, currency)).creditBackwards(note, installments);
        writer.keep(clientId, decision, clock.today(), own);
        publisher.publishEvent(new Debts.DebtsChanged(note.invoice(), clientId));
    }

    /**
     * Money goes back to the client out of what is held as credit; nothing that is settled is opened by it.
     *
     * @param own books the entry
     * @throws quill.core.RefusedException naming {@code amount}, with what could be given back
     */
    public void refund(ClientId clientId, Receipt out, ToLongFunction<Step> own) {
        refund(clientId, out, 0, false, own);
    }

    /**
     * The same of a payment: out of what is left of it, out of other credit, and only where that is said out of what it
     * settles, which is open again: where its own credit was given back as another payment's, what others settle.
     *
     * @param of key of the payment; 0 for none
     */
    public void refund(ClientId clientId, Receipt out, long of, boolean opens, ToLongFunction<Step> own) {
        CurrencyUnit currency = out.amount().getCurrencyUnit();
        TakingBack ledger = new TakingBack(ledger(clientId, currency));
        List<Settlement> opened = new ArrayList<>();
        if (opens) {
            TakingBack.Standing standing = standing(clientId, currency, of);
            opened.addAll(standing.own());
            opened.addAll(standing.others().get());
            opened.addAll(standing.money().get());
        }
        writer.keep(clientId, ledger.refund(out, of, opened), clock.today(), own);
    }

    /** The same out of deposits that are held. @param of the payments that they were, before others */
    public void refundDeposit(ClientId clientId, Receipt out, Set<Long> of, ToLongFunction<Step> own) {
        DepositsBack ledger = new DepositsBack(ledger(clientId, out.amount().getCurrencyUnit()));
        writer.keep(clientId, ledger.refund(out, of), clock.today(), own);
    }

    /** What of an invoice was let off for paying early, and stands. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Money letOff(DocumentId invoiceId, String currency) {
        return settlements.letOff(invoiceId).stream()
                .map(Settlement::amount)
                .reduce(Money.zero(CurrencyUnit.of(currency)), Money::plus);
    }

    /** On which day the last of what settles an invoice moved; empty where nothing does. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Optional<LocalDate> paidBy(DocumentId invoiceId) {
        return settlements.paidBy(invoiceId);
    }

    /** What is open of these installments is let off. @param own books the entry */
    public void letOff(
            ClientId clientId,
            DocumentId invoiceId,
            Set<Long> installments,
            CreditTotals off,
            ToLongFunction<Step> own) {
        CurrencyUnit currency = off.total().getCurrencyUnit();
        writer.keep(clientId, ledger(clientId, currency).letOff(installments, invoiceId, off), clock.today(), own);
    }

    /**
     * What was let off is owed again.
     *
     * @param off what it came to
     * @param more whether the caller takes the invoice back at once, so that nobody need be told yet
     * @param own books the entry
     */
    public void askAgain(
            ClientId clientId, DocumentId invoiceId, CreditTotals off, boolean more, ToLongFunction<Step> own) {
        ClientLedger.Decision again =
                ledger(clientId, off.total().getCurrencyUnit()).askAgain(settlements.letOff(invoiceId), invoiceId, off);
        if (more) {
            writer.keepQuietly(clientId, again, clock.today(), own);
        } else {
            writer.keep(clientId, again, clock.today(), own);
        }
    }

    /** What a payment settles of one debt settles another instead. @throws quill.core.RefusedException where less is open there */
    public void move(ClientId clientId, long payment, long from, Money amount, long to) {
        List<Settlement> some = new ArrayList<>();
        Money left = amount;
        for (Settlement s : settlements.directlyBy(payment)) {
            Money part = Amounts.min(left, s.amount());
            if (s.debt().id() == from && part.isPositive()) {
                some.add(s.withAmount(part));
                left = left.minus(part);
            }
        }
        writer.keep(clientId, ledger(clientId, amount.getCurrencyUnit()).move(some, to), clock.today(), step -> 0);
    }

    /** What is open of an invoice is given up, its late fees too. @return what that comes to */
    public Money writeOff(ClientId clientId, DocumentId invoiceId, CurrencyUnit currency) {
        List<OpenDebt> open = repository.debts(invoiceId).stream()
                .filter(d -> d.open().isPositive())
                .toList();
        ClientLedger.Decision given = ledger(clientId, currency)
                .writeOff(open.stream().map(OpenDebt::id).collect(Collectors.toSet()));
        writer.keep(clientId, given, clock.today(), step -> 0);
        return Amounts.sum(currency, open.stream().map(OpenDebt::open).toList());
    }

    /** What of an invoice was given up, and stands. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Money writtenOff(DocumentId invoiceId, CurrencyUnit currency) {
        return Amounts.sum(
                currency,
                settlements.writtenOff(invoiceId).stream()
                        .map(Settlement::amount)
                        .toList());
    }

    /** It is owed again, and client credit settles it at once. */
    public void oweAgain(ClientId clientId, DocumentId invoiceId, CurrencyUnit currency) {
        writer.keep(
                clientId,
                ledger(clientId, currency).oweAgain(settlements.writtenOff(invoiceId)),
                clock.today(),
                step -> 0);
        useCredit(clientId, currency);
    }

    /** Credit that this draft, and nothing else, will use when it is issued. @param credit lot by lot; may be empty */
    public void letWait(DocumentId draftId, ClientId clientId, ClientLedger now, List<ClientLedger.OfLot> credit) {
        writer.keep(clientId, now.reserve(credit, draftId), clock.today(), step -> 0);
    }

    /** The draft is issued, or will never be: its credit waits no longer, and settles what is open. */
    public void waitNoLonger(DocumentId draftId) {
        Optional<SettlementRepository.Waiting> credit = settlements.waitingFor(draftId);
        settlements.waitNoLonger(draftId);
        credit.ifPresent(c -> useCredit(c.clientId(), c.currency()));
    }

    /** Says of a payment that it is dated before the day on which it was booked. */
    public void paidEarlier(long paymentId, LocalDate paidOn, List<Appropriation.Part> parts, long entryId) {
        List<Long> settled = parts.stream().map(p -> p.debt().id()).toList();
        publisher.publishEvent(new PaidEarlier(paymentId, paidOn, entryId, settled));
    }

    /** Whose credit waits for a draft, if any does. */
    @Transactional(propagation = Propagation.SUPPORTS)
    public Optional<ClientId> whoseCreditWaits(DocumentId draftId) {
        return settlements.waitingFor(draftId).map(SettlementRepository.Waiting::clientId);
    }

    /**
     * Client credit settles what is open, by the standard order; nothing happens where there is none.
     *
     * @return what it settled
     */
    public List<Appropriation.Part> useCredit(ClientId clientId, CurrencyUnit currency) {
        List<Lot> left = settlements.left(clientId, currency);
        if (left.isEmpty()) {
            return List.of();
        }
        ClientLedger.Decision used = ClientLedger.of(currency, repository.open(clientId, currency), left, debts.order())
                .cover();
        writer.keep(clientId, used, clock.today(), step -> 0);
        return used.steps().stream()
                .flatMap(step -> Appropriation.byDebt(step.settled()).stream())
                .toList();
    }
}
