package quill.server.payments;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.id.DocumentId;
import quill.core.ledger.Appropriation;
import quill.core.ledger.Receipt;
import quill.core.money.Amounts;
import quill.core.pay.PaymentWay;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.clients.ClientsService;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.debts.Settling;
import quill.server.dispatch.MoneyLetters;

/** Takes back payments that were recorded wrongly. */
@Service
public class Undoing {
    private final Payments payments;
    private final BeforeInvoices before;
    private final BooksService books;
    private final Settling settling;
    private final ClientsService clients;
    private final MoneyLetters letters;
    private final Happenings happenings;

    Undoing(
            Payments payments,
            BeforeInvoices before,
            BooksService books,
            Settling settling,
            ClientsService clients,
            MoneyLetters letters,
            Happenings happenings) {
        this.payments = payments;
        this.before = before;
        this.books = books;
        this.settling = settling;
        this.clients = clients;
        this.letters = letters;
        this.happenings = happenings;
    }

    /** Takes back what a person recorded wrongly. What it settled is open again. */
    @Transactional
    public Payment undo(long id, String why) {
        Payment payment = payments.find(id);
        PaymentWay way = payment.means().way();
        if (!way.isByHand()) {
            throw new RefusedException(
                    "way",
                    way.name(),
                    "a " + way.word()
                            + " payment was really made, so it cannot be undone; only a refund gives it back");
        }
        String reason = Texts.reason("why", why);
        clients.lock(payment.clientId());
        if (payments.find(id).back().amount().money().isPositive()) {
            throw new ConflictException("A part of this payment went back already, so it was really made. "
                    + "Give the rest back too, or move it to another debt.");
        }
        payments.markUndone(payment, reason);
        if (payment.held()) {
            before.undo(payment, reason);
            return payments.find(id);
        }
        Money amount = payment.amount().money();
        List<Appropriation.Part> was = settling.undo(
                payment.clientId(),
                new Receipt(id, way.account(), amount),
                step -> books.book(
                        step.entry(),
                        "Undone: " + payment.words() + " · " + reason,
                        new BooksService.About(payment.clientId(), payment.invoiceId(), id),
                        books.entryOfPayment(id)));
        Set<DocumentId> touched = was.stream().map(p -> p.debt().document()).collect(Collectors.toSet());
        touched.forEach(invoice -> happenings.note(
                invoice,
                payment.clientId(),
                "Payment of " + Amounts.grouped(amount) + " " + payment.words() + " undone: " + reason,
                Happenings.About.payment(id)));
        DocumentId receiptWasFor = payment.invoiceId() != null
                ? payment.invoiceId()
                : touched.stream().min(DocumentId::compareTo).orElse(null);
        if (receiptWasFor != null) {
            letters.takeReceiptBack(id, receiptWasFor, amount);
        }
        return payments.find(id);
    }
}
