package quill.server.today;

import java.util.List;
import org.springframework.stereotype.Component;
import quill.core.money.Amounts;
import quill.server.cardorders.CardOrders;
import quill.server.clearing.ClearingWaits;
import quill.server.clients.ClientsService;
import quill.server.collections.SavedWaits;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.latefees.LateFees;
import quill.server.paylinks.LinkWaits;
import quill.server.payments.Payment;
import quill.server.payments.Payments;

/** Money that only a person can decide about. */
@Component
class MoneyNeeds {
    private final Payments payments;
    private final CardOrders orders;
    private final LateFees fees;
    private final ClientsService clients;
    private final ClearingWaits clearing;
    private final DocumentNeeds documents;
    private final SavedWaits saved;
    private final LinkWaits links;

    MoneyNeeds(
            Payments payments,
            CardOrders orders,
            LateFees fees,
            ClientsService clients,
            ClearingWaits clearing,
            DocumentNeeds documents,
            SavedWaits saved,
            LinkWaits links) {
        this.documents = documents;
        this.saved = saved;
        this.links = links;
        this.clearing = clearing;
        this.payments = payments;
        this.orders = orders;
        this.fees = fees;
        this.clients = clients;
    }

    /** The same of quotes and milestones. */
    DocumentNeeds documents() {
        return documents;
    }

    /** What was planned and not taken, cards that end, and what came through a link and is not invoiced. */
    void later(List<Needs.Need> needs) {
        saved.all()
                .forEach(w -> needs.add(
                        new Needs.Need(w.kind(), w.id(), w.documentId(), w.clientId(), null, w.title(), w.text())));
        links.untaxed()
                .forEach(u -> needs.add(new Needs.Need(
                        "untaxed",
                        u.paymentId(),
                        null,
                        u.clientId(),
                        null,
                        "Taxes are not booked yet: " + Shown.money(u.amount()) + ", "
                                + clients.client(u.clientId()).name(),
                        "It came through “" + u.title()
                                + "” with its taxes inside. Make its invoice, so that they are booked.")));
    }

    /** Payments that are contested: they are lost without an answer. */
    void contested(List<Needs.Need> needs) {
        clearing.disputes()
                .forEach(d -> needs.add(new Needs.Need(
                        "dispute",
                        d.paymentId(),
                        null,
                        d.clientId(),
                        null,
                        "Contested: " + Shown.money(d.amount().money()) + ", "
                                + clients.client(d.clientId()).name(),
                        "“" + d.reason() + "”. Answer by " + Texts.day(d.days().answerBy())
                                + "; without an answer it is lost.")));
    }

    private void notArrived(List<Needs.Need> needs) {
        clearing.notArrived()
                .forEach(r -> needs.add(new Needs.Need(
                        "refund",
                        r.id(),
                        null,
                        r.payment().clientId(),
                        null,
                        "A refund did not arrive: " + Shown.money(r.amount()) + ", "
                                + clients.client(r.payment().clientId()).name(),
                        "The card processor says: " + r.why()
                                + ". The money is here again. Give it back in another way.")));
    }

    void unbooked(List<Needs.Need> needs) {
        notArrived(needs);
        clearing.unbooked()
                .forEach(u -> needs.add(new Needs.Need(
                        "entry",
                        u.number(),
                        null,
                        null,
                        null,
                        "The card processor booked what could not be booked here: "
                                + Shown.money(u.amount().money()),
                        u.why() + " It is entry " + u.number() + " of its account, and is tried again by itself.")));
        for (CardOrders.Trouble t : orders.troubles()) {
            needs.add(new Needs.Need(
                    "order",
                    t.orderId(),
                    t.invoiceId(),
                    t.clientId(),
                    null,
                    "Card money that could not be booked: " + Shown.money(t.amount()) + ", "
                            + (t.clientId() == null
                                    ? "through a payment link"
                                    : clients.client(t.clientId()).name()),
                    t.why() + " Look at it at the card processor; it is tried again by itself."));
        }
    }

    void unexpected(List<Needs.Need> needs) {
        for (Payment p : payments.unexpected()) {
            needs.add(new Needs.Need(
                    "payment",
                    p.id(),
                    p.invoiceId(),
                    p.clientId(),
                    null,
                    p.held() ? "What is paid once was paid a second time" : "Money came that nothing was open for",
                    Amounts.grouped(p.amount().money()) + " " + p.words() + " from "
                            + clients.client(p.clientId()).name()
                            + (p.held()
                                    ? " is held as a deposit. Give it back, or agree with them what it is for."
                                    : " is held as client credit. Give it back, or let it settle what comes next.")));
        }
    }

    void feesPutUp(List<Needs.Need> needs) {
        for (LateFees.PutUp p : fees.putUpForWaiving()) {
            LateFees.StoredFee fee = p.fee();
            needs.add(new Needs.Need(
                    "fee",
                    fee.id(),
                    fee.invoiceId(),
                    fee.clientId(),
                    null,
                    "Waive this late fee? " + Shown.money(fee.amount().money()) + ", "
                            + clients.client(fee.clientId()).name(),
                    "It was charged on " + Texts.day(fee.chargedOn()) + ", but a payment dated " + Texts.day(p.paidOn())
                            + " has been recorded since."));
        }
    }
}
