package quill.server.moneyin;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import quill.core.id.DocumentId;
import quill.core.ledger.Account;
import quill.core.money.Amounts;
import quill.core.pay.PaymentWay;
import quill.core.pay.WayRule;
import quill.core.pay.WayToPay;
import quill.server.clearing.Dispute;
import quill.server.clearing.Disputes;
import quill.server.clearing.Payouts;
import quill.server.clearing.RefundOrders;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.Texts;
import quill.server.documents.Document;
import quill.server.documents.Documents;
import quill.server.paylinks.LinkViews;
import quill.server.payments.ByHand;
import quill.server.payments.Payment;
import quill.server.payments.Payments;
import quill.server.ways.WaysService;

/** What processors say of a payment. */
@Service
class AtProcessors {
    private final Payouts payouts;
    private final RefundOrders refunds;
    private final Disputes disputes;
    private final WaysService ways;
    private final ByHand byHand;
    private final Documents documents;
    private final LinkViews links;
    private final BusinessClock clock;

    AtProcessors(
            Payouts payouts,
            RefundOrders refunds,
            Disputes disputes,
            WaysService ways,
            ByHand byHand,
            Documents documents,
            LinkViews links,
            BusinessClock clock) {
        this.links = links;
        this.clock = clock;
        this.documents = documents;
        this.byHand = byHand;
        this.payouts = payouts;
        this.refunds = refunds;
        this.disputes = disputes;
        this.ways = ways;
    }

    LinkViews links() {
        return links;
    }

    List<MoneyRecord.Target> targets(Payment p) {
        return byHand.targets(p).stream()
                .map(d -> new MoneyRecord.Target(
                        d.id(), d.number(), d.position(), d.fee(), d.dueOn(), Amount.of(d.open())))
                .toList();
    }

    String numberOf(DocumentId id) {
        return documents.find(id).map(Document::number).orElse("");
    }

    List<RefundOrders.GoingBack> refundsOf(long paymentId) {
        return refunds.of(paymentId);
    }

    Dispute disputeOf(long paymentId) {
        return disputes.ofPayment(paymentId).orElse(null);
    }

    /** Where money has been, and where it goes. */
    List<MoneyRecord.Station> way(Payment p, List<Payments.Later> later) {
        List<MoneyRecord.Station> way = new ArrayList<>();
        String sum = Amounts.grouped(p.total());
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
        WayToPay by = WayToPay.online(p.means().way(), p.means().card());
        Optional<WaysService.Usual> usual = ways.usual(by, p.total(), p.valueOn());
        way.add(new MoneyRecord.Station("at the processor", Texts.day(p.bookedOn()), true, fee(p, usual)));
        Money yours = p.total().minus(p.fee().money());
        Optional<Payments.Later> gone = later.stream()
                .filter(l -> l.kind().equals("CHARGEBACK") || l.kind().equals("RETURN"))
                .findFirst()
                .filter(l -> p.back().stands() != Payment.Stands.WON);
        if (gone.isPresent() && p.back().payoutId() == null) {
            way.add(new MoneyRecord.Station("taken back", Texts.day(gone.get().on()), true, ""));
            return way;
        }
        boolean there = false;
        String when = "";
        if (p.back().payoutId() == null) {
            LocalDate about = usual.map(WaysService.Usual::arrivesOn).orElse(p.valueOn());
            way.add(new MoneyRecord.Station("payout", "about " + Texts.day(about), false, ""));
        } else {
            Payouts.Payout payout = payouts.withoutParts(p.back().payoutId());
            int others = payout.count() - 1;
            LocalDate bank = WayRule.workingDaysAfter(payout.on(), 1);
            there = !clock.today().isBefore(bank);
            when = "about " + Texts.day(bank);
            way.add(new MoneyRecord.Station(
                    "payout of " + Texts.day(payout.on()),
                    Amounts.grouped(yours) + " of "
                            + Amounts.grouped(payout.net().money())
                            + (others > 0 ? ", with " + others + (others == 1 ? " other" : " others") : ""),
                    true,
                    ""));
        }
        way.add(new MoneyRecord.Station("in the bank", when, there, ""));
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
