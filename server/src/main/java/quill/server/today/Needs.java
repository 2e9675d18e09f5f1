package quill.server.today;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import quill.core.acts.Act;
import quill.core.money.Amounts;
import quill.server.chasing.ActView;
import quill.server.chasing.Chasing;
import quill.server.chasing.KeptReminder;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.dailyrun.ActViews;
import quill.server.dailyrun.DailyRun;
import quill.server.dailyrun.LoggedAct;
import quill.server.dispatch.DispatchService;
import quill.server.dispatch.Letters;
import quill.server.dispatch.Message;
import quill.server.invoices.Invoice;
import quill.server.invoices.InvoiceIndex;
import quill.server.latefees.LateFees;
import quill.server.payments.Payment;
import quill.server.payments.PaymentsService;
import quill.server.processor.CardOrders;

/** What only a person can decide. */
@Component
class Needs {
    private static final int MOST_DRAFTS = 30;
    private static final int MOST_ACTS = 200;
    private static final int MOST_UNANSWERED = 40;
    private static final int MOST_UNSENT = 20;
    private static final int MOST_KEPT = 40;
    private final DispatchService dispatch;
    private final ActViews acts;
    private final Chasing chasing;
    private final PaymentsService payments;
    private final CardOrders orders;
    private final LateFees fees;
    private final DailyRun run;
    private final ClientsService clients;
    private final InvoiceIndex index;

    Needs(
            DispatchService dispatch,
            ActViews acts,
            Chasing chasing,
            PaymentsService payments,
            CardOrders orders,
            LateFees fees,
            DailyRun run,
            ClientsService clients,
            InvoiceIndex index) {
        this.dispatch = dispatch;
        this.acts = acts;
        this.chasing = chasing;
        this.payments = payments;
        this.orders = orders;
        this.fees = fees;
        this.run = run;
        this.clients = clients;
        this.index = index;
    }

    /**
     * Something that only a person can decide.
     *
     * @param kind message, payment, order, fee (put up for waiving), review (a fee that waits), address, failed,
     *     kept (back until its day had passed), unanswered (late after the last step of the plan), unsent (issued, but not sent) or draft
     * @param key of the act, where it is one
     */
    record Need(
            String kind,
            long id,
            @Schema(nullable = true) Long invoiceId,
            @Schema(nullable = true) Long clientId,
            @Schema(nullable = true) String key,
            String title,
            String text) {}

    List<Need> all(LocalDate today) {
        List<Need> needs = new ArrayList<>();
        putUp(needs);
        // What waits for a review has come up already, and a missing address shows the day before.
        review(acts.page(today.plusDays(1), null, MOST_ACTS).acts(), today, needs);
        for (Message m : dispatch.needingSomebody()) {
            needs.add(new Need(
                    "message",
                    m.id(),
                    m.invoiceId(),
                    m.clientId(),
                    null,
                    "uncertain".equals(m.state()) ? "Did this letter arrive?" : "A letter could not be sent",
                    m.subject() + ", to " + m.to() + ". " + m.error()));
        }
        for (CardOrders.Trouble t : orders.troubles()) {
            needs.add(new Need(
                    "order",
                    t.orderId(),
                    t.invoiceId(),
                    t.clientId(),
                    null,
                    "Card money that could not be booked: " + Letters.shown(t.amount()) + ", "
                            + clients.client(t.clientId()).name(),
                    t.why() + " Look at it at the card processor; it is tried again by itself."));
        }
        for (Payment p : payments.unexpected()) {
            needs.add(new Need(
                    "payment",
                    p.id(),
                    p.invoiceId(),
                    p.clientId(),
                    null,
                    "Money came that nothing was open for",
                    Amounts.grouped(p.amount().money()) + " " + p.words() + " from "
                            + clients.client(p.clientId()).name()
                            + " is held as client credit. Give it back, or let it settle what comes next."));
        }
        for (LoggedAct a : run.failed()) {
            needs.add(new Need(
                    "failed",
                    a.id(),
                    a.invoiceId(),
                    a.clientId(),
                    a.key(),
                    "This could not be done on " + Letters.day(a.on()),
                    a.what() + ". " + a.reason()));
        }
        keptBack(needs);
        unanswered(today, needs);
        unsent(needs);
        drafts(needs);
        return needs;
    }

