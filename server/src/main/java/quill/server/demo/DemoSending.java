package quill.server.demo;

import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.letter.Channel;
import quill.core.letter.LetterKind;
import quill.core.pay.TypedWay;
import quill.core.pay.WayToPay;
import quill.core.reminder.ReminderPlan.TypedStep;
import quill.server.QuillSettings;
import quill.server.chasing.NamedPlans;
import quill.server.chasing.PlanChoice;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.dispatch.DispatchService;
import quill.server.dispatch.Slip;
import quill.server.letters.Wordings;
import quill.server.ways.WaysService;

/** Plans, ways to pay and wordings of the demo's business, a text message, and a letter to an address that is gone. */
@Component
class DemoSending {
    private static final String GONE = "ada.brandt@oldferry.example";
    private final NamedPlans plans;
    private final WaysService ways;
    private final Wordings wordings;
    private final ClientsService clients;
    private final DispatchService dispatch;
    private final QuillSettings settings;
    private final StandInForms forms;

    DemoSending(
            NamedPlans plans,
            WaysService ways,
            Wordings wordings,
            ClientsService clients,
            DispatchService dispatch,
            QuillSettings settings,
            StandInForms forms) {
        this.plans = plans;
        this.ways = ways;
        this.wordings = wordings;
        this.clients = clients;
        this.dispatch = dispatch;
        this.settings = settings;
        this.forms = forms;
    }

    /** @param invoice that it is about; null for none */
    void play(String what, DocumentId invoice) {
        switch (what) {
            case "rules" -> rules();
            case "text" -> text(invoice);
            default -> returned(invoice);
        }
    }

    private void rules() {
        long halls = plans.make(
                        "Schools and halls",
                        List.of(
                                new TypedStep("7", false, "FRIENDLY", "MAIL", false),
                                new TypedStep("21", false, "FIRM", "MAIL", false),
                                new TypedStep("45", false, "FINAL", "MAIL", true)))
                .id();
        long telephone = plans.make(
                        "By telephone",
                        List.of(
                                new TypedStep("1", false, "FRIENDLY", "TEXT", false),
                                new TypedStep("10", false, "FIRM", "MAIL", false)))
                .id();
        choose("St Brannoc’s School", new PlanChoice(PlanChoice.Use.NAMED, halls));
        choose("Captain Lune’s Boats", new PlanChoice(PlanChoice.Use.NAMED, telephone));
        choose("Dr A. Lindqvist", new PlanChoice(PlanChoice.Use.NONE, null));
        // Large sums go by bank: what a card costs hurts there.
        List<TypedWay> rules = ways.setting().ways().stream()
                .map(w -> w.way().equals(WayToPay.CARD.name()) ? w.upTo("3000") : w)
                .map(w -> w.way().equals(WayToPay.BANK_DEBIT.name())
                        ? w.switched(true).from("3000.01")
                        : w)
                .map(w -> w.way().equals(WayToPay.SATCHEL.name())
                        ? w.switched(true).upTo("3000")
                        : w)
                .map(w ->
                        w.way().equals(WayToPay.CASH.name()) ? w.switched(true).upTo("500") : w)
                .toList();
        ways.change(rules, ways.setting().version());
        wordings.change(LetterKind.CREDIT_NOTE, false, "{business}: credit note {credit note} for {document}", """
                Dear {contact, or client},

                Here is credit note {credit note}, which takes back {how much of it} {document}: {credited}. The reason: {reason}.

                {what is left}

                {credit} of yours is kept here and counts towards the next invoice.

                See {document}: {page}

                Yours,
                Odile, {business}
                """, 0);
        clients.make(new Client(
                ClientId.NEW, "Tamsin Hale", "", "", "Lamplighter’s Yard 2\nLarkmoor", "BE", "", "", null, 1));
    }

    private void choose(String name, PlanChoice choice) {
        clients.named(name).stream().findFirst().ifPresent(c -> plans.chooseForClient(c.id(), choice));
    }

    private void text(DocumentId invoice) {
        if (settings.texts().isSet()) {
            dispatch.sendAgain(
                    invoice,
                    "demo-text-message",
                    new Slip("+44 7700 900145", null, null, null, false, false, null, Channel.TEXT, null, true));
        }
    }

    /** The slip has an address that is gone: the letter comes back, and somebody has to find the right one. */
    private void returned(DocumentId invoice) {
        if (settings.standInsUrl() == null || settings.standInsUrl().isBlank()) {
            return;
        }
        forms.send(settings.standInsUrl() + "/post-room/gone", Map.of("gone", "true", "box", GONE));
        dispatch.sendAgain(
                invoice,
                "demo-returned-letter",
                new Slip(GONE, null, null, null, false, false, null, null, null, false));
    }
}
