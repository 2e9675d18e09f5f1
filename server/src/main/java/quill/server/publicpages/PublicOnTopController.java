package quill.server.publicpages;

import java.util.ArrayList;
import java.util.List;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.ledger.OnTop;
import quill.core.money.TypedNumber;
import quill.core.pay.WayToPay;
import quill.server.common.Amount;
import quill.server.documents.Documents;
import quill.server.paylinks.PaymentLinks;
import quill.server.ways.OnTopService;

/** What is on top of what is paid on a client's page, before it is paid. */
@RestController
@RequestMapping("/api/public/{token}")
class PublicOnTopController {
    private final OnTopService onTop;
    private final Documents documents;
    private final PaymentLinks links;

    PublicOnTopController(OnTopService onTop, Documents documents, PaymentLinks links) {
        this.onTop = onTop;
        this.documents = documents;
        this.links = links;
    }

    /** A tip that can be picked. @param words as a percentage or an amount */
    record TipOffer(String words, Amount amount) {}

    /**
     * What is on top.
     *
     * @param charges whether paying by card costs something
     * @param surcharge what is asked for paying by card, without its tax
     * @param taxName empty where it bears none
     * @param tips whether tips are taken
     * @param free whether another tip than those offered can be typed
     * @param total of all
     */
    record OnTopView(
            boolean charges,
            Amount surcharge,
            Amount tax,
            String taxName,
            Amount charged,
            Amount tip,
            boolean tips,
            List<TipOffer> offered,
            boolean free,
            Amount total) {}

    /** @param way CARD, BANK_DEBIT, or empty for not chosen @param tip as typed; empty for none */
    @GetMapping("/on-top")
    OnTopView onTop(
            @PathVariable String token,
            @RequestParam String amount,
            @RequestParam String currency,
            @RequestParam(defaultValue = "") String way,
            @RequestParam(defaultValue = "") String tip) {
        if (!links.isLink(token)) {
            documents.byToken(token);
        }
        List<Problem> problems = new ArrayList<>();
        CurrencyUnit unit = TypedNumber.currency("currency", currency, problems);
        Money sum = unit == null ? null : TypedNumber.amount("amount", amount, unit, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        WayToPay by = WayToPay.online().stream()
                .filter(w -> w.name().equals(way))
                .findFirst()
                .orElse(null);
        OnTopService.Offered now = onTop.offered(sum, by, tip, problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        OnTop top = now.top();
        return new OnTopView(
                now.charges(),
                Amount.of(top.surcharge()),
                Amount.of(top.tax()),
                now.taxName(),
                Amount.of(top.charged()),
                Amount.of(top.tip()),
                now.tips() != null,
                now.tips() == null
                        ? List.of()
                        : now.tips().stream()
                                .map(o -> new TipOffer(o.words(), Amount.of(o.amount())))
                                .toList(),
                now.free(),
                Amount.of(sum.plus(top.sum())));
    }
}
