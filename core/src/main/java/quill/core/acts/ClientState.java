package quill.core.acts;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.joda.money.Money;
import quill.core.id.ClientId;
import quill.core.ledger.OpenDebt;
import quill.core.letter.Channel;

/**
 * All that decides what the daily run does for one client.
 *
 * @param reach what keeps a message from going by a way; a way that is not in it is open
 * @param mutedUntil last day on which no reminder goes, or null
 * @param keptBackUntil last day on which everything for this client is kept back, or null
 * @param keptBackActs keys of single acts that are kept back
 * @param remindedOn day of the latest reminder, or null
 * @param credits money received that no debt has taken, a sum for each currency
 * @param order in which money settles debts
 */
public record ClientState(
        ClientId client,
        Map<Channel, Act.Stop> reach,
        LocalDate mutedUntil,
        LocalDate keptBackUntil,
        Set<ActKey> keptBackActs,
        LocalDate remindedOn,
        List<Money> credits,
        Comparator<OpenDebt> order,
        List<ActsToCome.Debt> debts) {
    /** Copies the lists. */
    public ClientState {
        reach = Map.copyOf(reach);
        credits = List.copyOf(credits);
        keptBackActs = Set.copyOf(keptBackActs);
        debts = List.copyOf(debts);
    }

    boolean isKeptBackOn(LocalDate day) {
        return Until.holds(keptBackUntil, day);
    }

    boolean isMutedOn(LocalDate day) {
        return Until.holds(mutedUntil, day);
    }
}
