package quill.server.payments;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.LooseDate;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.ClientLedger;
import quill.core.ledger.OnTop;
import quill.core.money.TypedNumber;
import quill.core.pay.PaymentWay;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.debts.Settling;
import quill.server.documents.Document;
import quill.server.documents.DocumentKind;

/** Money received: booked once, appropriated, receipted; and undone by an entry that names the first. */
@Service
public class PaymentsService {
    private final Payments payments;
    private final RequestKeys keys;
    private final BeforeInvoices before;
    private final PaymentBooking booking;
    private final RecordedReading reading;
    private final Settling settling;
    private final ClientsService clients;
    private final BusinessClock clock;

    PaymentsService(
            Payments payments,
            RequestKeys keys,
            BeforeInvoices before,
            PaymentBooking booking,
            RecordedReading reading,
            Settling settling,
            ClientsService clients,
            BusinessClock clock) {
        this.payments = payments;
        this.keys = keys;
        this.before = before;
        this.booking = booking;
        this.reading = reading;
        this.settling = settling;
        this.clients = clients;
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
            ClientId clientId,
            DocumentId invoiceId,
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
                ClientId clientId,
                DocumentId invoiceId,
                String way,
                String amount,
                String valueOn,
                String reference) {
            this(key, clientId, invoiceId, way, null, amount, valueOn, reference, false);
        }

        /** For the oldest of what is owed, or for the invoice; with a receipt. */
        public Recorded(
                String key,
                ClientId clientId,
                DocumentId invoiceId,
                String way,
                String currency,
                String amount,
                String valueOn,
                String reference,
                boolean held) {
            this(key, clientId, invoiceId, way, currency, amount, valueOn, reference, held, List.of(), false);
        }
    }

    /** A payment as the processor tells it. @param way by card or by bank debit @param installments that it is for; none where it is a deposit on a quote @param onTop what came beside the amount */
    public record ByProcessor(
            String key,
            PaymentWay way,
            ClientId clientId,
            DocumentId invoiceId,
            Set<Long> installments,
            Money amount,
            Money fee,
            LocalDate paidOn,
            String card,
            String processorPayment,
            Payer payer,
            OnTop onTop) {}

    /**
     * Records money that came by transfer, in cash or by cheque. The same key twice is one payment;
     * the same key for something else is refused.
     *
     * @throws RefusedException naming {@code amount}, {@code way} or {@code valueOn}
     */
    @Transactional
    public Payment record(Recorded r) {
        Texts.key(r.key(), "payment");
        Optional<Long> made = keys.take(r.key(), r);
        if (made.isPresent()) {
            return payments.find(made.get());
        }
        clients.lock(r.clientId());
        if (payments.isUsed(r.key())) {
            throw new ConflictException("This request's key was used for another payment. Nothing was recorded.");
        }
        Payment payment = recordOnce(r);
        keys.made(r.key(), payment.id());
        return payment;
    }

    /** Whoever paid pays for the client from now on. @throws ConflictException where nobody else did, or gave no address */
    @Transactional
    public void setPayer(long paymentId) {
        Payment payment = payments.find(paymentId);
        Payer payer = payment.means().payer();
        if (payer == null || payer.email().isEmpty()) {
            throw new ConflictException("Whoever paid this left no e-mail address.");
        }
        clients.setPayer(payment.clientId(), payer.name(), payer.email());
    }

    private Payment recordOnce(Recorded r) {
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit currency = reading.currency(r, problems);
        Money amount = TypedNumber.amount("amount", r.amount(), currency, problems);
        if (amount != null && amount.isZero()) {
            problems.add(new Problem("amount", r.amount(), "must be above zero"));
        }
        LocalDate valueOn = valueOn(r.valueOn(), problems);
        if (amount != null && reading.beyondBooks(amount)) {
            problems.add(new Problem(
                    "amount",
                    r.amount(),
                    "is above " + TypedNumber.LARGEST_IN_WORDS + " in the currency of your books"));
        }
        PaymentWay way = PaymentWay.recorded("way", r.way(), problems);
        String reference = Texts.name("reference", r.reference(), 200, false, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        Document named = reading.paidFor(r);
        PaymentRepository.New payment = new PaymentRepository.New(
                r.key(),
                r.clientId(),
                named == null ? null : named.id(),
                way,
                amount,
                Money.zero(currency),
                valueOn,
                clock.today(),
                reference,
                PaymentRepository.Online.none(amount),
                r.held());
        if (named != null && named.kind() == DocumentKind.QUOTE) {
            return before.forQuote(payment, false, !r.silent());
        }
        if (r.held()) {
            return before.hold(payment);
        }
        ClientLedger ledger = settling.ledger(r.clientId(), currency);
        Set<Long> debts = reading.named(r, payment.invoiceId(), ledger.open());
        return booking.book(payment, money -> ledger.receive(money, debts), !r.silent());
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
     * open, and what is left then waits for a person to look at it. What comes through a payment link names no debt: its
     * payer meant it for something else than what is open, so that it is held until there is an invoice for it.
     */
    @Transactional(propagation = Propagation.MANDATORY)
    public Payment bookProcessors(ByProcessor c) {
        clients.lock(c.clientId());
        Optional<Payment> booked = payments.byKey(c.key());
        if (booked.isPresent()) {
            return booked.get();
        }
        PaymentRepository.New payment = new PaymentRepository.New(
                c.key(),
                c.clientId(),
                c.invoiceId(),
                c.way(),
                c.amount(),
                c.fee(),
                c.paidOn(),
                clock.today(),
                "",
                new PaymentRepository.Online(c.card(), c.processorPayment(), c.onTop()),
                false);
        if (c.invoiceId() == null) {
            Payment held = before.hold(payment.becomes(null, true));
            String known = clients.client(c.clientId()).email();
            return c.payer().email().equalsIgnoreCase(known) ? held : before.paidBy(held, c.payer());
        }
        if (c.installments().isEmpty()) {
            return before.paidBy(before.forQuote(payment, true, true), c.payer());
        }
        ClientLedger ledger = settling.ledger(c.clientId(), c.amount().getCurrencyUnit());
        return before.paidBy(
                booking.book(payment, money -> ledger.receiveFor(money, c.installments()), booking.areReceiptsSent()),
                c.payer());
    }
}
