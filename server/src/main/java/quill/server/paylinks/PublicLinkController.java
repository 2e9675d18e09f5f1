package quill.server.paylinks;

import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import quill.core.pay.SecureAddress;
import quill.core.pay.WayRule;
import quill.core.pay.WayToPay;
import quill.server.business.BankAccounts;
import quill.server.business.Business;
import quill.server.business.Logos;
import quill.server.cardorders.LinkOrders;
import quill.server.cardorders.OrderViews;
import quill.server.common.Amount;
import quill.server.common.BusinessClock;
import quill.server.common.NotFoundException;

/** The page of a payment link, reached by an unguessable address. */
@RestController
@RequestMapping("/api/public/{token}/link")
class PublicLinkController {
    private final LinkPaying paying;
    private final PaymentLinks links;
    private final LinkOrders orders;
    private final InsideTaxes taxes;
    private final BankAccounts accounts;
    private final Logos logos;
    private final BusinessClock clock;

    PublicLinkController(
            LinkPaying paying,
            PaymentLinks links,
            LinkOrders orders,
            InsideTaxes taxes,
            BankAccounts accounts,
            Logos logos,
            BusinessClock clock) {
        this.paying = paying;
        this.links = links;
        this.orders = orders;
        this.taxes = taxes;
        this.accounts = accounts;
        this.logos = logos;
        this.clock = clock;
    }

    /** Whose link it is. @param logo whether there is one */
    record LinkFrom(String name, String tagline, String address, String email, String taxNumber, boolean logo) {}

    /** A tax that is inside. @param amount what it comes to; null where the payer chooses the amount */
    record InsideTax(String name, @Schema(nullable = true) Amount amount) {}

    /** The page. */
    record LinkPage(
            LinkFrom from,
            String title,
            String description,
            PaymentLink.LinkAsks asks,
            List<InsideTax> taxes,
            String terms,
            List<PaymentLink.LinkField> fields,
            PaymentLink.State state,
            @Schema(nullable = true) LocalDate endsOn,
            LinkTakes takes) {}

    /**
     * How it can be paid.
     *
     * @param by on the card company's page: by card or bank debit; empty where it is not taken
     * @param wallets those that show there where a device has them, by their names
     * @param test whether on trial only
     * @param hold whether a card's money is only held
     * @param debitCertainOn when a bank debit that is begun today is certain; null where none is taken
     */
    record LinkTakes(
            String by,
            List<String> wallets,
            boolean test,
            boolean hold,
            @Schema(nullable = true) LocalDate debitCertainOn) {}

    /** What came of a payment. */
    enum Came {
        PAID,
        /** On trial: nothing was taken. */
        TRIED,
        /** A bank debit brings it. */
        ON_ITS_WAY,
        HELD,
        NOT_PAID,
        /** The processor does not answer. */
        UNKNOWN
    }

    /**
     * What whoever is back from paying is told.
     *
     * @param declined why the card was refused; empty where it was not
     * @param until when a bank debit is certain, or the last day of what is held; null for others
     * @param onward where to go on to; empty for nowhere
     * @param place the same, as people say it
     */
    record LinkBack(
            Came came,
            Amount amount,
            String title,
            String email,
            String declined,
            @Schema(nullable = true) LocalDate until,
            String thanks,
            String onward,
            String place) {}

    record LinkPayAt(String address) {}

    @GetMapping
    LinkPage linkPage(@PathVariable String token) {
        PaymentLink l = paying.byToken(token);
        Business from = accounts.business(l.asks().least().money().getCurrencyUnit());
        var takes = orders.takes(
                l.asks().least().money(), l.rules().clientId(), l.rules().hold());
        boolean fixed = l.asks().amount().isFixed();
        boolean debit =
                takes.filter(t -> t.ways().contains(WayToPay.BANK_DEBIT)).isPresent();
        return new LinkPage(
                new LinkFrom(
                        from.name(),
                        from.tagline(),
                        from.address(),
                        from.email(),
                        from.taxNumber(),
                        !logos.now().isEmpty()),
                l.title(),
                l.description(),
                l.asks(),
                taxes.of(l.asks().least().money(), l.taxes()).stream()
                        .map(t -> new InsideTax(t.name(), fixed ? Amount.of(t.amount()) : null))
                        .toList(),
                l.rules().terms(),
                l.fields(),
                links.state(l),
                l.rules().endsOn(),
                new LinkTakes(
                        takes.map(t -> WayToPay.onPage(t.ways())).orElse(""),
                        takes.map(t -> WayToPay.wallets(t.ways())).orElse(List.of()),
                        takes.filter(LinkOrders.Taken::test).isPresent(),
                        l.rules().hold(),
                        debit ? WayRule.workingDaysAfter(clock.today(), WayRule.DEBIT_DAYS) : null));
    }

    /** Begins a payment. */
    @PostMapping("/payments")
    LinkPayAt payLink(@PathVariable String token, @RequestBody LinkPaying.PayLink typed) {
        return new LinkPayAt(paying.begin(token, typed));
    }

    /** Whoever paid is back: the processor is asked at once. @param payer the payer's own part of the address */
    @PostMapping("/payments/{payer}/back")
    LinkBack linkBack(@PathVariable String token, @PathVariable String payer) {
        PaymentLink l = paying.byToken(token);
        LinkPaymentRepository.Begun b = paying.begunBy(l, payer);
        boolean answered = orders.askNow(b.id());
        List<OrderViews.Seen> seen = orders.of(List.of(b.id()));
        OrderViews.Seen shown = seen.stream()
                .filter(o -> came(o) != Came.NOT_PAID)
                .findFirst()
                .orElse(seen.isEmpty() ? null : seen.get(0));
        Came came = shown == null ? Came.NOT_PAID : came(shown);
        String onward = l.after().onward();
        return new LinkBack(
                came == Came.NOT_PAID && !answered ? Came.UNKNOWN : came,
                Amount.of(b.amount()),
                b.title(),
                b.payer().email(),
                shown == null ? "" : shown.declined(),
                shown == null ? null : shown.brings().until(),
                l.after().thanks(),
                onward,
                onward.isEmpty() ? "" : SecureAddress.place(onward));
    }

    private static Came came(OrderViews.Seen o) {
        return switch (o.state()) {
            case PAID -> o.there().test() ? Came.TRIED : Came.PAID;
            case UNDERWAY -> Came.ON_ITS_WAY;
            case HELD, TAKING, RELEASING -> Came.HELD;
            default -> Came.NOT_PAID;
        };
    }

    @Hidden
    @GetMapping(path = "/logo", produces = "image/png")
    byte[] linkLogo(@PathVariable String token) {
        paying.byToken(token);
        return logos.png(logos.now()).orElseThrow(() -> new NotFoundException("There is no logo."));
    }
}
