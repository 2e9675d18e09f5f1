package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.server.ResponseStatusException;
import quill.standins.StandinsSettings;

/** Orders, as a business may ask for them. Every call carries its key; an order carries a key of the caller's. */
@RestController
@RequestMapping("/api")
class OrderApi {
    private static final Map<String, Currency> CURRENCIES =
            Currency.getAvailableCurrencies().stream().collect(Collectors.toMap(Currency::getCurrencyCode, c -> c));
    private static final Set<String> WAYS = Set.of("card", "debit", "satchel", "hatbox");
    private final OrderBook book;
    private final Holds holds;
    private final Days days;
    private final KeptMethods methods;
    private final Charging charging;
    private final StandinsSettings settings;

    OrderApi(
            OrderBook book, Holds holds, Days days, KeptMethods methods, Charging charging, StandinsSettings settings) {
        this.methods = methods;
        this.charging = charging;
        this.book = book;
        this.holds = holds;
        this.days = days;
        this.settings = settings;
    }

    /**
     * What is asked for.
     *
     * @param payerName as the business knows it; may be left out, as the address
     * @param test for one that is only tried
     * @param takes card, debit, satchel or hatbox, one at least; card where it is left out
     * @param hold whether a card's money is only reserved
     * @param keep whether what pays it is kept for later
     * @param method a kept card or account that it is to be taken from, once {@code charge} is called; may be left out
     */
    record Asked(
            BigDecimal amount,
            String currency,
            String description,
            String returnTo,
            String payerName,
            String payerEmail,
            Boolean test,
            List<String> takes,
            Boolean hold,
            Boolean keep,
            String method) {
        boolean onTrial() {
            return Boolean.TRUE.equals(test);
        }

        CardOrder.Wish wish() {
            return new CardOrder.Wish(
                    takes == null ? List.of("card") : takes,
                    Boolean.TRUE.equals(hold),
                    Boolean.TRUE.equals(keep),
                    method == null || method.isEmpty() ? null : method);
        }
    }

    record Today(LocalDate today) {}

    record Attempt(String lastFour, String outcome) {}

    /**
     * With what it was paid.
     *
     * @param way card, debit, satchel or hatbox
     * @param name of the card, of the wallet, or of the bank
     * @param keptAs the token under which it was kept for later; null where it was not
     */
    record With(String way, String name, String lastFour, String expiry, String keptAs) {}

    /** What was taken. */
    record Paid(String payment, LocalDate on, String amount, String fee) {}

    /**
     * How an order stands.
     *
     * @param paid null before anything was taken
     * @param with null before anybody tried
     * @param certainOn until when a bank debit that is underway is decided; null for others
     * @param lapsesOn the last day on which what is held can be taken; null for others
     * @param reason why a bank debit was refused or came back, or a kept card was; empty for others
     */
    record Answer(
            String id,
            String state,
            String amount,
            String currency,
            String payAt,
            boolean test,
            Paid paid,
            With with,
            LocalDate certainOn,
            LocalDate lapsesOn,
            String reason,
            List<Attempt> attempts) {}

    /** How much of what is held is taken. */
    record Taken(BigDecimal amount) {}

    @PostMapping("/orders")
    Answer open(
            @RequestHeader("Authorization") String authorization,
            @RequestHeader("Idempotency-Key") String key,
            @RequestBody Asked asked) {
        settings.check(authorization);
        checkAsked(asked);
        CardOrder order = book.open(
                key,
                asked.amount(),
                asked.currency(),
                new CardOrder.About(
                        asked.description(),
                        asked.returnTo(),
                        Calls.fit(asked.payerName(), 120),
                        Calls.fit(asked.payerEmail(), 200),
                        asked.onTrial()),
                asked.wish());
        if (order.amount().compareTo(asked.amount()) != 0
                || !order.currency().equals(asked.currency())
                || order.about().test() != asked.onTrial()) {
            throw new ResponseStatusException(HttpStatus.CONFLICT, "this key was used for another order");
        }
        return answer(order);
    }

