package quill.server.dispatch;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.springframework.stereotype.Component;
import quill.core.acts.Act;
import quill.core.id.ClientId;
import quill.core.ledger.OpenDebt;
import quill.core.ledger.Standing;
import quill.core.letter.LetterKind;
import quill.core.reminder.ReminderStep;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.common.BusinessClock;
import quill.server.common.Shown;
import quill.server.debts.Debts;
import quill.server.debts.OpenSums;

/** What clients owe today, to look at reminders with: each as if its step came up today. */
@Component
class ReminderCases implements LetterCases {
    private static final Map<LetterKind, ReminderStep> STEPS = Map.of(
            LetterKind.AHEAD, new ReminderStep(-3, ReminderStep.Tone.FRIENDLY),
            LetterKind.FRIENDLY, new ReminderStep(3, ReminderStep.Tone.FRIENDLY),
            LetterKind.FIRM, new ReminderStep(3, ReminderStep.Tone.FIRM),
            LetterKind.FINAL, new ReminderStep(3, ReminderStep.Tone.FINAL));
    private static final Map<LetterKind, LetterKind> BY_TEXT =
            STEPS.keySet().stream().collect(Collectors.toMap(LetterKind::asText, k -> k));
    private final ReminderFacts facts;
    private final ClientsService clients;
    private final OpenSums sums;
    private final Debts debts;
    private final BusinessClock clock;

    ReminderCases(ReminderFacts facts, ClientsService clients, OpenSums sums, Debts debts, BusinessClock clock) {
        this.facts = facts;
        this.clients = clients;
        this.sums = sums;
        this.debts = debts;
        this.clock = clock;
    }

    @Override
    public boolean writes(LetterKind kind) {
        return STEPS.containsKey(kind) || BY_TEXT.containsKey(kind);
    }

    /** A client, and a currency in which it owes. */
    private record Owing(ClientId clientId, CurrencyUnit currency) {}

    @Override
    public List<LetterCase> latest(LetterKind which, ClientId clientId) {
        LetterKind kind = BY_TEXT.getOrDefault(which, which);
        List<LetterCase> cases = new ArrayList<>();
        List<Owing> owing = sums.all().stream()
                .filter(o -> clientId == null || o.clientId().equals(clientId))
                .map(o -> new Owing(o.clientId(), o.currency()))
                .distinct()
                .toList();
        for (Owing o : owing) {
            List<OpenDebt> asked = debts.open(o.clientId(), o.currency()).stream()
                    .filter(d ->
                            d.dueOn() != null && Standing.isDue(d.dueOn(), clock.today()) != (kind == LetterKind.AHEAD))
                    .toList();
            if (!asked.isEmpty() && cases.size() < MOST) {
                Act.Reminder act = act(kind, o.clientId(), asked);
                Client client = clients.client(o.clientId());
                cases.add(new LetterCase(
                        o.clientId(),
                        Shown.money(act.amount()) + " open today",
                        () -> facts.of(act, client).facts()));
            }
        }
        return cases;
    }

    private Act.Reminder act(LetterKind kind, ClientId client, List<OpenDebt> asked) {
        LocalDate today = clock.today();
        ReminderStep step = STEPS.get(kind);
        List<Act.Item> items = asked.stream()
                .map(d -> new Act.Item(d, d.open(), Math.max(0, Standing.daysLate(d.dueOn(), today)), step))
                .toList();
        return new Act.Reminder(today, client, step, items, Act.Stop.NOTHING, true);
    }
}
