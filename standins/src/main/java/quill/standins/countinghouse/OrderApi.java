package quill.standins.countinghouse;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.web.bind.annotation.ExceptionHandler;
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

/** What a business may ask of the counting house. Every call carries its key; an order carries a key of the caller's. */
@RestController
@RequestMapping("/api")
class OrderApi {
    private static final BigDecimal MOST = new BigDecimal("1000000000000");
    private static final Map<String, Currency> CURRENCIES =
            Currency.getAvailableCurrencies().stream().collect(Collectors.toMap(Currency::getCurrencyCode, c -> c));
    private final OrderBook book;
    private final StandinsSettings settings;

    OrderApi(OrderBook book, StandinsSettings settings) {
        this.book = book;
        this.settings = settings;
    }

    /** @param payerName as the business knows it; may be left out, as the address @param test for one that is only tried */
    record Asked(
            BigDecimal amount,
            String currency,
            String description,
            String returnTo,
            String payerName,
            String payerEmail,
            Boolean test) {
        boolean onTrial() {
            return Boolean.TRUE.equals(test);
        }
    }

    record Today(LocalDate today) {}

    record Attempt(String lastFour, String outcome) {}

    /** The card that paid. */
    record Card(String name, String lastFour, String expiry) {}

    record Answer(
            String id,
            String state,
            String amount,
            String currency,
            String payAt,
            String paymentId,
            LocalDate paidOn,
            String fee,
            Card card,
            boolean test,
            List<Attempt> attempts) {}

    @PostMapping("/orders")
    Answer open(
            @RequestHeader("Authorization") String authorization,
            @RequestHeader("Idempotency-Key") String key,
            @RequestBody Asked asked) {
        settings.check(authorization);
        String refusal = refusalOf(asked);
        if (refusal != null) {
            throw new ResponseStatusException(HttpStatus.UNPROCESSABLE_CONTENT, refusal);
        }
        CardOrder order = book.open(
                key,
                asked.amount(),
                asked.currency(),
                new CardOrder.About(
                        asked.description(),
                        asked.returnTo(),
                        fit(asked.payerName(), 120),
                        fit(asked.payerEmail(), 200),
                        asked.onTrial()));
        if (order.amount().compareTo(asked.amount()) != 0
                || !order.currency().equals(asked.currency())
                || order.about().test() != asked.onTrial()) {
            throw new ResponseStatusException(HttpStatus.CONFLICT, "this key was used for another order");
        }
        return answer(order);
    }

    private static String fit(String text, int most) {
        return text == null ? "" : text.substring(0, Math.min(most, text.length()));
    }

    private static String refusalOf(Asked asked) {
        Currency currency = CURRENCIES.get(asked.currency() == null ? "" : asked.currency());
        if (currency == null || currency.getDefaultFractionDigits() < 0) {
            return "currency must be an ISO 4217 code";
        }
        if (asked.amount() == null
                || asked.amount().signum() <= 0
                || asked.amount().compareTo(MOST) >= 0) {
            return "amount must be above zero and below " + MOST;
        }
        if (asked.amount().stripTrailingZeros().scale() > currency.getDefaultFractionDigits()) {
            return "amount has more decimals than " + currency;
        }
        boolean texts = asked.description() != null
                && asked.description().length() <= 200
                && asked.returnTo() != null
                && asked.returnTo().length() <= 500;
        return texts ? null : "description and returnTo must be given, with at most 200 and 500 characters";
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

    @PutMapping("/business-date")
    void today(@RequestHeader("Authorization") String authorization, @RequestBody Today today) {
        settings.check(authorization);
        book.setToday(today.today());
    }

    @ExceptionHandler(ResponseStatusException.class)
    ProblemDetail problem(ResponseStatusException e) {
        return e.getBody();
    }

    private Answer answer(CardOrder o) {
        boolean paid = "paid".equals(o.state());
        return new Answer(
                o.id(),
                o.state(),
                plain(o.amount(), o.currency()),
                o.currency(),
                settings.publicUrl() + "/pay/" + o.id(),
                o.paymentId(),
                o.paidOn(),
                o.fee() == null ? null : plain(o.fee(), o.currency()),
                paid ? new Card("Test card", o.card().lastFour(), o.card().expiry()) : null,
                o.about().test(),
                book.attempts(o.id()).stream()
                        .map(a -> new Attempt(a.lastFour(), a.outcome()))
                        .toList());
    }

    private static String plain(BigDecimal amount, String currency) {
        int decimals = Currency.getInstance(currency).getDefaultFractionDigits();
        return amount.setScale(decimals, RoundingMode.UNNECESSARY).toPlainString();
    }
}
