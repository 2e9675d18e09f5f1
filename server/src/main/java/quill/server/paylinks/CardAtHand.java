package quill.server.paylinks;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.joda.money.CurrencyUnit;
import org.joda.money.Money;
import org.springframework.stereotype.Service;
import quill.core.Problem;
import quill.core.RefusedException;
import quill.core.id.ClientId;
import quill.core.money.TypedNumber;
import quill.core.pay.LinkAmount;
import quill.server.business.BusinessService;
import quill.server.cardorders.HowPaid;
import quill.server.clients.Client;
import quill.server.clients.ClientsService;
import quill.server.collections.SavedViews;
import quill.server.common.BusinessClock;
import quill.server.common.RandomText;
import quill.server.common.Texts;
import quill.server.common.TypedMark;
import quill.server.payments.Payer;

/** Takes a card that is at hand, or told by telephone, with no invoice behind it: on the card company's own page. */
@Service
class CardAtHand {
    private static final int BYTES = 24;
    /** What may be said besides: it helps where the payment is contested, and stands on the receipt. */
    private static final Map<String, String> DETAILS = details();

    private final PaymentLinks links;
    private final LinkPaying paying;
    private final ClientsService clients;
    private final BusinessService business;
    private final BusinessClock clock;
    private final SavedViews saved;

    CardAtHand(
            PaymentLinks links,
            LinkPaying paying,
            ClientsService clients,
            BusinessService business,
            BusinessClock clock,
            SavedViews saved) {
        this.saved = saved;
        this.links = links;
        this.paying = paying;
        this.clients = clients;
        this.business = business;
        this.clock = clock;
    }

    private static Map<String, String> details() {
        Map<String, String> all = new LinkedHashMap<>();
        all.put("orderNumber", "Order number");
        all.put("purchaseOrder", "Their purchase order");
        all.put("deliverTo", "Delivered to");
        all.put("billingName", "Name on the bill");
        all.put("billingPostcode", "Postcode of the bill");
        return all;
    }

    /**
     * As typed.
     *
     * @param clientId who pays; null for somebody new, whose name is typed
     * @param email for the receipt; the client's own where it is empty
     * @param amount with its taxes, without delivery
     * @param delivery what delivery costs; empty for nothing
     * @param taxes keys of those that are inside; none where it is exempt
     * @param details by their names: orderNumber, purchaseOrder, deliverTo, billingName, billingPostcode
     * @param hold whether it is only held
     * @param keep what was agreed, where the card or account is kept for later; null where it is not
     */
    record TakeCard(
            String key,
            @Schema(nullable = true) ClientId clientId,
            @Schema(nullable = true) String name,
            @Schema(nullable = true) String email,
            String what,
            String currency,
            String amount,
            @Schema(nullable = true) String delivery,
            List<String> taxes,
            @Schema(nullable = true) Map<String, String> details,
            boolean hold,
            @Schema(nullable = true) KeepAtHand keep) {}

    /** @param most so much at a time; empty for every open sum @param said what the client said */
    record KeepAtHand(
            boolean collects, @Schema(nullable = true) String most, String said) {
        private SavedViews.Kept plain() {
            return new SavedViews.Kept(new SavedViews.TypedKeep(collects, TypedMark.plain(most)), said);
        }
    }

    /**
     * Opens the card company's page; the same key opens the same one.
     *
     * @return its address
     * @throws RefusedException naming what is wrong
     */
    String open(TakeCard t) {
        Texts.key(t.key(), "payment");
        List<Problem> problems = new ArrayList<>();
        Payer payer = payer(t, problems);
        String what = Texts.name("what", t.what(), 120, true, problems);
        CurrencyUnit currency = TypedNumber.currency("currency", t.currency(), problems);
        Money amount = currency == null ? null : sum("amount", t.amount(), currency, true, problems);
        Money delivery = currency == null ? null : sum("delivery", t.delivery(), currency, false, problems);
        List<String> taxes = t.taxes() == null ? List.of() : t.taxes();
        taxes.stream()
                .filter(tax -> !business.taxes().containsKey(tax))
                .forEach(tax -> problems.add(new Problem("taxes", tax, "must be among your taxes")));
        List<PaymentLink.FilledIn> said = said(t, problems);
        HowPaid how = currency == null
                ? null
                : saved.atHand(
                        t.clientId(),
                        currency,
                        t.hold(),
                        t.keep() == null
                                ? new SavedViews.Kept(null, null)
                                : t.keep().plain(),
                        problems);
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        Money total = amount.plus(delivery);
        PaymentLink link = links.make(t.key(), link(what, total, taxes, t.clientId(), t.hold()));
        return paying.begin(
                link,
                t.key(),
                how,
                new LinkPaymentRepository.Begun(
                        0,
                        link.id(),
                        RandomText.of(BYTES),
                        t.clientId(),
                        payer,
                        said,
                        "",
                        what,
                        total,
                        delivery,
                        clock.today(),
                        null));
    }

    private Payer payer(TakeCard t, List<Problem> problems) {
        Client known = t.clientId() == null ? null : clients.client(t.clientId());
        String email = Texts.email("email", t.email(), false, problems);
        return known == null
                ? new Payer(Texts.name("name", t.name(), 120, true, problems), email)
                : new Payer(known.name(), email.isEmpty() ? known.forReceipts().email() : email);
    }

    private static List<PaymentLink.FilledIn> said(TakeCard t, List<Problem> problems) {
        List<PaymentLink.FilledIn> said = new ArrayList<>();
        DETAILS.forEach((field, label) -> {
            String typed = t.details() == null ? "" : t.details().get(field);
            String text = Texts.text("details." + field, typed, 300, false, problems);
            if (!text.isEmpty()) {
                said.add(new PaymentLink.FilledIn(label, text));
            }
        });
        return said;
    }

    private static Money sum(
            String field, String typed, CurrencyUnit currency, boolean needed, List<Problem> problems) {
        if (!needed && (typed == null || typed.isBlank())) {
            return Money.zero(currency);
        }
        Money sum = TypedNumber.amount(field, TypedMark.plain(typed), currency, problems);
        if (sum != null && (needed ? !sum.isPositive() : sum.isNegative())) {
            problems.add(new Problem(field, typed, needed ? "must be above zero" : "must not be below zero"));
        }
        return sum;
    }

    private PaymentLink link(String what, Money total, List<String> taxes, ClientId clientId, boolean hold) {
        LocalDate today = clock.today();
        return new PaymentLink(
                0,
                "",
                what,
                "",
                PaymentLink.LinkAsks.of(new LinkAmount(total, total)),
                taxes,
                new PaymentLink.LinkRules(true, null, "", clientId, hold, false),
                List.of(),
                new PaymentLink.AfterPaying("", ""),
                false,
                0,
                today);
    }
}
