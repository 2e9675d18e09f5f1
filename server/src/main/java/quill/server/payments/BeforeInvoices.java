package quill.server.payments;

import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.core.ledger.ClientLedger;
import quill.server.debts.Settling;
import quill.server.dispatch.DepositLetters;
import quill.server.dispatch.ReceiptCopies;

/** Books money that comes before there is an invoice for it: deposits, on accepted quotes or for no document yet. */
@Component
@Transactional(propagation = Propagation.MANDATORY)
class BeforeInvoices {
    private final QuoteMoney quotes;
    private final Payments payments;
    private final Deposits deposits;
    private final PaymentBooking booking;
    private final RecordedReading reading;
    private final Settling settling;
    private final DepositLetters letters;
    private final ReceiptCopies receipts;

    BeforeInvoices(
            QuoteMoney quotes,
            Payments payments,
            Deposits deposits,
            PaymentBooking booking,
            RecordedReading reading,
            Settling settling,
            DepositLetters letters,
            ReceiptCopies receipts) {
        this.quotes = quotes;
        this.payments = payments;
        this.deposits = deposits;
        this.booking = booking;
        this.reading = reading;
        this.settling = settling;
        this.letters = letters;
        this.receipts = receipts;
    }

    /** Held for work to come, for no quote. */
    Payment hold(PaymentRepository.New p) {
        return payments.find(deposits.hold(p));
    }

    /**
     * Money for an accepted quote: the document that it settles is made with it, or it is held as a deposit.
     *
     * @param p for the quote
     * @param asked whether it was paid because it was asked for
     */
    Payment forQuote(PaymentRepository.New p, boolean asked, boolean receipted) {
        DocumentId quote = p.invoiceId();
        QuoteMoney.Becomes to = quotes.receive(quote, p.amount(), p.valueOn(), asked);
        Payment payment = to.held()
                ? payments.find(deposits.hold(p.becomes(quote, true)))
                : settle(p.becomes(to.settles(), false), receipted);
        quotes.booked(quote);
        if (to.held() && receipted) {
            letters.deposit(quote, payment.id(), p.amount(), payment.words(), p.valueOn(), quotes.missing(quote));
        }
        return payment;
    }

    /** Somebody else than the client paid: it gets the receipt too. */
    Payment paidBy(Payment payment, Payer payer) {
        if (payer.isNobody()) {
            return payment;
        }
        payments.paidBy(payment, payer);
        receipts.to(payer.email(), payment.id());
        return payments.find(payment.id());
    }

    /** A deposit was recorded wrongly. */
    void undo(Payment payment, String reason) {
        deposits.undo(payment, reason);
        if (payment.invoiceId() != null) {
            DocumentId quote = payment.invoiceId();
            quotes.booked(quote);
            letters.undone(quote, payment.id(), payment.amount().money(), quotes.missing(quote));
        }
    }

    private Payment settle(PaymentRepository.New p, boolean receipted) {
        ClientLedger ledger = settling.ledger(p.clientId(), p.amount().getCurrencyUnit());
        Set<Long> debts = p.invoiceId() == null ? Set.of() : reading.installmentsOf(p.invoiceId());
        return booking.book(p, money -> ledger.receiveFor(money, debts), receipted);
    }
}
