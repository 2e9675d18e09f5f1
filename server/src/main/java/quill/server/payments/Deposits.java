package quill.server.payments;

import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.ledger.Bookings;
import quill.core.ledger.Receipt;
import quill.core.money.Amounts;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.debts.Settling;

/** Money held for work to come: it settles nothing by itself; an invoice deducts it as prepaid when it is issued. */
@Component
@Transactional(propagation = Propagation.MANDATORY)
class Deposits {
    private final PaymentKeeping keeping;
    private final OnTops onTops;
    private final BooksService books;
    private final Settling settling;
    private final Happenings happenings;
    private final Changes changes;

    Deposits(
            PaymentKeeping keeping,
            OnTops onTops,
            BooksService books,
            Settling settling,
            Happenings happenings,
            Changes changes) {
        this.keeping = keeping;
        this.onTops = onTops;
        this.books = books;
        this.settling = settling;
        this.happenings = happenings;
        this.changes = changes;
    }

    /** Books a deposit. @return the payment's id */
    long hold(PaymentRepository.New p) {
        Payment payment = keeping.keep(p);
        long id = payment.id();
        String how = payment.words();
        CurrencyUnit currency = p.amount().getCurrencyUnit();
        settling.keep(
                p.clientId(),
                settling.ledger(p.clientId(), currency)
                        .hold(new Receipt(id, p.way().account(), p.amount())),
                p.valueOn(),
                step -> books.book(
                        step.entry(),
                        "Deposit " + how + " · held for work to come" + payment.referenceWords(),
                        new BooksService.About(p.clientId(), null, id),
                        null));
        if (p.fee().isPositive()) {
            books.book(
                    Bookings.processingFee(p.fee()),
                    "Processing fee",
                    new BooksService.About(p.clientId(), null, id),
                    null);
        }
        onTops.came(payment, p.online().onTop());
        happenings.tell(
                p.invoiceId(),
                p.clientId(),
                Amounts.grouped(p.amount()) + " received " + how + ", held as a deposit",
                Happenings.About.payment(id));
        return id;
    }

    /** Takes one back that was recorded wrongly. @throws ConflictException where an invoice deducted some of it */
    void undo(Payment payment, String reason) {
        Money amount = payment.amount().money();
        Money held =
                settling.ledger(payment.clientId(), amount.getCurrencyUnit()).deposits();
        if (amount.isGreaterThan(held)) {
            throw new ConflictException("Only " + Amounts.grouped(held)
                    + " of deposits is still held: an invoice deducted the rest. Take that invoice back first.");
        }
        settling.undoDeposit(
                payment.clientId(),
                new Receipt(payment.id(), payment.means().way().account(), amount),
                step -> books.book(
                        step.entry(),
                        "Undone: deposit " + payment.words() + " · " + reason,
                        new BooksService.About(payment.clientId(), null, payment.id()),
                        books.entryOfPayment(payment.id())));
        changes.say(payment.invoiceId(), payment.clientId());
    }
}
