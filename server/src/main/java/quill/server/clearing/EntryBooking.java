package quill.server.clearing;

import java.util.Set;
import org.joda.money.Money;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.money.Amounts;
import quill.server.cardorders.ForLinks;
import quill.server.cardorders.OrderViews;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.Changes;
import quill.server.common.News;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.dispatch.MoneyLetters;
import quill.server.payments.Payment;
import quill.server.payments.Payments;
import quill.server.payments.ProcessorMoney;
import quill.server.processor.CardProcessor;

/** Books one entry of a processor's account, within the caller's transaction. */
@Component
@Transactional(propagation = Propagation.MANDATORY)
class EntryBooking {
    private final EntryRepository entries;
    private final OrderViews orders;
    private final Payments payments;
    private final ProcessorMoney money;
    private final RefundOrders refunds;
    private final DisputeRepository disputes;
    private final Reporting reporting;
    private final Changes changes;

    EntryBooking(
            EntryRepository entries,
            OrderViews orders,
            Payments payments,
            ProcessorMoney money,
            RefundOrders refunds,
            DisputeRepository disputes,
            Reporting reporting,
            Changes changes) {
        this.entries = entries;
        this.orders = orders;
        this.payments = payments;
        this.money = money;
        this.refunds = refunds;
        this.disputes = disputes;
        this.reporting = reporting;
        this.changes = changes;
    }

    /** Tells the business what came of its money without it. */
    @Component
    static class Reporting {
        private final ApplicationEventPublisher publisher;
        private final ClientsService clients;
        private final MoneyLetters letters;
        private final ForLinks links;

        Reporting(ApplicationEventPublisher publisher, ClientsService clients, MoneyLetters letters, ForLinks links) {
            this.publisher = publisher;
            this.clients = clients;
            this.letters = letters;
            this.links = links;
        }

        /** Tells whoever paid, kindly. @param paymentId 0 where none was booked @param about what it had paid; null for nothing */
        void cameBack(OrderViews.Seen order, String key, long paymentId, DocumentId about, Money amount, String why) {
            if (about != null) {
                letters.cameBack(key, paymentId, about, amount, why);
            } else if (order.linkPayment() != null) {
                links.cameBack(order.linkPayment(), key, paymentId, amount, why);
            }
        }

        /** @param what after the client's name and “'s payment of …” */
        void tell(ClientId client, DocumentId document, Money amount, String what) {
            publisher.publishEvent(new News(
                    News.Kind.CAME_BACK,
                    clients.client(client).name() + ": " + Shown.money(amount) + " " + what,
                    Amount.of(amount),
                    client,
                    document));
        }
    }

    /**
     * Books it.
     *
     * @return the movement that it is, or of which it is; null for none
     * @throws RefusedException where it cannot be booked, saying why
     */
    Long book(long processor, CardProcessor.Entry e) {
        if (e.kind() == null) {
            throw refused(e, "the card processor booked something that is not known here");
        }
        String key = "processor-" + processor + "-entry-" + e.number();
        return switch (e.kind()) {
            case TAKEN -> taken(e);
            case REFUSED -> refusedDebit(key, e);
            case RETURNED -> returned(key, e);
            case REFUNDED -> seen(refunds.gone(e.key()));
            case REFUND_FAILED -> refunds.failed(e.key(), key, e);
            case CONTESTED -> contested(processor, key, e);
            case CONTEST_WON, CONTEST_LOST -> decided(processor, key, e);
            case PAID_OUT -> paidOut(processor, key, e);
        };
    }

    /** Says nothing to anybody; but whoever looks at the payment sees that its money has gone. */
    private Long seen(Long refund) {
        Payment p = payments.ofRefund(refund);
        changes.say(p.invoiceId(), p.clientId());
        return refund;
    }

    private static RefusedException refused(CardProcessor.Entry e, String why) {
        return new RefusedException("entry", String.valueOf(e.number()), why);
    }

    /** Its order was taken in before; here it is only compared. */
    private Long taken(CardProcessor.Entry e) {
        Payment p = payment(e);
        if (!p.total().isEqual(e.amount()) || !p.fee().money().isEqual(e.cost())) {
            throw refused(
                    e,
                    "the card processor booked " + Amounts.grouped(e.amount()) + " less " + Amounts.grouped(e.cost())
                            + ", and here it is " + Amounts.grouped(p.total()) + " less "
                            + Amounts.grouped(p.fee().money()));
        }
        changes.proved(p.invoiceId(), p.clientId());
        return p.id();
    }

    private Payment payment(CardProcessor.Entry e) {
        return payments.byKey(e.key() == null ? "" : e.key())
                .orElseThrow(() -> refused(e, "the card processor names a payment that is not known here"));
    }

    private Long refusedDebit(String key, CardProcessor.Entry e) {
        OrderViews.Seen whose = orders.ofKey(e.key())
                .orElseThrow(() -> refused(e, "the card processor names an order that is not known here"));
        money.costOnly(whose.clientId(), whose.invoiceId(), e.cost());
        reporting.cameBack(whose, key, 0, whose.invoiceId(), whose.amount(), e.reason());
        return null;
    }

    private Long returned(String key, CardProcessor.Entry e) {
        ProcessorMoney.Gone gone = money.wentBack(new ProcessorMoney.WentBack(
                payment(e).id(), key, false, e.amount().negated(), e.cost(), e.on(), e.reason()));
        Payment p = gone.payment();
        DocumentId about = gone.about();
        orders.ofKey(e.key())
                .ifPresent(o ->
                        reporting.cameBack(o, key, p.id(), about, e.amount().negated(), e.reason()));
        reporting.tell(
                p.clientId(),
                about,
                e.amount().negated(),
                "by bank debit came back, " + e.reason() + ". What it had paid is open again.");
        return gone.movementId();
    }

    private Long contested(long processor, String key, CardProcessor.Entry e) {
        ProcessorMoney.Gone gone = money.wentBack(new ProcessorMoney.WentBack(
                payment(e).id(), key, true, e.amount().negated(), e.cost(), e.on(), e.reason()));
        DocumentId about = gone.about();
        disputes.insert(processor, e, gone.payment(), gone.movementId(), about);
        reporting.tell(
                gone.payment().clientId(),
                about,
                e.amount().negated(),
                "is contested, “" + e.reason() + "”. Answer by " + Texts.day(e.answerBy()) + ".");
        return gone.movementId();
    }

    private Long decided(long processor, String key, CardProcessor.Entry e) {
        Dispute d = disputes.byContest(processor, e.subject())
                .orElseThrow(() -> refused(e, "the card processor decided something that is not known here"));
        boolean won = e.kind() == CardProcessor.Booked.CONTEST_WON;
        if (won) {
            money.won(d.paymentId(), key, e.amount(), e.on());
        } else {
            money.lost(d.paymentId());
        }
        disputes.decided(d.id(), won, e.on());
        reporting.tell(
                d.clientId(),
                d.documentId(),
                d.amount().money(),
                won ? "that was contested is won back." : "that was contested is lost; what it had paid stays open.");
        return d.movementId();
    }

    private Long paidOut(long processor, String key, CardProcessor.Entry e) {
        Set<Long> made = entries.payments(processor, e.entries());
        long payout = money.paidOut(key, e.amount().negated(), e.on(), made);
        entries.paidOut(processor, e.entries(), payout);
        return payout;
    }
}
