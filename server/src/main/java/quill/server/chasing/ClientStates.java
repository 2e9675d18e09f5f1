package quill.server.chasing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.acts.ActsToCome;
import quill.core.acts.ClientState;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.LateFee;
import quill.core.latefee.LateFeePolicy;
import quill.core.ledger.OpenDebt;
import quill.core.reminder.ReminderStep.Tone;
import quill.server.business.BusinessService;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.latefees.FeePolicies;
import quill.server.latefees.LateFees;
import quill.server.latefees.LateFees.StoredFee;
import quill.server.processor.CardOrders;

/** Reads all that decides what is done for clients, a few queries for many of them. */
@Component
class ClientStates {
    private final ChasingRepository repository;
    private final ClientsService clients;
    private final InvoicesService invoices;
    private final Debts debts;
    private final FeePolicies policies;
    private final LateFees fees;
    private final CardOrders orders;
    private final BusinessService business;

    ClientStates(
            ChasingRepository repository,
            ClientsService clients,
            InvoicesService invoices,
            Debts debts,
            FeePolicies policies,
            LateFees fees,
            CardOrders orders,
            BusinessService business) {
        this.repository = repository;
        this.clients = clients;
        this.invoices = invoices;
        this.debts = debts;
        this.policies = policies;
        this.fees = fees;
        this.orders = orders;
        this.business = business;
    }

    /** A state, and the number of the change of the books up to which it is true at least. */
    record Read(ClientState state, long changeNo) {}

    /** All that was read at once for several clients. */
    private record Sources(
            Map<DocumentId, Document> invoices,
            Map<DocumentId, LateFeePolicy> policies,
            Map<DocumentId, LocalDate> muted,
            Map<Long, Integer> usedSteps,
            Map<Long, Tone> lastTones,
            Map<Long, List<StoredFee>> fees,
            Map<Long, Long> installmentOfFee,
            Set<Long> inTransit) {}

    /** States by client; a client of whom nothing was ever issued is not in it. */
    Map<ClientId, Read> of(Collection<ClientId> clientIds) {
        if (clientIds.isEmpty()) {
            return Map.of();
        }
        CurrencyUnit currency = business.business().currencyUnit();
        // First of all: what changes while the rest is read leaves a higher number.
        Map<ClientId, ChasingRepository.Row> rows = repository.rows(clientIds);
        Map<DocumentId, List<StoredInstallment>> byInvoice = debts.onOpenInvoicesOf(clientIds);
        Sources sources = read(byInvoice, clientIds);
        Map<ClientId, List<ActsToCome.Debt>> owed = new HashMap<>();
        byInvoice.forEach((invoiceId, stored) -> {
            Document invoice = sources.invoices().get(invoiceId);
            stored.forEach(d -> owed.computeIfAbsent(invoice.clientId(), k -> new ArrayList<>())
                    .add(debt(d, invoice, sources)));
        });
        Map<ClientId, CurrencyUnit> chased = new HashMap<>();
        owed.forEach((client, all) -> chased.put(client, chasedIn(all, currency)));
        Map<ClientId, Money> credits = credits(clientIds, chased, currency);
        Map<ClientId, Set<String>> keptBack = repository.keptBackKeys(clientIds);
        Map<ClientId, Client> byId = clients.some(clientIds);
        Comparator<OpenDebt> order = debts.order();
        Map<ClientId, Read> states = new LinkedHashMap<>();
        for (ClientId id : clientIds) {
            ChasingRepository.Row row = rows.get(id);
            if (row != null) {
                ClientState state = new ClientState(
                        id,
                        !byId.get(id).forReminders().email().isEmpty(),
                        row.mutedUntil(),
                        row.keptBack(),
                        keptBack.getOrDefault(id, Set.of()),
                        row.remindedOn(),
                        credits.getOrDefault(id, Money.zero(chased.getOrDefault(id, currency))),
                        order,
                        owed.getOrDefault(id, List.of()).stream()
                                .filter(d -> d.first().getCurrencyUnit().equals(chased.get(id)))
                                .toList());
                states.put(id, new Read(state, row.changeNo()));
            }
        }
        return states;
    }

    /**
     * A letter asks for one currency. A client that owes in several is asked for the one in which something fell due
     * first; the others follow when that is settled.
     */
    private static CurrencyUnit chasedIn(List<ActsToCome.Debt> owed, CurrencyUnit own) {
        return owed.stream()
                .filter(d -> d.open().open().isPositive())
                .min(Comparator.comparing((ActsToCome.Debt d) -> d.open().dueOn())
                        .thenComparing(d -> !d.first().getCurrencyUnit().equals(own)))
                .map(d -> d.first().getCurrencyUnit())
                .orElse(own);
    }

    private Map<ClientId, Money> credits(
            Collection<ClientId> clientIds, Map<ClientId, CurrencyUnit> chased, CurrencyUnit currency) {
        Map<ClientId, Money> credits = new HashMap<>(debts.freeCreditsOf(clientIds, currency));
        chased.forEach((client, in) -> {
            if (!in.equals(currency)) {
                credits.putAll(debts.freeCreditsOf(List.of(client), in));
            }
        });
        return credits;
    }

    private Sources read(Map<DocumentId, List<StoredInstallment>> byInvoice, Collection<ClientId> clientIds) {
        List<Long> debtIds = byInvoice.values().stream()
                .flatMap(List::stream)
                .map(StoredInstallment::id)
                .toList();
        List<StoredFee> charged = fees.onInstallments(debtIds);
        Map<DocumentId, Document> issued = invoices.some(byInvoice.keySet());
        return new Sources(
                issued,
                policies.fixedFor(issued.keySet()),
                byInvoice.isEmpty() ? Map.of() : repository.mutedInvoices(byInvoice.keySet()),
                debtIds.isEmpty() ? Map.of() : repository.usedSteps(debtIds),
                debtIds.isEmpty() ? Map.of() : repository.lastTones(debtIds),
                charged.stream().collect(Collectors.groupingBy(f -> f.occasion().installmentId())),
                charged.stream()
                        .filter(f -> f.debtId() != null)
                        .collect(Collectors.toMap(
                                StoredFee::debtId, f -> f.occasion().installmentId())),
                orders.inTransit(clientIds));
    }

    private static ActsToCome.Debt debt(StoredInstallment d, Document invoice, Sources s) {
        Money zero = Money.zero(d.amount().getCurrencyUnit());
        List<LateFee.Charged> charged = s.fees().getOrDefault(d.id(), List.of()).stream()
                .map(StoredFee::charged)
                .toList();
        long feeOf = s.installmentOfFee().getOrDefault(d.id(), 0L);
        return new ActsToCome.Debt(
                new OpenDebt(d.id(), invoice.id(), invoice.number(), d.position(), d.fee(), d.dueOn(), d.open()),
                d.deposit(),
                d.amount(),
                s.inTransit().contains(d.id()) ? d.open() : zero,
                invoice.issuedOn(),
                s.muted().get(invoice.id()),
                s.usedSteps().get(d.id()),
                s.policies().getOrDefault(invoice.id(), LateFeePolicy.none(zero)),
                charged,
                feeOf,
                s.lastTones().get(d.id()));
    }
}
