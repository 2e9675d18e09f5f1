package quill.server.moneyin;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.ledger.Account;
import quill.core.ledger.Appropriation;
import quill.server.books.BooksService;
import quill.server.cardorders.OrderState;
import quill.server.cardorders.OrderViews;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.paylinks.LinkViews;
import quill.server.payments.Payment;
import quill.server.payments.PaymentRefunds;
import quill.server.payments.Payments;

/** Puts together what is known of one payment. */
@Service
@Transactional(readOnly = true)
class MoneyRecords {
    private final Payments payments;
    private final PaymentRefunds refunds;
    private final OrderViews orders;
    private final AtProcessors processors;
    private final ClientsService clients;
    private final BooksService books;
    private final Debts debts;
    private final PaymentMessages letters;

    MoneyRecords(
            Payments payments,
            PaymentRefunds refunds,
            OrderViews orders,
            AtProcessors processors,
            ClientsService clients,
            BooksService books,
            Debts debts,
            PaymentMessages letters) {
        this.payments = payments;
        this.refunds = refunds;
        this.orders = orders;
        this.processors = processors;
        this.clients = clients;
        this.books = books;
        this.debts = debts;
        this.letters = letters;
    }

    MoneyRecord ofPayment(long id) {
        Payment p = payments.find(id);
        List<Payments.Later> later = payments.later(id);
        List<Long> movements = Stream.concat(Stream.of(id), later.stream().map(Payments.Later::movementId))
                .toList();
        boolean gone = p.undone() != null
                || p.back().stands() == Payment.Stands.RETURNED
                || p.back().stands() == Payment.Stands.CONTESTED
                || p.back().stands() == Payment.Stands.LOST;
        PaymentRefunds.Possible possible = refunds.possible(p);
        boolean refundable = !gone && possible.most().isPositive();
        boolean online = p.means().way().account() == Account.PROCESSOR_CLEARING;
        Optional<OrderViews.Seen> order = online ? orders.ofKey(payments.keyOf(id)) : Optional.empty();
        return new MoneyRecord(
                "payment-" + id,
                MoneyIndex.stateOf(p),
                p.clientId(),
                clients.client(p.clientId()).name(),
                Amount.of(p.total()),
                p,
                "",
                processors.way(p, later),
                debts.settledBy(id).stream().map(this::settled).toList(),
                booked(movements),
                letters.of(p),
                new MoneyRecord.After(
                        refundable ? Amount.of(possible.credit()) : null,
                        refundable ? Amount.of(possible.most()) : null,
                        Amount.of(yours(p, later)),
                        later,
                        processors.refundsOf(id),
                        processors.disputeOf(id),
                        gone ? List.of() : processors.targets(p),
                        payments.processorsNumber(id),
                        order.map(o -> o.there().payAt()).orElse(null),
                        null,
                        order.map(this::from).orElse(null),
                        null));
    }

    private Money yours(Payment p, List<Payments.Later> later) {
        Money zero = Money.zero(p.amount().money().getCurrencyUnit());
        if (p.undone() != null) {
            return zero;
        }
        Money costs = later.stream().map(l -> l.cost().money()).reduce(zero, Money::plus);
        return p.amount()
                .money()
                .plus(payments.onTop(p).sum())
                .minus(p.fee().money())
                .minus(p.back().amount().money())
                .minus(costs);
    }

    private MoneyRecord.Settled settled(Appropriation.Part p) {
        Money open = debts.openOf(p.debt().id()).orElse(Money.zero(p.amount().getCurrencyUnit()));
        return new MoneyRecord.Settled(
                p.debt().id(),
                p.debt().document(),
                p.debt().number(),
                p.debt().position(),
                p.debt().fee(),
                Amount.of(p.amount()),
                Amount.of(open));
    }

    private List<MoneyRecord.Booking> booked(List<Long> movements) {
        return books.ofMovements(movements).stream()
                .flatMap(b -> b.postings().stream()
                        .map(p -> new MoneyRecord.Booking(
                                b.on(), b.text(), p.account().words(), Amount.of(p.amount()))))
                .toList();
    }

    /** An order at a processor; once it brought its money, the payment that came of it. */
    MoneyRecord ofOrder(long id) {
        OrderViews.Seen o = orders.of(id);
        Optional<Payment> came = payments.byKey(o.key());
        if (came.isPresent()) {
            return ofPayment(came.get().id());
        }
        MoneyRow.State state = MoneyIndex.stateOf(o);
        String begun = switch (state) {
            case ON_ITS_WAY ->
                "A bank debit from the " + lower(o.brings().with()) + " brings it. It is certain on "
                        + Texts.day(o.brings().until())
                        + "; until then it settles nothing, and nobody is reminded of what it is for.";
            case HELD ->
                o.state() == OrderState.HELD
                        ? "It is held on the " + lower(o.brings().with()) + " until "
                                + Texts.day(o.brings().until())
                                + ". Nothing is taken yet: take it, or less of it, when the work is done."
                        : "The card company is asked to "
                                + (o.state() == OrderState.TAKING ? "take it." : "let it go.");
            case DECLINED -> "Declined: " + o.declined() + ". Nothing was taken.";
            default -> nothingCame(o);
        };
        return new MoneyRecord(
                "order-" + id,
                state,
                o.clientId(),
                o.clientId() == null
                        ? processors.links().payerOf(o.linkPayment())
                        : clients.client(o.clientId()).name(),
                Amount.of(o.amount()),
                null,
                begun,
                List.of(),
                whatFor(o),
                List.of(),
                List.of(),
                MoneyRecord.After.notCome(
                        o.there().number(),
                        o.there().payAt(),
                        o.state() == OrderState.HELD ? o.id() : null,
                        from(o),
                        null));
    }

    private static String nothingCame(OrderViews.Seen o) {
        if (o.state() == OrderState.PAID) {
            return "It was paid on trial: no money moved, and nothing is in the books.";
        }
        if (o.brings().holds() && !o.brings().with().isEmpty()) {
            return "What the " + lower(o.brings().with())
                    + " held is held no more: it was let go, or its days were over. Nothing was taken.";
        }
        return "The pay page was opened, and nothing was paid on it. Nothing was taken.";
    }

    private LinkViews.FromLink from(OrderViews.Seen o) {
        return o.linkPayment() == null ? null : processors.links().from(o.linkPayment());
    }

    private List<MoneyRecord.Settled> whatFor(OrderViews.Seen o) {
        if (o.invoiceId() == null) {
            return List.of();
        }
        return MoneyRecord.Settled.toCome(debts.of(o.invoiceId()), processors.numberOf(o.invoiceId()), o.parts());
    }

    private static String lower(String with) {
        return with.isEmpty() ? "bank account" : Character.toLowerCase(with.charAt(0)) + with.substring(1);
    }
}
