package quill.server.chasing;

import java.time.LocalDate;
import java.util.List;
import org.joda.money.Money;
import quill.core.acts.Act;
import quill.core.acts.ActsToCome.Debt;
import quill.core.acts.ClientState;
import quill.server.common.Texts;

/** Says why an act that was announced is not needed any more. For the log only; decides nothing. */
final class WhyNot {
    private WhyNot() {}

    static String of(ClientState state, String key, LocalDate day, LocalDate today) {
        if (key.startsWith("fee:")) {
            long installment = Long.parseLong(key.split(":")[1]);
            return state.debts().stream()
                    .filter(d -> d.open().id() == installment)
                    .findFirst()
                    .map(d -> ofDebts(state, List.of(d), "it was charged already, or too little is overdue"))
                    .orElse("it was paid meanwhile, or taken back");
        }
        if (day.equals(state.remindedOn()) || today.equals(state.remindedOn())) {
            return "a reminder was written to this client on that day already";
        }
        if (key.equals(Act.Reminder.key(state.client(), day)) && state.mutedUntil() != null) {
            return "the client is muted until " + Texts.day(state.mutedUntil());
        }
        return ofDebts(state, state.debts(), "no step of the plan is due any more");
    }

    private static String ofDebts(ClientState state, List<Debt> debts, String otherwise) {
        List<Debt> open =
                debts.stream().filter(d -> d.open().open().isPositive()).toList();
        if (open.isEmpty()) {
            return "it was paid meanwhile, or taken back";
        }
        if (open.stream().allMatch(d -> d.inTransit().isPositive())) {
            return "a card payment may be on its way";
        }
        if (state.credits().stream().anyMatch(Money::isPositive)) {
            return "client credit covers it";
        }
        return open.stream().allMatch(d -> d.mutedUntil() != null)
                ? "the invoice is muted"
                : "what was due was paid meanwhile: " + otherwise;
    }
}
