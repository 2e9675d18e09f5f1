package quill.server.moneyin;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import quill.core.ledger.Account;
import quill.core.ledger.Appropriation;
import quill.core.money.Amounts;
import quill.core.pay.PaymentWay;
import quill.core.pay.WayToPay;
import quill.server.books.BooksService;
import quill.server.cardorders.CardOrders;
import quill.server.clearing.Dispute;
import quill.server.clearing.Disputes;
import quill.server.clearing.Payouts;
import quill.server.clearing.RefundOrders;
import quill.server.clients.ClientsService;
import quill.server.common.Amount;
import quill.server.common.Texts;
import quill.server.debts.Debts;
import quill.server.payments.ByHand;
import quill.server.payments.Payment;
import quill.server.payments.PaymentRefunds;
import quill.server.payments.Payments;
import quill.server.ways.WaysService;

/** Puts together what is known of one payment. */
@Service
@Transactional(readOnly = true)
class MoneyRecords {
    private final Payments payments;
    private final PaymentRefunds refunds;
    private final CardOrders orders;
    private final AtProcessors processors;
    private final ClientsService clients;
    private final BooksService books;
    private final Debts debts;
    private final PaymentMessages letters;

    MoneyRecords(
            Payments payments,
            PaymentRefunds refunds,
            CardOrders orders,
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
        Optional<CardOrders.Seen> order = online ? orders.seen(payments.keyOf(id)) : Optional.empty();
        return new MoneyRecord(
                "payment-" + id,
                MoneyIndex.stateOf(p),
                p.clientId(),
                clients.client(p.clientId()).name(),
                p.amount(),
                p,
                "",
                processors.way(p),
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
                        order.map(CardOrders.Seen::payAt).orElse(null)));
    }

    private static Money yours(Payment p, List<Payments.Later> later) {
        Money zero = Money.zero(p.amount().money().getCurrencyUnit());
        if (p.undone() != null) {
            return zero;
        }
        Money costs = later.stream().map(l -> l.cost().money()).reduce(zero, Money::plus);
        return p.amount()
                .money()
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

    MoneyRecord ofOrder(long id) {
        CardOrders.Seen o = orders.seen(id);
        boolean underway = "underway".equals(o.state());
        MoneyRow.State state = underway
                ? MoneyRow.State.ON_ITS_WAY
                : o.declined().isEmpty() ? MoneyRow.State.GIVEN_UP : MoneyRow.State.DECLINED;
        String begun = underway
                ? "A bank debit from the " + lower(o.with()) + " brings it. It is certain on "
                        + Texts.day(o.certainOn())
                        + "; until then it settles nothing, and nobody is reminded of what it is for."
                : o.declined().isEmpty()
                        ? "The pay page was opened, and nothing was paid on it. Nothing was taken."
                        : "Declined: " + o.declined() + ". Nothing was taken.";
        return new MoneyRecord(
                "order-" + id,
                state,
                o.clientId(),
                clients.client(o.clientId()).name(),
                Amount.of(o.amount()),
                null,
                begun,
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                new MoneyRecord.After(null, null, null, List.of(), List.of(), null, List.of(), o.number(), o.payAt()));
    }

    private static String lower(String with) {
        return with.isEmpty() ? "bank account" : Character.toLowerCase(with.charAt(0)) + with.substring(1);
    }

    /** What processors say of a payment. */
    @Service
    static class AtProcessors {
        private final Payouts payouts;
        private final RefundOrders refunds;
        private final Disputes disputes;
        private final WaysService ways;
        private final ByHand byHand;

        AtProcessors(Payouts payouts, RefundOrders refunds, Disputes disputes, WaysService ways, ByHand byHand) {
            this.byHand = byHand;
            this.payouts = payouts;
            this.refunds = refunds;
            this.disputes = disputes;
            this.ways = ways;
        }

        List<MoneyRecord.Target> targets(Payment p) {
            return byHand.targets(p).stream()
                    .map(d -> new MoneyRecord.Target(
                            d.id(), d.number(), d.position(), d.fee(), d.dueOn(), Amount.of(d.open())))
                    .toList();
        }

        List<RefundOrders.GoingBack> refundsOf(long paymentId) {
            return refunds.of(paymentId);
        }

        Dispute disputeOf(long paymentId) {
            return disputes.ofPayment(paymentId).orElse(null);
        }

        /** Where money has been, and where it goes. */
        List<MoneyRecord.Station> way(Payment p) {
            List<MoneyRecord.Station> way = new ArrayList<>();
            String sum = Amounts.grouped(p.amount().money());
            way.add(new MoneyRecord.Station("paid " + sum, Texts.day(p.valueOn()), true, ""));
            if (p.undone() != null) {
                way.add(new MoneyRecord.Station(
                        "undone", Texts.day(p.undone().on()) + ", " + p.undone().why(), true, ""));
                return way;
            }
            if (p.means().way().account() != Account.PROCESSOR_CLEARING) {
                way.add(new MoneyRecord.Station(
                        p.means().way() == PaymentWay.CASH ? "in the cash box" : "in the bank",
                        "recorded on " + Texts.day(p.bookedOn()),
                        true,
                        ""));
                return way;
            }
            WayToPay by = p.means().way() == PaymentWay.BANK_DEBIT ? WayToPay.BANK_DEBIT : WayToPay.CARD;
            Optional<WaysService.Usual> usual = ways.usual(by, p.amount().money(), p.valueOn());
            way.add(new MoneyRecord.Station("at the processor", Texts.day(p.bookedOn()), true, fee(p, usual)));
            Money yours = p.amount().money().minus(p.fee().money());
            if (p.back().payoutId() == null) {
                LocalDate about = usual.map(WaysService.Usual::arrivesOn).orElse(p.valueOn());
                way.add(new MoneyRecord.Station("payout", "about " + Texts.day(about), false, ""));
            } else {
                Payouts.Payout payout = payouts.find(p.back().payoutId());
                int others = payout.parts().size() - 1;
                way.add(new MoneyRecord.Station(
                        "payout of " + Texts.day(payout.on()),
                        Amounts.grouped(yours) + " of "
                                + Amounts.grouped(payout.net().money())
                                + (others > 0 ? ", with " + others + (others == 1 ? " other" : " others") : ""),
                        true,
                        ""));
            }
            way.add(new MoneyRecord.Station("in the bank", "", p.back().payoutId() != null, ""));
            return way;
        }

        private static String fee(Payment p, Optional<WaysService.Usual> usual) {
            Money fee = p.fee().money();
            if (!fee.isPositive()) {
                return "";
            }
            String how = usual.filter(u -> u.cost().isEqual(fee))
                    .map(u -> " = " + u.how())
                    .orElse("");
            return "fee " + Amounts.grouped(fee) + how;
        }
    }
}
