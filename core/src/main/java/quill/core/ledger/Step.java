package quill.core.ledger;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.Money;

/**
 * One entry of a decision, with all that it changes of debts and client credit.
 *
 * @param entry null where whoever asked has an entry already
 * @param words what the journal says of it; empty where whoever asked knows better
 * @param made client credit that comes to be
 * @param draws what comes out of client credit otherwise than to a debt
 */
public record Step(Entry entry, String words, List<Settlement> settlements, List<Lot> made, List<Draw> draws) {
    /** Copies the lists. */
    public Step {
        settlements = List.copyOf(settlements);
        made = List.copyOf(made);
        draws = List.copyOf(draws);
    }

    /** Out of a lot above zero, back into it below. @param to what took it: a movement or a document */
    public record Draw(long lot, Source to, Money amount) {}

    /** What it settles, as parts; what it opens again is not in it. */
    public List<Appropriation.Part> settled() {
        List<Appropriation.Part> parts = new ArrayList<>();
        settlements.stream().filter(s -> s.amount().isPositive()).forEach(s -> parts.add(s.part()));
        return parts;
    }
}
