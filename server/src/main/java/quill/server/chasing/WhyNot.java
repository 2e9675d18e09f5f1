package quill.server.chasing;

import java.util.List;
import org.joda.money.Money;
import quill.core.acts.ActsToCome.Debt;
import quill.core.acts.ClientState;

/** Says why an act that was announced is not needed any more. For the log only; decides nothing. */
final class WhyNot {
    private WhyNot() {}

    static final String PAID = "it was paid meanwhile, or taken back";

    /** @param otherwise where nothing of the rest holds */
    static String ofDebts(ClientState state, List<Debt> debts, String otherwise) {
        List<Debt> open =
                debts.stream().filter(d -> d.open().open().isPositive()).toList();
        if (open.isEmpty()) {
            return PAID;
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
