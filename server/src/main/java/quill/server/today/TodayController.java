package quill.server.today;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.server.business.BusinessService;
import quill.server.chasing.ActView;
import quill.server.chasing.ReminderPlans;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.OneSnapshot;
import quill.server.dailyrun.ActViews;
import quill.server.debts.OpenSums;
import quill.server.dispatch.Correspondence;
import quill.server.invoices.InvoiceIndex;

/** Today: what is late, what comes this week, who owes over time, what will happen, and what needs a person. */
@RestController
@RequestMapping("/api")
class TodayController {
    private static final Set<Integer> SPANS = Set.of(6, 12, 26, 52);
    private static final int DAYS_AHEAD = 7;
    private static final int ACTS = 60;
    private final InvoiceIndex index;
    private final OpenSums sums;
    private final Correspondence correspondence;
    private final Needs needs;
    private final ActViews acts;
    private final ReminderPlans plans;
    private final BusinessService business;
    private final BusinessClock clock;

    TodayController(
            InvoiceIndex index,
            OpenSums sums,
            Correspondence correspondence,
            Needs needs,
            ActViews acts,
            ReminderPlans plans,
            BusinessService business,
            BusinessClock clock) {
        this.index = index;
        this.sums = sums;
        this.correspondence = correspondence;
        this.needs = needs;
        this.acts = acts;
        this.plans = plans;
        this.business = business;
        this.clock = clock;
    }

    /** The sentence. @param most who owes most of what is late; empty where nothing is */
    record Sentence(
            Amount late,
            int lateClients,
            String most,
            Amount week,
            int weekClients,
            Amount open,
            List<Amount> inOthers) {}

    /** @param hidden how many clients have no lane, since there are more than can be read
     * @param moreActs where further acts of the week begin, or null
     * @param allKeptUntil the last day on which everything is kept back; null where it has no end, or is not */
    record TodayView(
            LocalDate today,
            int weeks,
            LocalDate from,
            LocalDate to,
            Sentence sentence,
            List<Almanac.Lane> lanes,
            int hidden,
            List<ActView> acts,
            @Schema(nullable = true) String moreActs,
            boolean allKeptBack,
            @Schema(nullable = true) LocalDate allKeptUntil,
            List<Needs.Need> needs) {}

    @GetMapping("/today")
    @OneSnapshot
    TodayView show(@RequestParam(defaultValue = "12") int weeks) {
        if (!SPANS.contains(weeks)) {
            throw new RefusedException("weeks", weeks, "must be 6, 12, 26 or 52");
        }
        LocalDate today = clock.today();
        CurrencyUnit currency = business.business().currencyUnit();
        LocalDate from = today.minusDays(weeks * 7L / 2);
        LocalDate to = today.plusDays(weeks * 7L / 2);
        List<OpenSums.ClientSum> owed = sums.byClient(today, today.plusDays(DAYS_AHEAD));
        List<ClientId> settled = index.settledClients(from);
        List<ClientId> clients = Almanac.whoIsShown(owed, settled);
        List<Almanac.Lane> all = Almanac.lanes(index.of(clients, from), currency, from, to);
        List<Almanac.Lane> lanes = all.subList(0, Math.min(all.size(), Almanac.MOST_LANES));
        List<ClientId> shown =
                lanes.stream().map(Almanac.Lane::clientId).distinct().toList();
        ReminderPlans.PlanSetting plan = plans.setting();
        ActViews.Page soon = acts.page(today.plusDays(DAYS_AHEAD), null, ACTS);
        return new TodayView(
                today,
                weeks,
                from,
                to,
                sentence(owed, currency),
                Almanac.withQuotes(
                        Almanac.withActs(lanes, correspondence.reminders(shown, from), acts.until(shown, to)),
                        needs.quoteDays(to).stream()
                                .filter(d -> !d.on().isBefore(from))
                                .toList()),
                (int) owed.stream().map(OpenSums.ClientSum::clientId).distinct().count()
                        + settled.size()
                        - shown.size(),
                soon.acts(),
                soon.next(),
                plan.allKeptBack(),
                plan.allKeptUntil(),
                needs.all(today));
    }

    /** Further acts of the next seven days. @param more where the rest begins, or null */
    record ActsPage(
            List<ActView> acts, @Schema(nullable = true) String more) {}

    /** The next page of what will happen. @param after what the page before said in {@code more} */
    @GetMapping("/acts")
    @OneSnapshot
    ActsPage moreActs(@RequestParam String after) {
        ActViews.Page page = acts.page(clock.today().plusDays(DAYS_AHEAD), after, ACTS);
        return new ActsPage(page.acts(), page.next());
    }

    /** Sums over everything that is open, by client: two clients of one name are two. */
    private static Sentence sentence(List<OpenSums.ClientSum> all, CurrencyUnit currency) {
        Map<CurrencyUnit, Money> others = new TreeMap<>();
        Money zero = Money.zero(currency);
        Money open = zero;
        Money late = zero;
        Money week = zero;
        OpenSums.ClientSum most = null;
        int lateClients = 0;
        int weekClients = 0;
        for (OpenSums.ClientSum s : all) {
            if (!s.open().getCurrencyUnit().equals(currency)) {
                others.merge(s.open().getCurrencyUnit(), s.open(), Money::plus);
                continue;
            }
            open = open.plus(s.open());
            late = late.plus(s.late());
            week = week.plus(s.soon());
            lateClients += s.late().isPositive() ? 1 : 0;
            weekClients += s.soon().isPositive() ? 1 : 0;
            most = s.late().isPositive() && (most == null || s.late().isGreaterThan(most.late())) ? s : most;
        }
        return new Sentence(
                Amount.of(late),
                lateClients,
                most == null ? "" : most.client(),
                Amount.of(week),
                weekClients,
                Amount.of(open),
                others.values().stream().map(Amount::of).toList());
    }
}
