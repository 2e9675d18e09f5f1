package quill.server.paylinks;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.document.TypedDraft;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.core.schedule.TypedTerm;
import quill.server.business.BusinessService;
import quill.server.cardorders.OrderViews;
import quill.server.common.BusinessClock;
import quill.server.common.ConflictException;
import quill.server.common.NotFoundException;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.invoices.InvoicesService;
import quill.server.payments.Payment;
import quill.server.payments.Payments;

/** Makes an invoice of what came through a payment link: one line at the price that was paid, its taxes inside, paid already. */
@Service
public class LinkInvoicing {
    private final LinkPaymentRepository begun;
    private final PaymentLinks links;
    private final OrderViews orders;
    private final Payments payments;
    private final Documents documents;
    private final InvoicesService invoices;
    private final BusinessService business;
    private final BusinessClock clock;

    LinkInvoicing(
            LinkPaymentRepository begun,
            PaymentLinks links,
            OrderViews orders,
            Payments payments,
            Documents documents,
            InvoicesService invoices,
            BusinessService business,
            BusinessClock clock) {
        this.begun = begun;
        this.links = links;
        this.orders = orders;
        this.payments = payments;
        this.documents = documents;
        this.invoices = invoices;
        this.business = business;
        this.clock = clock;
    }

    /**
     * Begins the draft; the one that was begun before, where there is one.
     *
     * @return its id
     * @throws ConflictException where the money came through no link, or went back
     */
    @Transactional
    public DocumentId begin(long paymentId) {
        Payment payment = payments.find(paymentId);
        Long came = orders.ofKey(payments.keyOf(paymentId))
                .map(OrderViews.Seen::linkPayment)
                .orElse(null);
        if (came == null) {
            throw new ConflictException("This did not come through a payment link.");
        }
        LinkPaymentRepository.Begun b =
                begun.lock(came).orElseThrow(() -> new NotFoundException("There is no such payment."));
        boolean stands = b.invoiceId() != null
                && documents.find(b.invoiceId()).filter(this::stands).isPresent();
        if (stands) {
            return b.invoiceId();
        }
        Money left = payment.amount().money().minus(payment.back().amount().money());
        if (payment.undone() != null || !left.isPositive()) {
            throw new ConflictException("This money went back: there is nothing to invoice.");
        }
        DocumentId id = invoices.begin(draft(b, payment, left));
        begun.invoiced(b.id(), id);
        return id;
    }

    /** What was paid, and its delivery where something was paid for that and nothing went back. */
    private static List<TypedDraft.TypedLine> lines(LinkPaymentRepository.Begun b, Money left, List<String> taxes) {
        boolean delivered = b.delivery().isPositive() && left.isEqual(b.amount());
        Money goods = delivered ? left.minus(b.delivery()) : left;
        List<TypedDraft.TypedLine> lines = new ArrayList<>();
        if (goods.isPositive()) {
            lines.add(new TypedDraft.TypedLine(b.title(), "1", "", Amounts.plain(goods), "", taxes));
        }
        if (delivered) {
            lines.add(new TypedDraft.TypedLine("Delivery", "1", "", Amounts.plain(b.delivery()), "", taxes));
        }
        return lines;
    }

    private boolean stands(Document invoice) {
        return invoice.voidedOn() == null;
    }

    private TypedDraft draft(LinkPaymentRepository.Begun b, Payment payment, Money left) {
        Set<String> retired = business.retiredTaxes();
        List<String> taxes = links.find(b.linkId()).taxes().stream()
                .filter(t -> business.taxes().containsKey(t) && !retired.contains(t))
                .toList();
        String today = clock.today().toString();
        return TypedDraft.in(left.getCurrencyUnit().getCode())
                .client(payment.clientId())
                .subject(b.title())
                .supplyDate(today)
                .taxInside(true)
                .lines(lines(b, left, taxes))
                .prepaid(Amounts.plain(left))
                .schedule(List.of(new TypedTerm(false, "rest", "0")))
                .build();
    }
}
