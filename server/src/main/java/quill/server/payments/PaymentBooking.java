package quill.server.payments;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.DocumentId;
import quill.core.ledger.Appropriation;
import quill.core.ledger.Bookings;
import quill.core.ledger.ClientLedger;
import quill.core.ledger.Lot;
import quill.core.ledger.OnTop;
import quill.core.ledger.Receipt;
import quill.core.ledger.Step;
import quill.core.money.Amounts;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.common.Changes;
import quill.server.debts.Settling;
import quill.server.dispatch.MoneyLetters;

/** Books money that has arrived, with all that follows from it; the caller has locked the client. */
@Component
@Transactional(propagation = Propagation.MANDATORY)
class PaymentBooking {
    private final PaymentRepository repository;
    private final PaymentKeeping keeping;
    private final OnTops onTops;
    private final BooksService books;
    private final Settling settling;
    private final MoneyLetters letters;
    private final Happenings happenings;
    private final Changes changes;

    PaymentBooking(
            PaymentRepository repository,
            PaymentKeeping keeping,
            OnTops onTops,
            BooksService books,
            Settling settling,
            MoneyLetters letters,
            Happenings happenings,
            Changes changes) {
        this.repository = repository;
        this.keeping = keeping;
        this.onTops = onTops;
        this.books = books;
        this.settling = settling;
        this.letters = letters;
        this.happenings = happenings;
        this.changes = changes;
    }

    /** Whether whoever pays by itself is sent anything. */
    boolean areReceiptsSent() {
        return letters.areReceiptsSent();
    }

    /**
     * Books it with its fee, and settles what it is for.
     *
     * @param decide what the money settles
     * @param receipted whether a receipt goes
     * @return the payment
     */
    Payment book(PaymentRepository.New p, Function<Receipt, ClientLedger.Decision> decide, boolean receipted) {
        Payment payment = keeping.keep(p);
        long id = payment.id();
        var about = new BooksService.About(p.clientId(), p.invoiceId(), id);
        ClientLedger.Decision decision = decide.apply(new Receipt(id, p.way().account(), p.amount()));
        Step received = decision.steps().get(0);
        List<Appropriation.Part> settled = new ArrayList<>(received.settled());
        String numbers =
                settled.stream().map(a -> a.debt().number()).distinct().limit(6).collect(Collectors.joining(", "));
        String text = capital(payment.words())
                + (numbers.isEmpty() ? " · held as client credit" : " · to " + numbers)
                + payment.referenceWords();
        settling.keep(p.clientId(), decision, p.valueOn(), step -> {
            long entry = books.book(step.entry(), text, about, null);
            if (p.valueOn().isBefore(p.bookedOn())) {
                settling.paidEarlier(id, p.valueOn(), settled, entry);
            }
            return entry;
        });
        if (p.fee().isPositive()) {
            books.book(Bookings.processingFee(p.fee()), "Processing fee", about, null);
        }
        OnTop top = p.online().onTop();
        onTops.came(payment, top);
        Money credit = Amounts.sum(
                p.amount().getCurrencyUnit(),
                received.made().stream().map(Lot::left).toList());
        List<Appropriation.Part> all = new ArrayList<>(settled);
        if (credit.isPositive()) {
            all.addAll(settling.useCredit(p.clientId(), p.amount().getCurrencyUnit()));
        }
        Money held = heldOf(p, credit, id);
        String what = Amounts.grouped(p.amount()) + " received " + payment.words()
                + (held.isPositive() ? "; " + Amounts.grouped(held) + " of it is held as client credit" : "")
                + (top.isAny() ? "; and " + OnTops.words(top) : "")
                + (receipted ? "" : "; no receipt was sent");
        all.stream()
                .map(a -> a.debt().document())
                .distinct()
                .forEach(invoice -> happenings.note(invoice, p.clientId(), what, Happenings.About.payment(id)));
        if (all.isEmpty()) {
            happenings.note(p.invoiceId(), p.clientId(), what, Happenings.About.payment(id));
        }
        DocumentId receiptFor = p.invoiceId() != null
                ? p.invoiceId()
                : all.isEmpty() ? null : all.get(0).debt().document();
        if (receipted && receiptFor != null) {
            letters.receipt(
                    receiptFor, new MoneyLetters.Arrived(id, p.amount(), payment.words(), p.valueOn(), all, held, top));
        }
        changes.say(p.invoiceId(), p.clientId());
        // Only what is held, or came on top, changes what was read of it when it was kept.
        return held.isPositive() || top.isAny() ? repository.find(id).orElseThrow() : payment;
    }

    /** What is left of a payment once credit has settled all else that is open; card money left over is unexpected. */
    private Money heldOf(PaymentRepository.New p, Money credit, long id) {
        if (!credit.isPositive()) {
            return credit;
        }
        Money free = settling.ledger(p.clientId(), credit.getCurrencyUnit()).free();
        Money held = Amounts.min(credit, free);
        if (held.isPositive() && !p.way().isByHand()) {
            repository.unexpected(id);
        }
        return held;
    }

    private static String capital(String words) {
        return Character.toUpperCase(words.charAt(0)) + words.substring(1);
    }
}