    private void checkAsked(Asked asked) {
        Currency currency = CURRENCIES.get(asked.currency() == null ? "" : asked.currency());
        if (currency == null || currency.getDefaultFractionDigits() < 0) {
            throw Calls.refused("currency must be an ISO 4217 code");
        }
        Calls.check(asked.amount(), asked.currency());
        checkTexts(asked.description(), asked.returnTo());
        List<String> takes = asked.wish().takes();
        checkTakes(takes);
        if (asked.wish().hold() && takes.contains("debit")) {
            throw Calls.refused("only a card's money can be held, be the card in a wallet or not");
        }
        if (asked.wish().keeps() && asked.onTrial()) {
            throw Calls.refused("on trial nothing is kept");
        }
        String method = asked.wish().method();
        if (method != null
                && (asked.wish().hold()
                        || asked.onTrial()
                        || methods.find(method).isEmpty())) {
            throw Calls.refused("method must be one that is kept here; of it nothing is held, and nothing on trial");
        }
    }

    static void checkTexts(String description, String returnTo) {
        boolean texts =
                description != null && description.length() <= 200 && returnTo != null && returnTo.length() <= 500;
        if (!texts) {
            throw Calls.refused("description and returnTo must be given, with at most 200 and 500 characters");
        }
    }

    static void checkTakes(List<String> takes) {
        if (takes.isEmpty() || !WAYS.containsAll(takes)) {
            throw Calls.refused("takes must be some of card, debit, satchel and hatbox");
        }
    }

    static String nameOf(String way) {
        return "debit".equals(way)
                ? "Bank account"
                : Wallet.of(way).map(Wallet::shown).orElse("Test card");
    }

    @GetMapping("/orders/{id}")
    Answer ask(@RequestHeader("Authorization") String authorization, @PathVariable String id) {
        settings.check(authorization);
        return answer(book.find(id).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND)));
    }

    @PostMapping("/orders/{id}/withdrawal")
    Answer withdraw(@RequestHeader("Authorization") String authorization, @PathVariable String id) {
        settings.check(authorization);
        book.find(id).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
        return answer(book.withdraw(id));
    }

    /** Takes what is held, or less of it; the rest is let go. */
    @PostMapping("/orders/{id}/taking")
    Answer take(
            @RequestHeader("Authorization") String authorization, @PathVariable String id, @RequestBody Taken taken) {
        settings.check(authorization);
        CardOrder order = book.find(id).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
        Calls.check(taken.amount(), order.currency());
        return answer(holds.take(id, taken.amount()));
    }

    /** Takes an order from the kept card or account that it names. */
    @PostMapping("/orders/{id}/charge")
    Answer charge(@RequestHeader("Authorization") String authorization, @PathVariable String id) {
        settings.check(authorization);
        return answer(charging.charge(id));
    }

    /** Lets go what is held. */
    @PostMapping("/orders/{id}/release")
    Answer release(@RequestHeader("Authorization") String authorization, @PathVariable String id) {
        settings.check(authorization);
        return answer(holds.release(id));
    }

    @PutMapping("/business-date")
    void today(@RequestHeader("Authorization") String authorization, @RequestBody Today today) {
        settings.check(authorization);
        days.moveTo(today.today());
    }

    private Answer answer(CardOrder o) {
        CardOrder.Taken taken = o.taken();
        CardOrder.Means means = o.means();
        return new Answer(
                o.id(),
                o.state(),
                Sums.plain(o.amount(), o.currency()),
                o.currency(),
                settings.publicUrl() + "/pay/" + o.id(),
                o.about().test(),
                taken.paymentId() == null
                        ? null
                        : new Paid(
                                taken.paymentId(),
                                taken.on(),
                                Sums.plain(taken.amount(), o.currency()),
                                Sums.plain(taken.fee(), o.currency())),
                means.way() == null
                        ? null
                        : new With(means.way(), nameOf(means.way()), means.lastFour(), means.expiry(), means.keptAs()),
                means.certainOn(),
                means.lapsesOn(),
                means.isDebit() || "refused".equals(o.state()) ? o.reason() : "",
                book.attempts(o.id()).stream()
                        .map(a -> new Attempt(a.lastFour(), a.outcome()))
                        .toList());
    }
}
