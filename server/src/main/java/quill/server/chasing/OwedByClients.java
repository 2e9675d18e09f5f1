package quill.server.chasing;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import org.joda.money.Money;
import org.springframework.stereotype.Component;
import quill.core.acts.ActsToCome;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.core.latefee.LateFee;
import quill.core.latefee.LateFeePolicy;
import quill.core.ledger.OpenDebt;
import quill.core.money.Amounts;
import quill.core.reminder.ReminderPlan;
import quill.core.reminder.ReminderStep.Tone;
import quill.server.clearing.OnTheWay;
import quill.server.debts.Debts;
import quill.server.debts.StoredInstallment;
import quill.server.dispatch.AskedDebts;
import quill.server.documents.Document;
import quill.server.invoices.InvoicesService;
import quill.server.latefees.FeePolicies;
import quill.server.latefees.LateFees;
import quill.server.latefees.LateFees.StoredFee;

/** Reads what clients owe with all that reminders and fees depend on, a few queries for many of them. */
@Component
class OwedByClients {
    private final ChasingRepository repository;
    private final NamedPlans named;
    private final InvoicesService invoices;
    private final Debts debts;
    private final FeePolicies policies;
    private final LateFees fees;
    private final OnTheWay onTheWay;
    private final AskedDebts asked;

    OwedByClients(
            ChasingRepository repository,
            NamedPlans named,
            InvoicesService invoices,
            Debts debts,
            FeePolicies policies,
            LateFees fees,
            OnTheWay onTheWay,
            AskedDebts asked) {
        this.repository = repository;
        this.named = named;
        this.invoices = invoices;
        this.debts = debts;
        this.policies = policies;
        this.fees = fees;
        this.onTheWay = onTheWay;
        this.asked = asked;
    }

    /** All that was read at once for several clients. */
    private record Sources(
            Map<DocumentId, Document> invoices,
            Map<DocumentId, LateFeePolicy> policies,
            Map<DocumentId, LocalDate> muted,
            Map<Long, Integer> usedSteps,
            Map<Long, Tone> lastTones,
            Map<Long, List<StoredFee>> fees,
            Map<Long, Long> installmentOfFee,
            Map<Long, Money> inTransit,
            BiFunction<ClientId, DocumentId, ReminderPlan> plans) {}

    /** By client; one that owes nothing is not in it. */
    Map<ClientId, List<ActsToCome.Debt>> of(Collection<ClientId> clientIds) {
        Map<DocumentId, List<StoredInstallment>> byInvoice = debts.onOpenInvoicesOf(clientIds);
        Sources sources = read(byInvoice, clientIds);
        Map<ClientId, List<ActsToCome.Debt>> owed = new HashMap<>();
        byInvoice.forEach((invoiceId, stored) -> {
            Document invoice = sources.invoices().get(invoiceId);
            stored.forEach(d -> owed.computeIfAbsent(invoice.clientId(), k -> new ArrayList<>())
                    .add(debt(d, invoice, sources)));
        });
        return owed;
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
                asked.lastTones(debtIds),
                charged.stream().collect(Collectors.groupingBy(f -> f.occasion().installmentId())),
                charged.stream()
                        .filter(f -> f.debtId() != null)
                        .collect(Collectors.toMap(
                                StoredFee::debtId, f -> f.occasion().installmentId())),
                onTheWay.inTransit(clientIds),
                named.holding(clientIds, byInvoice.keySet()));
    }

    private static ActsToCome.Debt debt(StoredInstallment d, Document invoice, Sources s) {
        Money zero = Money.zero(d.amount().getCurrencyUnit());
        List<LateFee.Charged> charged = s.fees().getOrDefault(d.id(), List.of()).stream()
                .map(StoredFee::charged)
                .toList();
        long feeOf = s.installmentOfFee().getOrDefault(d.id(), 0L);
        return new ActsToCome.Debt(
                new OpenDebt(
                        d.id(),
                        invoice.id(),
                        invoice.number(),
                        d.position(),
                        d.fee(),
                        d.dueOn(),
                        d.orderOn(),
                        d.open()),
                d.deposit(),
                d.amount(),
                Amounts.min(s.inTransit().getOrDefault(d.id(), zero), d.open()),
                invoice.issuedOn(),
                s.muted().get(invoice.id()),
                s.usedSteps().get(d.id()),
                s.policies().getOrDefault(invoice.id(), LateFeePolicy.none(zero)),
                charged,
                feeOf,
                s.lastTones().get(d.id()),
                s.plans().apply(invoice.clientId(), invoice.id()));
    }
}