    /** What was kept back on its day does not go by itself any more; it stays in sight until somebody decides. */
    private void keptBack(List<Need> needs) {
        List<KeptReminder> kept = chasing.keptBack(MOST_KEPT);
        Map<Long, Client> byId =
                clients.some(kept.stream().map(KeptReminder::clientId).toList());
        for (KeptReminder p : kept) {
            needs.add(new Need(
                    "kept",
                    p.clientId(),
                    null,
                    p.clientId(),
                    p.key(),
                    "Kept back, and its day has passed: "
                            + byId.get(p.clientId()).name(),
                    p.what() + ". It does not go by itself any more."));
        }
    }

    private void unsent(List<Need> needs) {
        for (Invoice i : dispatch.unsent(MOST_UNSENT)) {
            needs.add(new Need(
                    "unsent",
                    i.id(),
                    i.id(),
                    i.clientId(),
                    null,
                    "Issued, but not sent: " + i.number() + ", " + i.clientName(),
                    Letters.shown(Amount.ofMinor(i.currency(), i.openMinor()).money()) + " is open. Send it from its"
                            + " record, or say that you gave it otherwise."));
        }
    }

    private void drafts(List<Need> needs) {
        for (InvoiceIndex.Row d : index.drafts(MOST_DRAFTS)) {
            String whom = d.clientName().isEmpty() ? "A draft" : "A draft for " + d.clientName();
            String what = d.subject().isEmpty() ? "not issued yet" : d.subject();
            needs.add(new Need("draft", d.id(), d.id(), d.clientId(), null, whom, what));
        }
    }

    /** Where the last reminder went and nothing came: it stays here until it is paid, credited or muted. */
    private void unanswered(LocalDate today, List<Need> needs) {
        List<Chasing.Unanswered> all = chasing.unanswered(today, 2 * MOST_UNANSWERED);
        List<Chasing.Unanswered> shown = all.subList(0, Math.min(all.size(), MOST_UNANSWERED));
        Map<Long, Client> byId =
                clients.some(shown.stream().map(Chasing.Unanswered::clientId).toList());
        for (Chasing.Unanswered u : shown) {
            Act.Item oldest = u.items().get(0);
            int more = u.items().size() - 1;
            needs.add(
                    new Need(
                            "unanswered",
                            u.clientId(),
                            oldest.debt().document(),
                            u.clientId(),
                            null,
                            "No further reminder goes by itself: " + Letters.shown(u.sum()) + ", "
                                    + byId.get(u.clientId()).name(),
                            Letters.shown(oldest.asked()) + " on "
                                    + oldest.debt().number() + " was due on "
                                    + Letters.day(oldest.debt().dueOn())
                                    + (more == 0
                                            ? ""
                                            : ", and " + more + (more == 1 ? " other is" : " others are") + " late")
                                    + ". The plan has no further step for it: telephone, or mute reminders until the day you agree on."));
        }
        if (all.size() > MOST_UNANSWERED) {
            needs.add(new Need(
                    "unanswered",
                    0,
                    null,
                    null,
                    null,
                    "No further reminder goes by itself to others who owe less",
                    "Clients lists all who are late."));
        }
    }

    private void putUp(List<Need> needs) {
        for (LateFees.PutUp p : fees.putUpForWaiving()) {
            LateFees.StoredFee fee = p.fee();
            needs.add(new Need(
                    "fee",
                    fee.id(),
                    fee.invoiceId(),
                    fee.clientId(),
                    null,
                    "Waive this late fee? " + Letters.shown(fee.amount().money()) + ", "
                            + clients.client(fee.clientId()).name(),
                    "It was charged on " + Letters.day(fee.chargedOn()) + ", but a payment dated "
                            + Letters.day(p.paidOn()) + " has been recorded since."));
        }
    }

    private static void review(List<ActView> acts, LocalDate today, List<Need> needs) {
        for (ActView a : acts) {
            boolean review = a.stop().equals(Act.Stop.REVIEW.name()) && a.canDoNow();
            if (review) {
                needs.add(new Need(
                        "review",
                        a.invoiceId(),
                        a.invoiceId(),
                        a.clientId(),
                        a.key(),
                        "Charge this late fee? " + Letters.shown(a.amount().money()) + ", " + a.client(),
                        a.what()));
            } else if (a.stop().equals(Act.Stop.NO_ADDRESS.name()) && !a.on().isAfter(today.plusDays(1))) {
                needs.add(new Need(
                        "address",
                        a.clientId(),
                        a.invoiceId(),
                        a.clientId(),
                        a.key(),
                        a.client() + " has no e-mail address",
                        "A reminder over " + Letters.shown(a.amount().money()) + " cannot be sent."));
            }
        }
    }
}
