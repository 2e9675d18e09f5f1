package quill.server.payments;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.ledger.Receipt;
import quill.core.ledger.Step;
import quill.core.money.Amounts;
import quill.core.money.TypedNumber;
import quill.core.pay.PaymentWay;
import quill.server.audit.Happenings;
import quill.server.books.BooksService;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Changes;
import quill.server.common.ConflictException;
import quill.server.common.Texts;
import quill.server.debts.Settling;

/** Money that goes back to a client by hand: out of its credit, or out of deposits that are held for it. */
@Service
public class Refunds {
    private final PaymentRepository repository;
    private final PaymentNames names;
    private final RequestKeys keys;
    private final Settling settling;
    private final RefundBooking booking;
    private final ClientsService clients;
    private final BusinessClock clock;
    private final QuoteMoney quotes;

    Refunds(
            PaymentRepository repository,
            PaymentNames names,
            RequestKeys keys,
            Settling settling,
            RefundBooking booking,
            ClientsService clients,
            BusinessClock clock,
            QuoteMoney quotes) {
        this.repository = repository;
        this.names = names;
        this.keys = keys;
        this.settling = settling;
        this.booking = booking;
        this.clients = clients;
        this.clock = clock;
        this.quotes = quotes;
    }

    /**
     * A refund as a person records it.
     *
     * @param key the same twice is one refund
     * @param quoteId the quote whose deposit goes back; null for none
     * @param deposit whether it comes out of deposits that are held rather than out of client credit
     */
    public record Given(
            String key,
            ClientId clientId,
            DocumentId quoteId,
            boolean deposit,
            String way,
            String currency,
            String amount,
            String paidOn,
            String reference) {}

    /**
     * Books it, once.
     *
     * @throws RefusedException naming the field, with the figure that would be allowed
     * @throws ConflictException where the key was used for something else
     */
    @Transactional
    public void give(Given g) {
        List<Problem> problems = new ArrayList<>();
        Texts.key(g.key(), "refund", problems);
        CurrencyUnit currency = TypedNumber.currency("currency", g.currency(), problems);
        Money amount = currency == null ? null : TypedNumber.amount("amount", g.amount(), currency, problems);
        if (amount != null && !amount.isPositive()) {
            problems.add(new Problem("amount", g.amount(), "must be above zero"));
        }
        PaymentWay way = PaymentWay.recorded("way", g.way(), problems);
        LocalDate today = clock.today();
        LocalDate paidOn = PaidOn.read(g.paidOn(), today, problems);
        names.check("quoteId", g.clientId(), g.quoteId(), problems);
        String reference = Texts.name("reference", g.reference(), 200, false, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        if (keys.take(g.key(), g).isPresent()) {
            return;
        }
        clients.lock(g.clientId());
        if (repository.isUsed(g.key())) {
            throw new ConflictException("This request's key was used for another payment. Nothing was recorded.");
        }
        PaymentRepository.New p = new PaymentRepository.New(
                g.key(),
                g.clientId(),
                g.quoteId(),
                way,
                amount,
                Money.zero(currency),
                paidOn,
                today,
                reference,
                PaymentRepository.Online.none(amount),
                g.deposit());
        long id = repository.insertRefund(p, names.of(p.clientId(), p.invoiceId()), clock.instant());
        Receipt out = new Receipt(id, way.account(), amount);
        if (g.deposit()) {
            Set<Long> of = g.quoteId() == null
                    ? Set.of()
                    : repository.ofInvoice(g.quoteId(), List.of()).stream()
                            .map(Payment::id)
                            .collect(Collectors.toSet());
            settling.refundDeposit(g.clientId(), out, of, step -> booking.book(step, p, id));
        } else {
            settling.refund(g.clientId(), out, step -> booking.book(step, p, id));
        }
        keys.made(g.key(), id);
        booking.tell(p, id);
        if (g.quoteId() != null) {
            quotes.booked(g.quoteId());
        }
    }

    /** Its entry, and what is told of it. */
    @Component
    static class RefundBooking {
        private final BooksService books;
        private final Happenings happenings;
        private final Changes changes;

        RefundBooking(BooksService books, Happenings happenings, Changes changes) {
            this.books = books;
            this.happenings = happenings;
            this.changes = changes;
        }

        long book(Step step, PaymentRepository.New p, long id) {
            return books.book(
                    step.entry(),
                    "Given back " + p.way().words() + (p.held() ? " · a deposit" : " · client credit")
                            + (p.reference().isEmpty() ? "" : " · reference " + p.reference()),
                    new BooksService.About(p.clientId(), null, id),
                    null);
        }

        void tell(PaymentRepository.New p, long id) {
            happenings.tell(
                    p.invoiceId(),
                    p.clientId(),
                    Amounts.grouped(p.amount()) + " given back " + p.way().words()
                            + (p.held() ? ", of a deposit" : ", of client credit"),
                    Happenings.About.payment(id));
            changes.say(p.invoiceId(), p.clientId());
        }
    }
}
