package quill.core.acts;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import org.joda.money.Money;
import quill.core.id.ClientId;
import quill.core.ledger.OpenDebt;

/**
 * All that decides what the daily run does for one client.
 *
 * @param hasAddress whether a letter can be sent
 * @param mutedUntil last day on which no reminder goes, or null
 * @param keptBack whether everything for this client is kept back
 * @param keptBackActs keys of single acts that are kept back
 * @param remindedOn day of the latest reminder, or null
 * @param credit money received that no debt has taken
 * @param order in which money settles debts
 */
public record ClientState(
        ClientId client,
        boolean hasAddress,
        LocalDate mutedUntil,
        boolean keptBack,
        Set<String> keptBackActs,
        LocalDate remindedOn,
        Money credit,
        Comparator<OpenDebt> order,
        List<ActsToCome.Debt> debts) {
    /** Copies the lists. */
    public ClientState {
        keptBackActs = Set.copyOf(keptBackActs);
        debts = List.copyOf(debts);
    }

    boolean isMutedOn(LocalDate day) {
        return mutedUntil != null && !day.isAfter(mutedUntil);
    }
}
