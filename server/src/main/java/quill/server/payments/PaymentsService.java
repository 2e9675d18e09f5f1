package quill.server.payments;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.ledger.Appropriation;
import quill.core.ledger.Bookings;
import quill.core.ledger.OpenDebt;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.business.BusinessService;
import quill.server.business.Rates;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Findable;
import quill.server.common.NotFoundException;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.dispatch.DispatchService;
import quill.server.invoices.InvoicesService;

/** Money received: booked once, appropriated, receipted; and undone by an entry that names the first. */
@Service
public class PaymentsService {
    private final PaymentRepository repository;
    private final RequestKeys keys;
    private final Deposits deposits;
    private final PaymentBooking booking;
    private final BooksService books;
    private final RecordedReading reading;
    private final Debts debts;
    private final ClientsService clients;
    private final InvoicesService invoices;
    private final BusinessService business;
    private final Rates rates;
    private final DispatchService dispatch;
    private final Happenings happenings;
    private final Changes changes;
    private final BusinessClock clock;

    PaymentsService(
            PaymentRepository repository,
            RequestKeys keys,
            Deposits deposits,
            PaymentBooking booking,
            BooksService books,
            RecordedReading reading,
            Debts debts,
            ClientsService clients,
            InvoicesService invoices,
            BusinessService business,
            Rates rates,
            DispatchService dispatch,
            Happenings happenings,
            Changes changes,
            BusinessClock clock) {
        this.repository = repository;
        this.keys = keys;
        this.deposits = deposits;
        this.booking = booking;
        this.books = books;
        this.reading = reading;
        this.debts = debts;
        this.clients = clients;
        this.invoices = invoices;
        this.business = business;
        this.rates = rates;
        this.dispatch = dispatch;
        this.happenings = happenings;
        this.changes = changes;
        this.clock = clock;
    }

    /**
     * A payment as a person records it.
     *
     * @param invoiceId what the payer named, or null
     * @param currency ISO 4217 code; null for the invoice's, or the business's own
     * @param held whether it is kept as a deposit for work to come rather than settling what is owed
     * @param debts keys of the debts that it is for, before all others; empty for those of the invoice, or the oldest
     * @param silent whether no receipt goes
     */
    public record Recorded(
            String key,
            long clientId,
            Long invoiceId,
            String way,
            String currency,
            String amount,
            String valueOn,
            String reference,
            boolean held,
            List<Long> debts,
            boolean silent) {
        /** Money for what is owed, in the currency that it is owed in. */
        public Recorded(
                String key,
                long clientId,
                Long invoiceId,
                String way,
                String amount,
                String valueOn,
                String reference) {
            this(key, clientId, invoiceId, way, null, amount, valueOn, reference, false);
        }

        /** For the oldest of what is owed, or for the invoice; with a receipt. */
        public Recorded(
                String key,
                long clientId,
                Long invoiceId,
                String way,
                String currency,
                String amount,
                String valueOn,
                String reference,
                boolean held) {
            this(key, clientId, invoiceId, way, currency, amount, valueOn, reference, held, List.of(), false);
        }
    }

    /** A payment as the processor tells it. */
    public record ByCard(
            String key,
            long clientId,
            long invoiceId,
            Set<Long> installments,
            Money amount,
            Money fee,
            LocalDate paidOn,
            String card,
            String processorPayment) {}

    /**
     * Records money that came by transfer, in cash or by cheque. The same key twice is one payment;
     * the same key for something else is refused.
     *
     * @throws RefusedException naming {@code amount}, {@code way} or {@code valueOn}
     */
    @Transactional
    public Payment record(Recorded r) {
        if (r.key() == null || !r.key().matches("[A-Za-z0-9-]{8,60}")) {
            throw new RefusedException(
                    "key", r.key(), "must be 8 to 60 letters, digits and hyphens, new for each payment");
        }
        Optional<Long> before = keys.take(r.key(), r);
        if (before.isPresent()) {
            return find(before.get());
        }
        clients.lock(r.clientId());
        Optional<Payment> older = repository.byKey(r.key());
        if (older.isPresent()) {
            throw new ConflictException("This request's key was used for another payment. Nothing was recorded.");
        }
        Payment made = recordOnce(r);
        keys.made(r.key(), made.id());
        return made;
    }

