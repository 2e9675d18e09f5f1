package quill.server.invoices;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import quill.server.business.BusinessService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.debts.Debts;

/** The index leaf: invoices grouped by when. What is open is listed whole; what is settled is paged by key. */
@Service
public class InvoiceIndex {
    private static final int PAGE = 40;
    private static final LocalDate FAR = LocalDate.of(9999, 1, 1);
    private final InvoiceRepository repository;
    private final Debts debts;
    private final BusinessService business;
    private final BusinessClock clock;

    InvoiceIndex(InvoiceRepository repository, Debts debts, BusinessService business, BusinessClock clock) {
        this.repository = repository;
        this.debts = debts;
        this.business = business;
        this.clock = clock;
    }

    /** A row. @param open what is open; for a draft its total, null where it cannot be reckoned yet */
    public record Row(
            long id,
            @Schema(nullable = true) Long clientId,
            String clientName,
            @Schema(nullable = true) String number,
            String subject,
            @Schema(nullable = true) Amount total,
            @Schema(nullable = true) Amount open,
            @Schema(nullable = true) LocalDate nextDueOn,
            @Schema(nullable = true) LocalDate issuedOn,
            boolean late,
            boolean voided,
            List<Measure.Part> measure) {}

    /**
     * Rows of one time: late, week, later, draft or settled.
     *
     * @param sum of what is in the business's own currency
     * @param inOthers the sums of each other currency
     * @param more key of the next page, or null
     */
    public record Group(
            String when,
            Amount sum,
            List<Amount> inOthers,
            List<Row> rows,
            @Schema(nullable = true) String more) {}

    /** All groups; empty ones are left out. */
    public List<Group> groups(String filter) {
        LocalDate today = clock.today();
        LocalDate weekEnd = today.plusDays(7);
        Map<String, List<Invoice>> byTime = new LinkedHashMap<>();
        for (String when : List.of("late", "week", "draft", "later")) {
            byTime.put(when, new ArrayList<>());
        }
        for (Invoice i : repository.open(filter)) {
            String when = i.nextDueOn().isBefore(today) ? "late" : i.nextDueOn().isAfter(weekEnd) ? "later" : "week";
            byTime.get(when).add(i);
        }
        byTime.get("draft").addAll(repository.drafts(filter));
        List<Group> groups = new ArrayList<>();
        byTime.forEach((when, invoices) -> {
            if (!invoices.isEmpty()) {
                groups.add(group(when, invoices, null));
            }
        });
        Group settled = settled(filter, null);
        if (!settled.rows().isEmpty()) {
            groups.add(settled);
        }
        return groups;
    }

    /** A page of what is settled. @param after key from the page before, or null for the first */
    public Group settled(String filter, String after) {
        LocalDate beforeOn = FAR;
        long beforeId = Long.MAX_VALUE;
        if (after != null && after.matches("\\d{4}-\\d{2}-\\d{2}_\\d{1,18}")) {
            beforeOn = LocalDate.parse(after.substring(0, 10));
            beforeId = Long.parseLong(after.substring(11));
        }
        List<Invoice> invoices = repository.settled(filter, beforeOn, beforeId, PAGE + 1);
        boolean more = invoices.size() > PAGE;
        List<Invoice> page = more ? invoices.subList(0, PAGE) : invoices;
        Invoice last = more ? page.get(PAGE - 1) : null;
        return group("settled", page, last == null ? null : repository.settledOn(last.id()) + "_" + last.id());
    }

    /** All invoices of one client, newest first. */
    public List<Row> ofClient(long clientId) {
        return rows(repository.ofClient(clientId));
    }

    /** What is open now, soonest due first. */
    public List<Row> open() {
        return rows(repository.open(null));
    }

    /** What was settled since a day, latest first; at most 400. */
    public List<Row> settledSince(LocalDate since) {
        return rows(repository.settledSince(since, 10 * PAGE));
    }

    /** Drafts, newest first. */
    public List<Row> drafts() {
        return rows(repository.drafts(null));
    }

    /** What the head of a group says: late is what is late, this week what falls due in it, else all that is open. */
    private Group group(String when, List<Invoice> invoices, String more) {
        CurrencyUnit currency = business.business().currencyUnit();
        LocalDate until = switch (when) {
            case "late" -> clock.today().minusDays(1);
            case "week" -> clock.today().plusDays(7);
            default -> FAR;
        };
        List<Row> rows = rows(invoices);
        List<Money> sums = rows.stream()
                .flatMap(r -> r.measure().isEmpty()
                        ? Stream.ofNullable(r.open()).map(Amount::money)
                        : r.measure().stream()
                                .filter(p -> !p.dueOn().isAfter(until))
                                .map(p -> p.open().money()))
                .toList();
        Map<CurrencyUnit, Money> byCurrency = new TreeMap<>();
        sums.forEach(m -> byCurrency.merge(m.getCurrencyUnit(), m, Money::plus));
        Money own = byCurrency.getOrDefault(currency, Money.zero(currency));
        byCurrency.remove(currency);
        List<Amount> others = byCurrency.values().stream()
                .filter(m -> !m.isZero())
                .map(Amount::of)
                .toList();
        return new Group(when, Amount.of(own), others, rows, more);
    }

    private List<Row> rows(List<Invoice> invoices) {
        LocalDate today = clock.today();
        var installments = debts.ofAll(
                invoices.stream().filter(i -> !i.isDraft()).map(Invoice::id).toList());
        return invoices.stream()
                .map(i -> new Row(
                        i.id(),
                        i.clientId(),
                        i.clientName(),
                        i.number(),
                        i.subject(),
                        i.totalMinor() == null ? null : Amount.ofMinor(i.currency(), i.totalMinor()),
                        i.isDraft()
                                ? i.totalMinor() == null ? null : Amount.ofMinor(i.currency(), i.totalMinor())
                                : Amount.ofMinor(i.currency(), i.openMinor()),
                        i.nextDueOn(),
                        i.issuedOn(),
                        i.nextDueOn() != null && i.nextDueOn().isBefore(today),
                        i.voidedOn() != null,
                        Measure.of(installments.getOrDefault(i.id(), List.of()), today)))
                .toList();
    }
}
