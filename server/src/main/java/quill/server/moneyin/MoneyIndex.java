package quill.server.moneyin;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.id.ClientId;
import quill.core.ledger.Account;
import quill.core.money.Amounts;
import quill.server.cardorders.OrderState;
import quill.server.cardorders.OrderViews;
import quill.server.clearing.Dispute;
import quill.server.clearing.Disputes;
import quill.server.clients.ClientsService;
import quill.server.collections.PlannedPayment;
import quill.server.collections.PlannedPayments;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Texts;
import quill.server.paylinks.LinkViews;
import quill.server.payments.Payment;
import quill.server.payments.Payments;

/** What comes in, by how it stands: the latest of it. All of it is the list of payments. */
@Service
@Transactional(readOnly = true)
class MoneyIndex {
    private static final int MOST = 300;
    private static final int DAYS_LATELY = 31;
    private final Payments payments;
    private final OrderViews orders;
    private final Disputes disputes;
    private final ClientsService clients;
    private final LinkViews links;
    private final PlannedPayments planned;
    private final BusinessClock clock;

    MoneyIndex(
            Payments payments,
            OrderViews orders,
            Disputes disputes,
            ClientsService clients,
            LinkViews links,
            PlannedPayments planned,
            BusinessClock clock) {
        this.planned = planned;
        this.links = links;
        this.payments = payments;
        this.orders = orders;
        this.disputes = disputes;
        this.clients = clients;
        this.clock = clock;
    }

    /** @param filter a part of a client's name, of how it came, or of a plain amount; empty or null for all */
    List<MoneyRow.MoneyGroup> groups(String filter) {
        String part = filter == null ? "" : filter.strip().toLowerCase(Locale.ROOT);
        Map<ClientId, String> names = new HashMap<>();
        List<MoneyRow> rows = new ArrayList<>();
        payments.latest(MOST).stream().map(p -> row(p, names)).forEach(rows::add);
        Stream.concat(orders.underway(null).stream(), orders.held(null).stream())
                .map(o -> row(o, names))
                .forEach(rows::add);
        orders.unpaid(clock.today().minusDays(DAYS_LATELY), MOST).stream()
                .map(u -> row(u, names))
                .forEach(rows::add);
        planned.all(PlannedPayment.State.PLANNED).stream()
                .map(p -> new MoneyRow(
                        "planned-" + p.id(),
                        MoneyRow.State.PLANNED,
                        p.clientId(),
                        name(p.clientId(), names),
                        Amount.of(p.amount()),
                        planned.from(p) + " · on " + Texts.day(p.on()),
                        p.on()))
                .forEach(rows::add);
        LocalDate lately = clock.today().minusDays(DAYS_LATELY);
        return Arrays.stream(MoneyRow.State.values())
                .map(state -> group(
                        state,
                        rows.stream()
                                .filter(r -> r.state() == state)
                                .filter(r -> state != MoneyRow.State.IN_THE_BANK
                                        || !part.isEmpty()
                                        || r.on().isAfter(lately))
                                .filter(r -> fits(r, part))
                                .sorted(Comparator.comparing(MoneyRow::on).reversed())
                                .toList()))
                .filter(g -> !g.rows().isEmpty())
                .toList();
    }

    private static boolean fits(MoneyRow r, String part) {
        return part.isEmpty()
                || (r.clientName() + " " + r.words() + " " + r.amount().amount())
                        .toLowerCase(Locale.ROOT)
                        .contains(part);
    }

    private static MoneyRow.MoneyGroup group(MoneyRow.State state, List<MoneyRow> rows) {
        Map<CurrencyUnit, Money> sums = new TreeMap<>();
        if (state.compareTo(MoneyRow.State.WENT_BACK) < 0) {
            rows.forEach(r ->
                    sums.merge(r.amount().money().getCurrencyUnit(), r.amount().money(), Money::plus));
        }
        return new MoneyRow.MoneyGroup(
                state,
                state.words(),
                rows,
                sums.values().stream().map(Amount::of).toList());
    }

    private String name(ClientId id, Map<ClientId, String> names) {
        return names.computeIfAbsent(id, i -> clients.client(i).name());
    }

    private MoneyRow row(Payment p, Map<ClientId, String> names) {
        return new MoneyRow(
                "payment-" + p.id(),
                stateOf(p),
                p.clientId(),
                name(p.clientId(), names),
                Amount.of(p.total()),
                words(p),
                p.valueOn());
    }

    /** How a payment stands. */
    static MoneyRow.State stateOf(Payment p) {
        if (p.undone() != null
                || p.back().stands() == Payment.Stands.RETURNED
                || p.back().stands() == Payment.Stands.LOST
                || p.back().amount().money().isEqual(p.amount().money())
                        && p.back().stands() != Payment.Stands.CONTESTED) {
            return MoneyRow.State.WENT_BACK;
        }
        if (p.back().stands() == Payment.Stands.CONTESTED) {
            return MoneyRow.State.CONTESTED;
        }
        boolean clearing = p.means().way().account() == Account.PROCESSOR_CLEARING;
        return clearing && p.back().payoutId() == null ? MoneyRow.State.ARRIVED : MoneyRow.State.IN_THE_BANK;
    }

    private String words(Payment p) {
        List<String> words = new ArrayList<>();
        words.add(
                p.means().card().isEmpty() ? p.means().way().word() : p.means().card());
        if (p.undone() != null) {
            words.add("undone");
        } else if (p.back().stands() == Payment.Stands.CONTESTED) {
            disputes.ofPayment(p.id()).map(this::words).ifPresent(words::add);
        } else if (p.back().stands() == Payment.Stands.RETURNED) {
            words.add("came back");
        } else if (p.back().stands() == Payment.Stands.LOST) {
            words.add("contested and lost");
        } else if (p.back().amount().money().isPositive()) {
            words.add(Amounts.grouped(p.back().amount().money()) + " given back");
        }
        words.add(Texts.day(p.valueOn()));
        return String.join(" · ", words);
    }

    private String words(Dispute d) {
        return "“" + d.reason() + "” · "
                + (d.state() == Dispute.State.OPEN
                        ? "answer by " + Texts.day(d.days().answerBy())
                        : "answered");
    }

    private MoneyRow row(OrderViews.Seen o, Map<ClientId, String> names) {
        MoneyRow.State state = stateOf(o);
        LocalDate until = o.brings().until();
        String words = switch (state) {
            case ON_ITS_WAY -> "bank debit · certain on " + Texts.day(until);
            case HELD -> o.brings().with() + " · until " + Texts.day(until);
            default -> (o.declined().isEmpty() ? "" : o.declined() + " · ") + Texts.day(o.begunOn());
        };
        return new MoneyRow(
                "order-" + o.id(),
                state,
                o.clientId(),
                o.clientId() == null ? links.payerOf(o.linkPayment()) : name(o.clientId(), names),
                Amount.of(o.amount()),
                words,
                until == null ? o.begunOn() : until);
    }

    /** How an order stands. */
    static MoneyRow.State stateOf(OrderViews.Seen o) {
        if (o.state() == OrderState.UNDERWAY) {
            return MoneyRow.State.ON_ITS_WAY;
        }
        if (o.state() == OrderState.HELD || o.state() == OrderState.TAKING || o.state() == OrderState.RELEASING) {
            return MoneyRow.State.HELD;
        }
        return o.declined().isEmpty() ? MoneyRow.State.GIVEN_UP : MoneyRow.State.DECLINED;
    }
}
