package quill.server.today;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;
import quill.core.acts.Act;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.letter.Channel;
import quill.server.chasing.ActView;
import quill.server.chasing.KeptReminder;
import quill.server.chasing.LeftToAPerson;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.Shown;
import quill.server.common.Texts;
import quill.server.dailyrun.ActViews;
import quill.server.dailyrun.DailyRun;
import quill.server.dailyrun.LoggedAct;
import quill.server.dispatch.Correspondence;
import quill.server.dispatch.Message;
import quill.server.dispatch.MessageState;
import quill.server.dispatch.Unsent;
import quill.server.documents.Document;
import quill.server.invoices.InvoiceIndex;
import quill.server.quotes.QuoteWaits;

/** What only a person can decide. */
@Component
class Needs {
    private static final Set<String> UNREACHED =
            Set.of(Act.Stop.NO_ADDRESS.name(), Act.Stop.NO_NUMBER.name(), Act.Stop.NO_GATEWAY.name());
    private static final int MOST_DRAFTS = 30;
    private static final int MOST_ACTS = 200;
    private static final int MOST_UNANSWERED = 40;
    private static final int MOST_UNSENT = 20;
    private static final int MOST_KEPT = 40;
    private final Correspondence correspondence;
    private final ActViews acts;
    private final DailyRun run;
    private final ClientsService clients;
    private final InvoiceIndex index;
    private final Unsent unsent;
    private final LeftToAPerson left;
    private final MoneyNeeds money;

    Needs(
            Correspondence correspondence,
            ActViews acts,
            DailyRun run,
            ClientsService clients,
            InvoiceIndex index,
            Unsent unsent,
            LeftToAPerson left,
            MoneyNeeds money) {
        this.correspondence = correspondence;
        this.acts = acts;
        this.run = run;
        this.clients = clients;
        this.index = index;
        this.unsent = unsent;
        this.left = left;
        this.money = money;
    }

    /**
     * Something that only a person can decide.
     *
     * @param kind dispute (a contested payment, by its id), refund (one that did not arrive), entry (of a processor, that could
     *     not be booked), message (nobody knows whether it arrived), undelivered, payment, order, fee (put up for waiving), review (a fee that waits), address, failed,
     *     kept (back until its day had passed), unanswered (late after the last step of the plan), unsent (issued, but not sent), draft,
     *     question (asked on a quote's page), accepted (a quote without an invoice yet) expiring (a quote that runs out)
     *     milestone (nothing more is due before it), planned (a payment whose day came, and that was not taken), card-ends (a saved
     *     card that is valid no longer, or soon) or untaxed (came through a link with taxes, and is not invoiced)
     * @param key of the act, where it is one
     */
    record Need(
            String kind,
            long id,
            @Schema(nullable = true) DocumentId invoiceId,
            @Schema(nullable = true) ClientId clientId,
            @Schema(nullable = true) String key,
            String title,
            String text,
            @Schema(nullable = true) DocumentId quoteId) {
        Need(String kind, long id, DocumentId invoiceId, ClientId clientId, String key, String title, String text) {
            this(kind, id, invoiceId, clientId, key, title, text, null);
        }
    }

    /** Days of quotes up to one, for the Almanac. */
    List<QuoteWaits.QuoteDay> quoteDays(LocalDate to) {
        return money.documents().quoteDays(to);
    }

    List<Need> all(LocalDate today) {
        List<Need> needs = new ArrayList<>();
        money.contested(needs);
        money.feesPutUp(needs);
        // What waits for a review has come up already, and a missing address shows the day before.
        review(acts.page(today.plusDays(1), null, MOST_ACTS).acts(), today, needs);
        for (Message m : correspondence.needingSomebody()) {
            needs.add(new Need(
                    m.state() == MessageState.UNCERTAIN ? "message" : "undelivered",
                    m.id(),
                    m.documentId(),
                    m.clientId(),
                    null,
                    title(m),
                    m.subject() + ", to " + m.addresses().to() + ". " + m.error()));
        }
        money.unbooked(needs);
        money.unexpected(needs);
        for (LoggedAct a : run.failed()) {
            needs.add(new Need(
                    "failed",
                    a.id(),
                    a.invoiceId(),
                    a.clientId(),
                    a.key(),
                    "This could not be done on " + Texts.day(a.on()),
                    a.what() + ". " + a.reason()));
        }
        keptBack(needs);
        unanswered(today, needs);
        money.later(needs);
        money.documents().quotes(needs);
        money.documents().milestones(needs);
        unsent(needs);
        drafts(needs);
        return needs;
    }