    private Payment recordOnce(Recorded r) {
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit currency = reading.currency(r, problems);
        Money amount = TypedNumber.amount("amount", r.amount(), currency, problems);
        if (amount != null && amount.isZero()) {
            problems.add(new Problem("amount", r.amount(), "must be above zero"));
        }
        LocalDate valueOn = valueOn(r.valueOn(), problems);
        if (amount != null && beyondBooks(amount)) {
            problems.add(new Problem(
                    "amount",
                    r.amount(),
                    "is above " + TypedNumber.LARGEST_IN_WORDS + " in the currency of your books"));
        }
        PaymentWay way = PaymentWay.recorded(r.way());
        if (way == null) {
            problems.add(new Problem("way", r.way(), "must be TRANSFER, CASH or CHEQUE"));
        }
        if (r.reference() != null && r.reference().length() > 200) {
            problems.add(new Problem("reference", "", "at most 200 characters"));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        Long paidFor = reading.paidFor(r);
        List<OpenDebt> open = debts.open(r.clientId(), currency);
        Set<Long> named = reading.named(r, paidFor, open);
        Money none = Money.zero(currency);
        PaymentRepository.New payment = new PaymentRepository.New(
                r.key(),
                r.clientId(),
                paidFor,
                r.way(),
                amount,
                none,
                valueOn,
                clock.today(),
                clock.instant(),
                r.reference() == null ? "" : r.reference().strip(),
                "",
                null,
                false,
                r.held());
        if (r.held()) {
            return find(deposits.hold(payment, way.account()));
        }
        return booking.book(payment, way.account(), Appropriation.of(amount, open, named, debts.order()), !r.silent());
    }

    private boolean beyondBooks(Money amount) {
        return rates.exchange(amount.getCurrencyUnit(), clock.today())
                .filter(e -> amount.getAmount().multiply(e.rate()).compareTo(TypedNumber.LARGEST) >= 0)
                .isPresent();
    }

    private LocalDate valueOn(String text, List<Problem> problems) {
        LocalDate today = clock.today();
        if (text == null || text.isBlank()) {
            return today;
        }
        LocalDate date = LooseDate.read("valueOn", text, today, LooseDate.Lean.PAST, problems);
        if (date != null && (date.isAfter(today) || date.isBefore(today.minusYears(10)))) {
            problems.add(new Problem("valueOn", text, "must be a day up to today, " + Texts.day(today)));
        }
        return date;
    }

    /**
     * Books what the processor says was paid, with its fee, once for each key. It settles what is open of the debts that
     * its order named, whatever became of the order meanwhile; the rest is client credit, which settles what else is
     * open, and what is left then waits for a person to look at it.
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public Payment bookCard(ByCard c) {
        clients.lock(c.clientId());
        Optional<Payment> before = repository.byKey(c.key());
        if (before.isPresent()) {
            return before.get();
        }
        List<OpenDebt> taken = debts.open(c.clientId(), c.amount().getCurrencyUnit()).stream()
                .filter(d -> c.installments().contains(d.id()))
                .toList();
        Appropriation appropriation = Appropriation.of(c.amount(), taken, c.installments(), debts.order());
        PaymentRepository.New payment = new PaymentRepository.New(
                c.key(),
                c.clientId(),
                c.invoiceId(),
                PaymentWay.CARD.name(),
                c.amount(),
                c.fee(),
                c.paidOn(),
                clock.today(),
                clock.instant(),
                "",
                c.card(),
                c.processorPayment(),
                false,
                false);
        return booking.book(payment, PaymentWay.CARD.account(), appropriation, true);
    }

    /** Takes back what a person recorded wrongly. What it settled is open again. */
    @Transactional
    public Payment undo(long id, String why) {
        Payment payment = find(id);
        if (PaymentWay.CARD.name().equals(payment.way())) {
            throw new RefusedException(
                    "way",
                    "CARD",
                    "a card payment was really made, so it cannot be undone; only a refund gives it back");
        }
        String reason = Texts.reason("why", why);
        clients.lock(payment.clientId());
        if (repository.undo(id, clock.today(), reason) != 1) {
            throw new ConflictException("This payment was undone already.");
        }
        if (payment.held()) {
            deposits.undo(payment, PaymentWay.valueOf(payment.way()).account(), reason);
            return find(id);
        }
        Money amount = payment.amount().money();
        List<Appropriation.Part> settling = debts.settledBy(id);
        long entry = books.book(
                Bookings.paymentUndone(PaymentWay.valueOf(payment.way()).account(), amount, settling),
                "Undone: " + payment.words() + " · " + reason,
                new BooksService.About(payment.clientId(), payment.invoiceId(), id),
                books.entryOfPayment(id));
        debts.undone(payment.clientId(), id, settling, entry);
        debts.coverCredit(payment.clientId(), amount.getCurrencyUnit());
        Set<Long> touched = settling.stream().map(p -> p.debt().document()).collect(Collectors.toSet());
        touched.forEach(invoice -> happenings.note(
                invoice,
                payment.clientId(),
                "Payment of " + Amounts.grouped(amount) + " " + payment.words() + " undone: " + reason,
                Happenings.About.payment(id)));
        Long receiptWasFor = payment.invoiceId() != null
                ? payment.invoiceId()
                : touched.stream().min(Long::compare).orElse(null);
        if (receiptWasFor != null) {
            dispatch.takeReceiptBack(id, receiptWasFor, amount);
        }
        changes.say(payment.invoiceId(), payment.clientId());
        changes.touch(Findable.PAYMENT, payment.id());
        return find(id);
    }

    /** A person has seen money that came unexpectedly; it stays client credit. */
    @Transactional
    public void noted(long id) {
        Payment payment = find(id);
        if (repository.noted(id) != 1) {
            throw new ConflictException("That was noted already.");
        }
        changes.say(payment.invoiceId(), payment.clientId());
        changes.touch(Findable.PAYMENT, payment.id());
    }

    /** Clients of whom money came with a reference that has this text; none for an empty one. */
    public Set<Long> clientsOfReference(String text) {
        String plain = text == null ? "" : text.strip().toLowerCase(Locale.ROOT);
        return plain.isEmpty() ? Set.of() : repository.clientsOfReference(plain);
    }

    /** Payments of a client, newest first. */
    public List<Payment> ofClient(long clientId) {
        return repository.ofClient(clientId);
    }

    /** Payments that were for an invoice or settle any of it, newest first. */
    public List<Payment> ofInvoice(long invoiceId) {
        return repository.ofInvoice(invoiceId, debts.payersOf(invoiceId));
    }

    /** Money that came for what was no longer open. */
    public List<Payment> unexpected() {
        return repository.unexpected();
    }

    /** One payment. @throws NotFoundException if there is none of that id */
    public Payment find(long id) {
        return repository.find(id).orElseThrow(() -> new NotFoundException("There is no payment " + id + "."));
    }
}
