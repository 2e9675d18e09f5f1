package quill.server.today;

import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import quill.core.ledger.Standing;
import quill.core.money.Amounts;
import quill.server.business.BusinessService;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.LiveUpdates;
import quill.server.dispatch.DispatchService;
import quill.server.dispatch.Message;
import quill.server.invoices.InvoiceIndex;
import quill.server.invoices.Measure;
import quill.server.payments.Payment;
import quill.server.payments.PaymentsService;

/** Today: what is late, what comes this week, who owes over time, and what only a person can decide. */
@RestController
@RequestMapping("/api")
class TodayController {
    private static final int WEEKS_BACK = 6;
    private final InvoiceIndex index;
    private final DispatchService dispatch;
    private final PaymentsService payments;
    private final ClientsService clients;
    private final BusinessService business;
    private final LiveUpdates live;
    private final BusinessClock clock;

    TodayController(
            InvoiceIndex index,
            DispatchService dispatch,
            PaymentsService payments,
            ClientsService clients,
            BusinessService business,
            LiveUpdates live,
            BusinessClock clock) {
        this.index = index;
        this.dispatch = dispatch;
        this.payments = payments;
        this.clients = clients;
        this.business = business;
        this.live = live;
        this.clock = clock;
    }

    /** The sentence. @param most who owes most of what is late; empty where nothing is */
    record Sentence(Amount late, int lateClients, String most, Amount week, int weekClients, Amount open) {}

    /** A mark in the Almanac. @param size thousandths of the largest amount shown, for drawing only */
    record Mark(
            long invoiceId,
            String number,
            String what,
            LocalDate on,
            Amount amount,
            Standing standing,
            long daysLate,
            int size) {}

    /** A client's lane. */
    record Lane(long clientId, String client, Amount open, Amount late, List<Mark> marks) {}

    /** Something that only a person can decide. @param kind message, payment or draft */
    record Need(
            String kind, long id, @Schema(nullable = true) Long invoiceId, String title, String text) {}

    record TodayView(
            LocalDate today, LocalDate from, LocalDate to, Sentence sentence, List<Lane> lanes, List<Need> needs) {}

    @GetMapping("/today")
    TodayView show() {
        LocalDate today = clock.today();
        CurrencyUnit currency = business.business().currencyUnit();
        LocalDate from = today.minusWeeks(WEEKS_BACK);
        LocalDate to = today.plusWeeks(WEEKS_BACK);
        List<InvoiceIndex.Row> shown = new ArrayList<>(index.open());
        shown.addAll(index.settled(null, null).rows());
        return new TodayView(today, from, to, sentence(currency, today), lanes(shown, currency, from, to), needs());
    }

    private Sentence sentence(CurrencyUnit currency, LocalDate today) {
        Map<String, Money> lateBy = new LinkedHashMap<>();
        Map<String, Money> weekBy = new LinkedHashMap<>();
        Money open = Money.zero(currency);
        for (InvoiceIndex.Row row : index.open()) {
            for (Measure.Part part : row.measure()) {
                Money amount = part.open().money();
                open = open.plus(amount);
                if (amount.isPositive() && part.standing() == Standing.LATE) {
                    lateBy.merge(row.clientName(), amount, Money::plus);
                } else if (amount.isPositive() && !part.dueOn().isAfter(today.plusDays(7))) {
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
                Amount.of(open));
    }

    private static List<Lane> lanes(List<InvoiceIndex.Row> rows, CurrencyUnit currency, LocalDate from, LocalDate to) {
        Money largest = rows.stream()
                .flatMap(r -> r.measure().stream())
                .map(p -> p.amount().money())
                .max(Comparator.comparing(Money::getAmount))
                .orElse(Money.zero(currency));
        Map<Long, List<Mark>> marks = new LinkedHashMap<>();
        Map<Long, String> names = new LinkedHashMap<>();
        Map<Long, Money> open = new LinkedHashMap<>();
        Map<Long, Money> late = new LinkedHashMap<>();
        for (InvoiceIndex.Row row : rows) {
            names.put(row.clientId(), row.clientName());
            for (Measure.Part p : row.measure()) {
                open.merge(row.clientId(), p.open().money(), Money::plus);
                late.merge(
                        row.clientId(),
                        p.standing() == Standing.LATE ? p.open().money() : Money.zero(currency),
                        Money::plus);
                boolean inside = !p.dueOn().isBefore(from) && !p.dueOn().isAfter(to);
                if ((inside || p.standing() == Standing.LATE) && p.standing() != Standing.CREDITED) {
                    marks.computeIfAbsent(row.clientId(), k -> new ArrayList<>())
                            .add(new Mark(
                                    row.id(),
                                    row.number(),
                                    row.subject(),
                                    p.dueOn(),
                                    p.standing() == Standing.SETTLED ? p.amount() : p.open(),
                                    p.standing(),
                                    p.daysLate(),
                                    Measure.thousandthsOf(p.amount().money(), largest)));
                }
            }
        }
        return marks.entrySet().stream()
                .map(e -> new Lane(
                        e.getKey(),
                        names.get(e.getKey()),
                        Amount.of(open.get(e.getKey())),
                        Amount.of(late.get(e.getKey())),
                        e.getValue()))
                .sorted(Comparator.comparing((Lane l) -> l.late().money().getAmount())
                        .thenComparing(l -> l.open().money().getAmount())
                        .reversed()
                        .thenComparing(Lane::client))
                .toList();
    }

    private List<Need> needs() {
        List<Need> needs = new ArrayList<>();
        for (Message m : dispatch.needingSomebody()) {
            needs.add(new Need(
                    "message",
                    m.id(),
                    m.invoiceId(),
                    "uncertain".equals(m.state()) ? "Did this letter arrive?" : "A letter could not be sent",
                    m.subject() + ", to " + m.to() + ". " + m.error()));
        }
        for (Payment p : payments.unexpected()) {
            needs.add(new Need(
                    "payment",
                    p.id(),
                    p.invoiceId(),
                    "Money came that nothing was open for",
                    Amounts.grouped(p.amount().money()) + " " + p.words() + " from "
                            + clients.client(p.clientId()).name()
                            + " is held as client credit. Give it back, or let it settle what comes next."));
        }
        for (InvoiceIndex.Row d : index.drafts()) {
            String whom = d.clientName().isEmpty() ? "A draft" : "A draft for " + d.clientName();
            needs.add(new Need("draft", d.id(), d.id(), whom, d.subject().isEmpty() ? "not issued yet" : d.subject()));
        }
        return needs;
    }

    @Hidden
    @GetMapping(path = "/events", produces = "text/event-stream")
    SseEmitter events() {
        return live.open(change -> true);
    }
}