    private static String title(Message m) {
        String what = m.addresses().channel() == Channel.TEXT ? "text message" : "letter";
        return switch (m.state()) {
            case UNCERTAIN -> "Did this " + what + " arrive?";
            case BOUNCED -> "A letter came back";
            default -> "A " + what + " could not be sent";
        };
    }

    /** What was kept back on its day does not go by itself any more; it stays in sight until somebody decides. */
    private void keptBack(List<Need> needs) {
        List<KeptReminder> kept = left.keptBack(MOST_KEPT);
        Map<ClientId, Client> byId =
                clients.some(kept.stream().map(KeptReminder::clientId).toList());
        for (KeptReminder p : kept) {
            needs.add(new Need(
                    "kept",
                    p.clientId().value(),
                    null,
                    p.clientId(),
                    p.key().toString(),
                    "Kept back, and its day has passed: "
                            + byId.get(p.clientId()).name(),
                    p.what() + ". It does not go by itself any more."));
        }
    }

    private void unsent(List<Need> needs) {
        for (Document i : unsent.latest(MOST_UNSENT)) {
            needs.add(new Need(
                    "unsent",
                    i.id().value(),
                    i.id(),
                    i.clientId(),
                    null,
                    "Issued, but not sent: " + i.number() + ", " + i.clientName(),
                    Shown.money(Amount.ofMinor(i.currency(), i.openMinor()).money()) + " is open. Send it from its"
                            + " record, or say that you gave it otherwise."));
        }
    }

    private void drafts(List<Need> needs) {
        for (InvoiceIndex.Row d : index.drafts(MOST_DRAFTS)) {
            String whom = d.clientName().isEmpty() ? "A draft" : "A draft for " + d.clientName();
            String what = d.subject().isEmpty() ? "not issued yet" : d.subject();
            needs.add(new Need("draft", d.id().value(), d.id(), d.clientId(), null, whom, what));
        }
    }

    /** Where the last reminder went and nothing came: it stays here until it is paid, credited or muted. */
    private void unanswered(LocalDate today, List<Need> needs) {
        List<LeftToAPerson.Unanswered> all = left.unanswered(today, 2 * MOST_UNANSWERED);
        List<LeftToAPerson.Unanswered> shown = all.subList(0, Math.min(all.size(), MOST_UNANSWERED));
        Map<ClientId, Client> byId = clients.some(
                shown.stream().map(LeftToAPerson.Unanswered::clientId).toList());
        for (LeftToAPerson.Unanswered u : shown) {
            Act.Item oldest = u.items().get(0);
            int more = u.items().size() - 1;
            needs.add(
                    new Need(
                            "unanswered",
                            u.clientId().value(),
                            oldest.debt().document(),
                            u.clientId(),
                            null,
                            "No further reminder goes by itself: " + Shown.money(u.sum()) + ", "
                                    + byId.get(u.clientId()).name(),
                            Shown.money(oldest.asked()) + " on "
                                    + oldest.debt().number() + " was due on "
                                    + Texts.day(oldest.debt().dueOn())
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

    private static void review(List<ActView> acts, LocalDate today, List<Need> needs) {
        for (ActView a : acts) {
            boolean review = a.stop().equals(Act.Stop.REVIEW.name()) && a.canDoNow();
            if (review) {
                needs.add(new Need(
                        "review",
                        a.about().invoiceId().value(),
                        a.about().invoiceId(),
                        a.about().clientId(),
                        a.key(),
                        "Charge this late fee? " + Shown.money(a.amount().money()) + ", "
                                + a.about().client(),
                        a.about().what()));
            } else if (UNREACHED.contains(a.stop()) && !a.on().isAfter(today.plusDays(1))) {
                needs.add(new Need(
                        "address",
                        a.about().clientId().value(),
                        a.about().invoiceId(),
                        a.about().clientId(),
                        a.key(),
                        a.about().client() + " cannot be reminded",
                        "A reminder over " + Shown.money(a.amount().money()) + " cannot be sent: " + a.stopped()
                                + "."));
            }
        }
    }
}
