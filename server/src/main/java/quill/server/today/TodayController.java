package quill.server.today;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import quill.core.RefusedException;
import quill.core.ledger.Standing;
import quill.core.money.Amounts;
import quill.server.business.BusinessService;
import quill.server.chasing.ActView;
import quill.server.chasing.ReminderPlans;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.LiveUpdates;
import quill.server.common.OneSnapshot;
import quill.server.dailyrun.ActViews;
import quill.server.dispatch.DispatchService;
import quill.server.invoices.InvoiceIndex;
import quill.server.invoices.Measure;

/** Today: what is late, what comes this week, who owes over time, what will happen, and what needs a person. */
@RestController
@RequestMapping("/api")
class TodayController {
    private static final Set<Integer> SPANS = Set.of(6, 12, 26, 52);
    private static final int DAYS_AHEAD = 7;
    private final InvoiceIndex index;
    private final DispatchService dispatch;
    private final Needs needs;
    private final ActViews acts;
    private final ReminderPlans plans;
    private final BusinessService business;
    private final LiveUpdates live;
    private final BusinessClock clock;

    TodayController(
            InvoiceIndex index,
            DispatchService dispatch,
            Needs needs,
            ActViews acts,
            ReminderPlans plans,
            BusinessService business,
            LiveUpdates live,
            BusinessClock clock) {
        this.index = index;
        this.dispatch = dispatch;
        this.needs = needs;
        this.acts = acts;
        this.plans = plans;
        this.business = business;
        this.live = live;
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

    /** @param hidden how many clients have no lane, since there are more than can be read */
    record TodayView(
            LocalDate today,
            int weeks,
            LocalDate from,
            LocalDate to,
            Sentence sentence,
            List<Almanac.Lane> lanes,
            int hidden,
            List<ActView> acts,
            boolean allKeptBack,
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
        List<InvoiceIndex.Row> open = index.open();
        List<InvoiceIndex.Row> shown = new ArrayList<>(open);
        shown.addAll(index.settledSince(from));
        List<Almanac.Lane> all = Almanac.lanes(shown, currency, from, to);
        List<Almanac.Lane> lanes = all.subList(0, Math.min(all.size(), Almanac.MOST_LANES));
        List<Long> clients = lanes.stream().map(Almanac.Lane::clientId).toList();
        List<ActView> soon = acts.until(today.plusDays(DAYS_AHEAD));
        return new TodayView(
                today,
                weeks,
                from,
                to,
                sentence(open, currency, today),
                Almanac.withActs(lanes, dispatch.reminders(clients, from), acts.until(clients, to)),
                all.size() - lanes.size(),
                soon,
                plans.setting().allKeptBack(),
                needs.all(soon, today));
    }

    private static Sentence sentence(List<InvoiceIndex.Row> rows, CurrencyUnit currency, LocalDate today) {
        Map<String, Money> lateBy = new LinkedHashMap<>();
        Map<String, Money> weekBy = new LinkedHashMap<>();
        Map<CurrencyUnit, Money> others = new LinkedHashMap<>();
        Money open = Money.zero(currency);
        for (InvoiceIndex.Row row : rows) {
            for (Measure.Part part : row.measure()) {
                Money amount = part.open().money();
                if (!amount.getCurrencyUnit().equals(currency)) {
                    others.merge(amount.getCurrencyUnit(), amount, Money::plus);
                    continue;
                }
                open = open.plus(amount);
                if (amount.isPositive() && part.standing() == Standing.LATE) {
                    lateBy.merge(row.clientName(), amount, Money::plus);
                } else if (amount.isPositive() && !part.dueOn().isAfter(today.plusDays(DAYS_AHEAD))) {
                    weekBy.merge(row.clientName(), amount, Money::plus);
                }
            }
        }
        String most = lateBy.entrySet().stream()
                .max(Comparator.comparing(e -> e.getValue().getAmount()))
                .map(Map.Entry::getKey)
                .orElse("");
        return new Sentence(
                Amount.of(Amounts.sum(currency, lateBy.values())),
                lateBy.size(),
                most,
                Amount.of(Amounts.sum(currency, weekBy.values())),
                weekBy.size(),
                Amount.of(open),
                others.values().stream()
                        .filter(Money::isPositive)
                        .map(Amount::of)
                        .toList());
    }

    @Hidden
    @GetMapping(path = "/events", produces = "text/event-stream")
    SseEmitter events(HttpServletRequest request) {
        return live.openForBusiness(String.valueOf(request.getSession().getAttribute(LiveUpdates.OWNER)));
    }
}
