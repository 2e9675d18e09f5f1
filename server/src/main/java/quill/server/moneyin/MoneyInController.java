package quill.server.moneyin;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.server.clearing.Payouts;
import quill.server.clearing.RefundOrders;
import quill.server.common.TypedMark;
import quill.server.payments.ByHand;
import quill.server.payments.PaymentRefunds;

/** What comes in, over HTTP: payments with their way, refunds, payouts and disputes. */
@RestController
@RequestMapping("/api")
class MoneyInController {
    private final MoneyIndex index;
    private final MoneyRecords records;
    private final PlannedRecords planned;
    private final Payouts payouts;
    private final RefundOrders refunds;
    private final ByHand byHand;

    MoneyInController(
            MoneyIndex index,
            MoneyRecords records,
            PlannedRecords planned,
            Payouts payouts,
            RefundOrders refunds,
            ByHand byHand) {
        this.index = index;
        this.records = records;
        this.planned = planned;
        this.payouts = payouts;
        this.refunds = refunds;
        this.byHand = byHand;
    }

    @GetMapping("/money-in")
    List<MoneyRow.MoneyGroup> moneyIn(@RequestParam(defaultValue = "") String filter) {
        return index.groups(filter);
    }

    @GetMapping("/money-in/payments/{id}")
    MoneyRecord moneyOfPayment(@PathVariable long id) {
        return records.ofPayment(id);
    }

    @GetMapping("/money-in/planned/{id}")
    MoneyRecord moneyPlanned(@PathVariable long id) {
        return planned.of(id);
    }

    @GetMapping("/money-in/orders/{id}")
    MoneyRecord moneyOfOrder(@PathVariable long id) {
        return records.ofOrder(id);
    }

    /** @param way a way by hand; empty for as it came */
    record RefundPayment(
            String key,
            @Schema(nullable = true) String way,
            String amount,
            @Schema(nullable = true) String paidOn,
            @Schema(nullable = true) String reference,
            @Schema(nullable = true) Boolean owedAgain,
            @Schema(nullable = true) Boolean withTop) {}

    /** Gives a payment back, or a part of it. */
    @PostMapping("/payments/{id}/refunds")
    MoneyRecord refundPayment(@PathVariable long id, @RequestBody RefundPayment r) {
        refunds.give(new PaymentRefunds.Given(
                r.key(),
                id,
                r.way(),
                TypedMark.plain(r.amount()),
                r.paidOn(),
                r.reference(),
                Boolean.TRUE.equals(r.owedAgain()),
                Boolean.TRUE.equals(r.withTop())));
        return records.ofPayment(id);
    }

    /** @param from a debt that it settles @param to an open one of the same client */
    record MovePayment(String key, long from, long to, String amount) {}

    /** Moves what a payment settles to another debt. */
    @PostMapping("/payments/{id}/moves")
    MoneyRecord movePayment(@PathVariable long id, @RequestBody MovePayment m) {
        byHand.move(m.key(), id, m.from(), m.to(), TypedMark.plain(m.amount()));
        return records.ofPayment(id);
    }

    /** @param cost what the bank keeps for it; empty for nothing */
    record ChequeBack(
            String key,
            @Schema(nullable = true) String on,
            @Schema(nullable = true) String cost,
            String why) {}

    /** A cheque came back. */
    @PostMapping("/payments/{id}/return")
    MoneyRecord chequeBack(@PathVariable long id, @RequestBody ChequeBack c) {
        byHand.chequeCameBack(c.key(), id, c.on(), TypedMark.plain(c.cost()), c.why());
        return records.ofPayment(id);
    }

    @PostMapping("/refunds/{id}/noted")
    void refundNoted(@PathVariable long id) {
        refunds.noted(id);
    }

    /** What is held and what was paid out. */
    record PayoutsView(List<Payouts.Payout> held, List<Payouts.Payout> past) {}

    @GetMapping("/payouts")
    PayoutsView payouts() {
        return new PayoutsView(payouts.held(), payouts.past());
    }

    @GetMapping("/payouts/{id}")
    Payouts.Payout payout(@PathVariable long id) {
        return payouts.find(id);
    }
}
