package quill.server.invoices;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.id.DocumentId;
import quill.server.business.BusinessService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.OneSnapshot;
import quill.server.common.PageKey;
import quill.server.debts.Debts;
import quill.server.documents.Document;
import quill.server.documents.Shelves;

/** The index leaf: invoices grouped by when. Sums are over everything; rows are paged by key. */
@Service
public class InvoiceIndex {
    private static final int PAGE = 25;
    private static final int MOST_PARTS = 60;
    private static final int MOST_SETTLED = 400;
    private static final int WEEK = 7;
    private static final List<String> TIMES = List.of("late", "week", "draft", "later", "undated", "settled");
    private static final LocalDate LONG_AGO = LocalDate.of(1900, 1, 1);
    private static final LocalDate FAR = LocalDate.of(9999, 1, 1);
    private final Shelves shelves;
    private final Debts debts;
    private final BusinessService business;
    private final BusinessClock clock;

    InvoiceIndex(Shelves shelves, Debts debts, BusinessService business, BusinessClock clock) {
        this.shelves = shelves;
        this.debts = debts;
        this.business = business;
        this.clock = clock;
    }

    /** A row. @param open what is open; for a draft its total, null where it cannot be reckoned yet */
    public record Row(
            DocumentId id,
            @Schema(nullable = true) ClientId clientId,
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
     * Rows of one time: late, week, later, undated (nothing of it has a day yet), draft or settled.
     *
     * @param sum of what is in the business's own currency, over all pages: what is late, what falls due within the week,
     *     else all that is open
     * @param inOthers the sums of each other currency
     * @param count of all invoices of this time; zero where it is not counted, for settled ones
     * @param more key of the next page, or null
     */
    public record Group(
            String when,
            Amount sum,
            List<Amount> inOthers,
            int count,
            List<Row> rows,
            @Schema(nullable = true) String more) {}

    /** The first page of each group; empty ones are left out. */
    @OneSnapshot
    public List<Group> groups(String filter) {
        List<Shelves.Sum> sums = sums(filter);
        return TIMES.stream()
                .map(when -> page(when, filter, null, sums))
                .filter(g -> !g.rows().isEmpty())
                .toList();
    }

    /**
     * A page of one group.
     *
     * @param when late, week, draft, later, undated or settled
     * @param after what the page before said, or null for the first
     * @throws RefusedException naming {@code when} or {@code after}
     */
    public Group page(String when, String filter, String after) {
        if (!TIMES.contains(when)) {
            throw new RefusedException("when", when, "must be one of " + String.join(", ", TIMES));
        }
        return page(when, filter, after, sums(filter));
    }

    private List<Shelves.Sum> sums(String filter) {
        LocalDate today = clock.today();
        return shelves.sums(filter, today, today.plusDays(WEEK));
    }

    private Group page(String when, String filter, String after, List<Shelves.Sum> sums) {
        LocalDate today = clock.today();
        LocalDate weekEnd = today.plusDays(WEEK);
        boolean latestFirst = "draft".equals(when) || "settled".equals(when);
        PageKey key = after != null && !after.isEmpty()
                ? PageKey.of(after)
                : latestFirst ? new PageKey(FAR, Long.MAX_VALUE) : new PageKey(LONG_AGO, 0);
        List<Document> found = switch (when) {
            case "late" -> shelves.open(filter, LONG_AGO, today.minusDays(1), key.on(), key.id(), PAGE + 1);
            case "week" -> shelves.open(filter, today, weekEnd, key.on(), key.id(), PAGE + 1);
            case "later" -> shelves.open(filter, weekEnd.plusDays(1), FAR, key.on(), key.id(), PAGE + 1);
            case "undated" -> shelves.undated(filter, key.id(), PAGE + 1);
            case "draft" -> shelves.drafts(filter, key.id(), PAGE + 1);
            default -> shelves.settled(filter, key.on(), key.id(), PAGE + 1);
        };
        List<Row> rows = cut(rows(found.subList(0, Math.min(PAGE, found.size()))));
        boolean more = rows.size() < found.size();
        Row last = more ? rows.get(rows.size() - 1) : null;
        CurrencyUnit own = business.business().currencyUnit();
        List<Shelves.Sum> heads =
                sums.stream().filter(s -> s.when().equals(when)).toList();
        return new Group(
                when,
                heads.stream()
                        .filter(s -> s.currency().equals(own.getCode()))
                        .map(s -> Amount.ofMinor(s.currency(), s.minor()))
                        .findFirst()
                        .orElse(Amount.of(Money.zero(own))),
                heads.stream()
                        .filter(s -> !s.currency().equals(own.getCode()) && s.minor() != 0)
                        .map(s -> Amount.ofMinor(s.currency(), s.minor()))
                        .toList(),
                heads.stream().mapToInt(Shelves.Sum::count).sum(),
                rows,
                last == null ? null : keyOf(when, last));
    }

    private String keyOf(String when, Row row) {
        LocalDate on = switch (when) {
            case "draft", "undated" -> LONG_AGO;
            case "settled" -> shelves.settledOn(row.id());
            default -> row.nextDueOn();
        };
        return new PageKey(on, row.id().value()).toString();
    }

    /** As many rows as have so many installments together, at least one: an answer has a size that it keeps. */
    private static List<Row> cut(List<Row> rows) {
        int parts = 0;
        for (int i = 0; i < rows.size(); i++) {
            parts += rows.get(i).measure().size();
            if (parts > MOST_PARTS && i > 0) {
                return rows.subList(0, i);
            }
        }
        return rows;
    }

    /** All invoices of one client, newest first. */
    public List<Row> ofClient(ClientId clientId) {
        return rows(shelves.ofClient(clientId));
    }

    /** What some clients owe now, soonest due first, and what they settled since a day, latest first. */
    public List<Row> of(Collection<ClientId> clientIds, LocalDate settledSince) {
        if (clientIds.isEmpty()) {
            return List.of();
        }
        List<Document> invoices = new ArrayList<>(shelves.openOf(clientIds));
        invoices.addAll(shelves.settledOf(clientIds, settledSince, MOST_SETTLED));
        return rows(invoices);
    }

    /** Clients who owe nothing and settled something since a day, latest first. */
    public List<ClientId> settledClients(LocalDate since) {
        return shelves.settledClients(since);
    }

    /** Drafts, newest first. */
    public List<Row> drafts(int most) {
        return rows(shelves.drafts(null, Long.MAX_VALUE, most));
    }

    private List<Row> rows(List<Document> invoices) {
        LocalDate today = clock.today();
        var installments = debts.ofAll(
                invoices.stream().filter(i -> !i.isDraft()).map(Document::id).toList());
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
