package quill.server.chasing;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.acts.Act;
import quill.core.acts.ActKey;
import quill.core.acts.ActsToCome;
import quill.core.acts.ClientState;
import quill.core.id.ClientId;
import quill.core.ledger.OpenDebt;
import quill.core.letter.Channel;
import quill.server.debts.Debts;

/** Reads all that decides what is done for clients, a few queries for many of them. */
@Component
class ClientStates {
    private final ChasingRepository repository;
    private final OwedByClients owing;
    private final Reach reach;
    private final Debts debts;

    ClientStates(ChasingRepository repository, OwedByClients owing, Reach reach, Debts debts) {
        this.repository = repository;
        this.owing = owing;
        this.reach = reach;
        this.debts = debts;
    }

    /** A state, and the number of the change of the books up to which it is true at least. */
    record Read(ClientState state, long changeNo) {}

    /** States by client; a client of whom nothing was ever issued is not in it. */
    Map<ClientId, Read> of(Collection<ClientId> clientIds) {
        if (clientIds.isEmpty()) {
            return Map.of();
        }
        // First of all: what changes while the rest is read leaves a higher number.
        Map<ClientId, ChasingRepository.Row> rows = repository.rows(clientIds);
        Map<ClientId, List<ActsToCome.Debt>> owed = owing.of(clientIds);
        Map<ClientId, List<Money>> credits = credits(owed);
        Map<ClientId, Set<ActKey>> keptBack = repository.keptBackKeys(clientIds);
        Map<ClientId, Map<Channel, Act.Stop>> reached = reach.of(clientIds);
        Comparator<OpenDebt> order = debts.order();
        Map<ClientId, Read> states = new LinkedHashMap<>();
        for (ClientId id : clientIds) {
            ChasingRepository.Row row = rows.get(id);
            if (row != null) {
                ClientState state = new ClientState(
                        id,
                        reached.getOrDefault(id, Map.of()),
                        row.mutedUntil(),
                        row.keptBackUntil(),
                        keptBack.getOrDefault(id, Set.of()),
                        row.remindedOn(),
                        credits.getOrDefault(id, List.of()),
                        order,
                        owed.getOrDefault(id, List.of()));
                states.put(id, new Read(state, row.changeNo()));
            }
        }
        return states;
    }

    /** Free credit of those who owe, in the currencies in which they do. */
    private Map<ClientId, List<Money>> credits(Map<ClientId, List<ActsToCome.Debt>> owed) {
        Map<CurrencyUnit, Set<ClientId>> owing = new LinkedHashMap<>();
        owed.forEach((client, all) ->
                all.forEach(d -> owing.computeIfAbsent(d.first().getCurrencyUnit(), c -> new LinkedHashSet<>())
                        .add(client)));
        Map<ClientId, List<Money>> credits = new HashMap<>();
        owing.forEach((currency, clients) -> debts.freeCreditsOf(clients, currency)
                .forEach((client, credit) ->
                        credits.computeIfAbsent(client, c -> new ArrayList<>()).add(credit)));
        return credits;
    }
}
